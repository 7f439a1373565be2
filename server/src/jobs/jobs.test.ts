import { describe, expect, it } from 'vitest';
import { retryDeadlocks } from './jobs';

describe('a statement that was ended in a deadlock', () => {
  const failing = (times: number, code: string) => {
    let calls = 0;
    return () =>
      ++calls > times ? Promise.resolve(calls) : Promise.reject(Object.assign(new Error(), { code }));
  };

  it('is run again', async () => {
    expect(await retryDeadlocks(failing(3, '40P01'))).toBe(4);
  });

  it('is given up after ten times, and at once after any other error', async () => {
    await expect(retryDeadlocks(failing(10, '40P01'))).rejects.toMatchObject({ code: '40P01' });
    await expect(retryDeadlocks(failing(1, '42P01'))).rejects.toMatchObject({ code: '42P01' });
  });
});
