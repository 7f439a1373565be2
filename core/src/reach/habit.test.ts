import { describe, expect, it } from 'vitest';
import { PLAIN, looksOf, randomFrom, someProgram } from '../followers';
import { DAY, HOUR, MINUTE, SECOND } from '../zones';
import { habitAfter, intervalOf } from './habit';

const FROM = Date.UTC(2026, 5, 1);
const every = (length: number, times: number, from = FROM) =>
  Array.from({ length: times }, (_, i) => from + i * length);

describe('a habit', () => {
  it('is nothing before the first poll, and has no interval before the second', () => {
    expect(habitAfter(null, [])).toBeNull();
    const once = habitAfter(null, [FROM])!;
    expect([once.polls, once.looks, intervalOf(once)]).toEqual([1, 1, null]);
  });

  it('is the same whether polls come one by one or together, and what is known stays as it is', () => {
    const random = randomFrom(3);
    for (let i = 0; i < 20; i++) {
      const looks = looksOf(someProgram(random), FROM, FROM + 9 * DAY, random);
      const half = habitAfter(null, looks.slice(0, looks.length >> 1));
      const kept = JSON.stringify(half);
      const whole = habitAfter(half, looks.slice(looks.length >> 1));
      expect(whole).toEqual(habitAfter(null, looks));
      expect(JSON.stringify(half)).toBe(kept);
    }
  });

  it('takes polls that follow each other at once for one look', () => {
    const polls = every(HOUR, 10).flatMap((at) => [at, at + 2 * SECOND, at + 40 * SECOND]);
    const habit = habitAfter(null, polls)!;
    expect([habit.polls, habit.looks, intervalOf(habit)]).toEqual([30, 10, HOUR]);
    // Where one looks every two minutes, that is no burst.
    expect(intervalOf(habitAfter(null, every(2 * MINUTE, 10))!)).toBe(2 * MINUTE);
  });

  it('knows the interval in spite of nights, missed looks, restarts, repeats, and of drift', () => {
    const random = randomFrom(5);
    const hours = { zone: 'Europe/Berlin', from: 8, to: 18, workdays: true };
    const troubled = { ...PLAIN, jitter: 0.03, misses: 0.1, retries: 0.1, restarts: 0.5 };
    for (const program of [troubled, { ...troubled, hours, every: HOUR / 2 }]) {
      const habit = habitAfter(null, looksOf(program, FROM, FROM + 21 * DAY, random))!;
      expect(Math.abs(intervalOf(habit)! / program.every - 1)).toBeLessThan(0.05);
    }
    const drifting = { ...PLAIN, drift: 0.02 };
    const habit = habitAfter(null, looksOf(drifting, FROM, FROM + 50 * DAY, random))!;
    expect(intervalOf(habit)! / HOUR).toBeGreaterThan(1.9);
  });

  it('stays small, however much is known', () => {
    const random = randomFrom(8);
    const size = (days: number) => {
      const polls = looksOf({ ...PLAIN, every: 5 * MINUTE }, FROM, FROM + days * DAY, random);
      return JSON.stringify(habitAfter(null, polls)).length;
    };
    expect(size(200)).toBeLessThan(size(30) * 1.2);
    expect(size(200)).toBeLessThan(5_000);
  });
});
