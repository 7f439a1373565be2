import { describe, expect, it } from 'vitest';
import { DAY, HOUR } from '../zones';
import { CURVE } from './forecast';
import { habitAfter, type Habit } from './habit';
import { knowsBy, spreadCurve, standingOf } from './standing';

const START = Date.UTC(2026, 5, 1);
const hourly = (days: number): Habit =>
  habitAfter(
    null,
    Array.from({ length: 24 * days }, (_, i) => START + i * HOUR),
  )!;

describe('the standing of a subscriber', () => {
  it('says its state, its rhythm, and when it is expected', () => {
    const habit = hourly(5);
    const now = habit.last + HOUR / 2;
    const { state, interval, nextBy, nineInTenBy } = standingOf(habit, true, now);
    expect([state, interval]).toEqual(['in-step', HOUR]);
    expect(nextBy).toBeGreaterThan(now);
    expect(nextBy).toBeLessThan(now + HOUR);
    expect(nineInTenBy).toBeGreaterThanOrEqual(nextBy!);
    expect(standingOf(habit, false, now).state).toBe('due');
    expect(standingOf(habit, false, habit.last + 40 * DAY)).toMatchObject({ state: 'silent', nextBy: null });
  });

  it('says whether it will know in time', () => {
    const habit = hourly(5);
    const now = habit.last + HOUR / 2;
    expect(knowsBy(habit, now, now + 3 * HOUR)).toMatchObject({ late: false });
    expect(knowsBy(habit, now, now + 60_000)).toMatchObject({ late: true });
    expect(knowsBy(habit, now, now - 1)).toEqual({ chance: 0, late: true });
  });
});

it('a spread is told up to now, as a share of those for whom it was forecast', () => {
  const steps = [
    { step: 1, readers: 2 },
    { step: 3, readers: 5 },
    { step: 9, readers: 1 },
  ];
  const curve = spreadCurve(steps, 10, CURVE, 2 * HOUR);
  expect(curve).toEqual([
    { after: 0, share: 0 },
    { after: HOUR / 4, share: 0.2 },
    { after: HOUR / 2, share: 0.2 },
    { after: HOUR, share: 0.7 },
    { after: 2 * HOUR, share: 0.7 },
  ]);
  expect(spreadCurve(steps, 4, CURVE, 30 * DAY).at(-1)!.share).toBe(1);
  expect(spreadCurve(steps, 0, CURVE, HOUR)[1]).toEqual({ after: HOUR / 4, share: 0 });
});
