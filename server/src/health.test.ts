import { expect, it } from 'vitest';
import { healthOf } from './health';

const fine = () => Promise.resolve(null);

it('has nothing to say while every part can do its work', async () => {
  expect(await healthOf({ readers: fine, organisers: fine })()).toEqual([]);
});

it('names each part that cannot do its work, that fails, or that does not answer in time', async () => {
  const checks = {
    readers: fine,
    organisers: () => Promise.resolve('starting'),
    jobs: () => Promise.reject(new Error('no connection')),
    mail: () => new Promise<null>(() => undefined),
  };
  expect(await healthOf(checks, 10)()).toEqual([
    'organisers: starting',
    'jobs: no report (no connection)',
    'mail: no report (no answer in time)',
  ]);
});

it('asks the parts once for many questions at a time', async () => {
  let asked = 0;
  const health = healthOf({ readers: () => Promise.resolve(String(++asked)) });
  expect(await Promise.all([health(), health(), health()])).toEqual(Array(3).fill(['readers: 1']));
});
