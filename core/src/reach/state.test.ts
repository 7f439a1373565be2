import { describe, expect, it } from 'vitest';
import { PLAIN, looksOf, randomFrom } from '../followers';
import { rhythmTrial } from '../testing/rhythmTrial';
import { cases } from '../testing/effort';
import { DAY, HOUR, MINUTE } from '../zones';
import { habitAfter } from './habit';
import { deadlinesOf, stateOf } from './state';

const FROM = Date.UTC(2026, 5, 1);
const hourly = habitAfter(null, looksOf(PLAIN, FROM, FROM + 7 * DAY, randomFrom(1)))!;
const after = (length: number, holds = true, habit = hourly) => stateOf(habit, holds, habit.last + length);

describe('the state of a subscriber', () => {
  it('goes from in step or due to late and to silent as it waits', () => {
    expect([after(50 * MINUTE), after(50 * MINUTE, false)]).toEqual(['in-step', 'due']);
    expect([after(90 * MINUTE), after(90 * MINUTE, false)]).toEqual(['in-step', 'due']);
    expect([after(4 * HOUR), after(4 * HOUR, false)]).toEqual(['late', 'late']);
    expect(after(2 * DAY)).toBe('late');
    expect(after(4 * DAY)).toBe('silent');
  });

  it('changes at its deadlines and at no other moment', () => {
    const { late, silent } = deadlinesOf(hourly);
    expect([-1, 0].map((by) => stateOf(hourly, true, late + by))).toEqual(['in-step', 'late']);
    expect([-1, 0].map((by) => stateOf(hourly, true, silent + by))).toEqual(['late', 'silent']);
  });

  it('is that of a file brought in once after two days, and may still become another', () => {
    const once = habitAfter(null, [FROM, FROM + 5 * MINUTE, FROM + 30 * MINUTE])!;
    expect(after(DAY, true, habitAfter(null, [FROM])!)).toBe('in-step');
    expect(after(2 * DAY - 1, true, once)).not.toBe('once');
    expect(after(2 * DAY, true, once)).toBe('once');
    expect(after(HOUR, true, habitAfter(once, [FROM + 3 * DAY])!)).toBe('in-step');
    // Four looks are more than bringing in a file takes.
    const four = [0, 10, 20, 30].map((minutes) => FROM + minutes * MINUTE);
    expect(after(2 * DAY, true, habitAfter(null, four)!)).not.toBe('once');
  });

  it('waits for the morning where somebody looks by day, and for Monday where they look at work', () => {
    const hours = { zone: 'America/Halifax', from: 8, to: 17, workdays: true };
    const looks = looksOf({ ...PLAIN, hours, every: HOUR / 4 }, FROM, FROM + 14 * DAY, randomFrom(2));
    const evenings = (weekday: number) =>
      looks.filter(
        (at, i) => (looks[i + 1] ?? Infinity) - at > 9 * HOUR && new Date(at).getUTCDay() === weekday,
      );
    const known = (until: number) =>
      habitAfter(
        null,
        looks.filter((at) => at <= until),
      )!;
    const [tuesday, friday] = [known(evenings(2).at(-1)!), known(evenings(5).at(-1)!)];
    expect(after(12 * HOUR, true, tuesday)).toBe('in-step');
    expect(after(40 * HOUR, true, friday)).toBe('in-step');
    expect(after(40 * HOUR, true, tuesday)).toBe('late');
  });
});

describe('states told of generated followers', () => {
  it.each([
    [4, 0.8],
    [10, 0.95],
  ])('are right after %i polls as often as is aimed for', (polls, aim) => {
    const { right, cases: of, confusion } = rhythmTrial(polls, cases(800), 77);
    expect(right / of).toBeGreaterThan(aim);
    // It would be easy to be right if all of them were alike.
    for (const told of Object.values(confusion))
      expect(Object.values(told).reduce((a, b) => a + b)).toBeGreaterThan(of / 100);
  });
});
