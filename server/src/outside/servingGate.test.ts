import { expect, it } from 'vitest';
import { PAUSE_MS, ServingGate } from './servingGate';

/** A gate on a clock of its own, whose catching up ends when a test says so. */
function gateOnClock() {
  const clock = { elapsed: 0, uptime: 1_000 };
  const waiting: ((done: boolean) => void)[] = [];
  const gate = new ServingGate({
    catchUp: () => new Promise<boolean>((resolve) => waiting.push(resolve)),
    elapsed: () => clock.elapsed,
    machineUptime: () => clock.uptime,
  });
  const settle = async (done = true) => {
    waiting.shift()!(done);
    await new Promise((resolve) => setImmediate(resolve));
  };
  const pass = (ms: number) => {
    clock.elapsed += ms;
    clock.uptime += ms / 1000;
  };
  return { gate, clock, waiting, settle, pass };
}

it('opens once the process has caught up', async () => {
  const { gate, settle } = gateOnClock();
  const started = gate.start();
  expect(gate.isOpen).toBe(false);
  await settle();
  await started;
  expect(gate.isOpen).toBe(true);
  gate.close();
});

it('is shut after a pause before anything else runs, until the process has caught up again', async () => {
  const { gate, settle, pass } = gateOnClock();
  const started = gate.start();
  await settle();
  await started;
  pass(PAUSE_MS - 1);
  expect(gate.isOpen).toBe(true);
  pass(1);
  // No timer has run yet.
  expect(gate.isOpen).toBe(false);
  gate.beat();
  expect(gate.isOpen).toBe(false);
  await settle();
  expect(gate.isOpen).toBe(true);
  gate.close();
});

it('does not count what a catching up before the pause found', async () => {
  const { gate, waiting, settle, pass } = gateOnClock();
  void gate.start();
  pass(PAUSE_MS);
  gate.beat();
  expect(waiting).toHaveLength(2);
  await settle();
  expect(gate.isOpen).toBe(false);
  await settle();
  expect(gate.isOpen).toBe(true);
  gate.close();
});

it('notices that the machine slept, which no monotonic clock shows', async () => {
  const { gate, clock, settle } = gateOnClock();
  const started = gate.start();
  await settle();
  await started;
  clock.uptime += 60;
  gate.beat();
  expect(gate.isOpen).toBe(false);
  await settle();
  expect(gate.isOpen).toBe(true);
  gate.close();
});
