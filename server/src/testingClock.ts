import { vi } from 'vitest';

/** Does some work while this process's clock stands at an instant, in epoch milliseconds. Timers go on as always. */
export async function atTime<T>(instant: number, work: () => Promise<T>): Promise<T> {
  vi.useFakeTimers({ toFake: ['Date'], now: instant });
  try {
    return await work();
  } finally {
    vi.useRealTimers();
  }
}
