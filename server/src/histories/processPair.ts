import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect } from 'vitest';
import { cuttableProxy, eventually, serverProcess, type ServerProcess } from '../testing';

/** How long a process serves without a word from the database, in seconds. */
export const UNHEARD_SECONDS = 3;

/** A Date header has whole seconds, and may come late on a busy machine. */
const CLOCK_TOLERANCE_MS = 60_000;

export type Which = 'first' | 'second';
/** What can happen to the second process while something is changed by the first one. */
export const FAULTS = ['none', 'paused', 'cut', 'silent'] as const;
export type Fault = (typeof FAULTS)[number];

/** Two servers of one database. The second one's connection can be cut, and its clock can be set. */
export interface ProcessPair {
  readonly of: Readonly<Record<Which, ServerProcess>>;
  /** By how much the second process's clock is ahead, in milliseconds. */
  readonly ahead: number;
  /** Stops some processes, or kills them, and starts them again. */
  restart(which: readonly Which[], signal: 'SIGTERM' | 'SIGKILL'): Promise<void>;
  begin(fault: Fault): void;
  /** Ends a fault; returns when both processes are ready. */
  end(fault: Fault): Promise<void>;
  setClock(secondsAhead: number): Promise<void>;
  close(): Promise<void>;
}

/** Returns the seconds by which this process's own clock is simulated to be ahead: as a whole test run may be. */
function ownOffset(): number {
  return Number(/^[+-]\d+/.exec(process.env['FAKETIME'] ?? '')?.[0] ?? 0);
}

/** Starts two servers of a database. */
export async function startPair(database: string): Promise<ProcessPair> {
  const library = process.env['FAKETIME_LIBRARY'];
  if (!library) throw new Error('FAKETIME_LIBRARY is not set: run the tests with npm test.');
  const proxy = await cuttableProxy(new URL(database));
  const proxied = new URL(database);
  proxied.port = String(proxy.port);
  const folder = mkdtempSync(join(tmpdir(), 'zonal-clock-'));
  const clockFile = join(folder, 'clock');
  const writeClock = (seconds: number) => {
    const all = ownOffset() + seconds;
    writeFileSync(clockFile, `${all < 0 ? '' : '+'}${all}s\n`);
  };
  writeClock(0);
  const common = { UNHEARD_SECONDS: String(UNHEARD_SECONDS) };
  // Only its clock of the day can be set: time goes on at its own pace for both.
  const clock = {
    ...{ LD_PRELOAD: library, FAKETIME_TIMESTAMP_FILE: clockFile, FAKETIME_CACHE_DURATION: '1' },
    ...{ FAKETIME_DONT_FAKE_MONOTONIC: '1', NO_FAKE_STAT: '1' },
    // It would go before the file.
    FAKETIME: undefined,
  };
  const start = (which: Which) =>
    which === 'first'
      ? serverProcess(database, common)
      : serverProcess(proxied.href, { ...common, ...clock });
  // One after the other: the second one finds the tables that the first one made.
  const of = { first: await start('first'), second: await start('second') };
  let ahead = 0;
  const ready = () =>
    eventually(async () => {
      for (const { base } of [of.first, of.second]) expect((await fetch(`${base}/healthz`)).status).toBe(200);
    });
  return {
    of,
    get ahead() {
      return ahead;
    },
    async restart(which, signal) {
      await Promise.all(which.map((one) => of[one].stop(signal)));
      await Promise.all(which.map(async (one) => void (of[one] = await start(one))));
      await ready();
    },
    begin(fault) {
      if (fault === 'paused') of.second.child.kill('SIGSTOP');
      if (fault === 'cut') proxy.cut(true);
      if (fault === 'silent') proxy.silence(true);
    },
    async end(fault) {
      if (fault === 'paused') of.second.child.kill('SIGCONT');
      if (fault === 'cut') proxy.cut(false);
      if (fault === 'silent') proxy.silence(false);
      await ready();
    },
    async setClock(secondsAhead) {
      writeClock(secondsAhead);
      ahead = secondsAhead * 1000;
      await eventually(async () => {
        const { headers } = await fetch(`${of.second.base}/livez`);
        const clock = Date.parse(headers.get('date')!);
        expect(Math.abs(clock - (Date.now() + ahead))).toBeLessThan(CLOCK_TOLERANCE_MS);
      });
      await ready();
    },
    async close() {
      of.second.child.kill('SIGCONT');
      await Promise.all([of.first.stop('SIGKILL'), of.second.stop('SIGKILL')]);
      proxy.close();
      rmSync(folder, { recursive: true, force: true });
    },
  };
}
