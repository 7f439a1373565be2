import { expect, it } from 'vitest';
import { lastingAnswer } from './lastingAnswer';

it('is worked out once for all, and given as it was while the next one takes long', async () => {
  let [now, count] = [0, 0];
  const ready: (() => void)[] = [];
  const ask = lastingAnswer(
    () => new Promise<number>((resolve) => ready.push(() => resolve(++count))),
    () => now,
  );
  const both = [ask(), ask()];
  now = 500;
  ready.shift()!();
  expect(await Promise.all(both)).toMatchObject([
    { at: 0, value: 1 },
    { at: 0, value: 1 },
  ]);
  // Fresh for ten times as long as it took.
  now = 5_400;
  expect(await ask()).toMatchObject({ value: 1 });
  now = 5_600;
  const waited = ask();
  now = 9_600;
  ready.shift()!();
  expect(await waited).toMatchObject({ at: 5_600, value: 2 });
  now = 60_000;
  expect(await ask()).toMatchObject({ at: 5_600, value: 2 });
  expect(await ask()).toMatchObject({ value: 2 });
  expect(ready).toHaveLength(1);
  ready.shift()!();
  await new Promise(setImmediate);
  expect(await ask()).toMatchObject({ at: 60_000, value: 3 });
});

it('is tried again after it failed', async () => {
  let fails = true;
  const ask = lastingAnswer(() => (fails ? Promise.reject(new Error('away')) : Promise.resolve('there')));
  await expect(ask()).rejects.toThrow('away');
  fails = false;
  expect(await ask()).toMatchObject({ value: 'there' });
});
