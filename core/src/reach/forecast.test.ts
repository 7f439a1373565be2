import { describe, expect, it } from 'vitest';
import { PLAIN, looksOf, randomFrom } from '../followers';
import { cases } from '../testing/effort';
import { forecastTrial } from '../testing/forecastTrial';
import { DAY, HOUR, MINUTE } from '../zones';
import { CURVE, forecastOf, nextLookOf, shareAfter } from './forecast';
import { habitAfter } from './habit';
import { waitingOf } from './waiting';

const FROM = Date.UTC(2026, 5, 1);
const habitOf = (program: typeof PLAIN, days = 7, seed = 1) =>
  habitAfter(null, looksOf(program, FROM, FROM + days * DAY, randomFrom(seed)))!;
const hourly = habitOf(PLAIN);
const daily = habitOf({ ...PLAIN, every: DAY }, 21);

describe('how long a subscriber waits', () => {
  it('is told by a chance that falls, and the other way round', () => {
    for (const habit of [hourly, daily, habitAfter(null, [FROM])!]) {
      const waiting = waitingOf(habit);
      let before = 1;
      for (let length = MINUTE; length < 60 * DAY; length *= 1.1) {
        const longer = waiting.longerThan(length);
        expect(longer).toBeLessThanOrEqual(before + 1e-12);
        before = longer;
      }
      for (const chance of [0.1, 0.5, 0.9]) {
        const within = waiting.within(chance);
        expect(waiting.longerThan(within * 1.05)).toBeLessThanOrEqual(1 - chance + 1e-9);
        expect(waiting.longerThan(within * 0.95)).toBeGreaterThanOrEqual(1 - chance - 1e-9);
      }
    }
  });
});

describe('the next look of a subscriber', () => {
  it('takes into account how long it has waited', () => {
    const early = nextLookOf(hourly, hourly.last + 5 * MINUTE);
    const soon = nextLookOf(hourly, hourly.last + 50 * MINUTE);
    expect(early.within(20 * MINUTE)).toBeLessThan(0.1);
    expect(soon.within(20 * MINUTE)).toBeGreaterThan(0.85);
    expect(Math.abs(soon.by(0.5)! - 10 * MINUTE)).toBeLessThan(3 * MINUTE);
  });

  it('is less and less likely to come at all', () => {
    const ever = [HOUR, 5 * HOUR, DAY, 5 * DAY, 20 * DAY].map(
      (waited) => nextLookOf(hourly, hourly.last + waited).ever,
    );
    expect(ever).toEqual([...ever].sort((a, b) => b - a));
    expect([ever[0]! > 0.98, ever.at(-1)! < 0.2]).toEqual([true, true]);
    expect(nextLookOf(hourly, hourly.last + 20 * DAY).by(0.9)).toBeNull();
  });
});

describe('a forecast', () => {
  const now = hourly.last + 10 * MINUTE;
  const late = { ...daily, last: now - HOUR, look: now - HOUR };
  const gone = { ...hourly, last: now - 40 * DAY, look: now - 40 * DAY };
  const awaited = [
    { habit: hourly, readers: 6, holds: false },
    { habit: late, readers: 3, holds: false },
    { habit: gone, readers: 1, holds: false },
  ];

  it('tells when half and nine in ten of all readers hold a change, and who never will', () => {
    const { curve, readers, halfBy, nineInTenBy, never } = forecastOf(awaited, now);
    expect([readers, never]).toEqual([10, 1]);
    expect(curve.map((p) => p.share)).toEqual([...curve.map((p) => p.share)].sort((a, b) => a - b));
    expect(halfBy! - now).toBeLessThan(75 * MINUTE);
    expect(nineInTenBy === null || nineInTenBy - now > 20 * HOUR).toBe(true);
    expect(shareAfter(curve, 2 * HOUR)).toBeGreaterThan(0.55);
    expect(shareAfter(curve, 2 * HOUR)).toBeLessThan(0.7);
    expect(shareAfter(curve, 2 * DAY)).toBeGreaterThan(0.85);
  });

  it('counts who holds it already, and is nothing for nobody', () => {
    const holding = awaited.map((one) => ({ ...one, holds: true }));
    const done = forecastOf(holding, now);
    expect([done.halfBy, done.nineInTenBy, done.never]).toEqual([now, now, 0]);
    expect(forecastOf([], now)).toMatchObject({ readers: 0, halfBy: null, never: 0 });
    expect(forecastOf([], now).curve).toHaveLength(CURVE.length);
  });
});

describe('forecasts of generated followers', () => {
  it('hold about as often as they say, and better than a constant guess', () => {
    const { nineInTen, brier, constant } = forecastTrial(cases(600), 5);
    expect(nineInTen).toBeGreaterThan(0.85);
    expect(nineInTen).toBeLessThan(0.95);
    expect(brier).toBeLessThan(constant * 0.6);
  });
});
