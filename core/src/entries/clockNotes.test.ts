import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { HOST, date, entry, zoned } from '../testing/samples';
import { HOUR, dayOfWall, timeOfWall, wallAt, wallFromText, wallToText } from '../zones';
import { driftsBetween, occurrencesOf, oddTimesOf, phasesFor } from '.';

const YEAR = { from: Date.UTC(2026, 0, 1), to: Date.UTC(2027, 0, 1) };
const ZONES = [
  'Europe/London',
  'Europe/Berlin',
  'America/Sao_Paulo',
  'Australia/Sydney',
  'Asia/Kolkata',
  'UTC',
];
const daily = (time: string, parts = {}) =>
  entry({
    start: zoned(`2026-01-01T${time}`),
    recurrence: { rule: 'FREQ=DAILY', dates: [], exceptDates: [] },
    ...parts,
  });

describe('a series on a reader’s clocks', () => {
  it('is told in stretches that fit every one of its dates, and each stretch differs from the one before', () => {
    fc.assert(
      fc.property(fc.constantFrom(...ZONES), fc.integer({ min: 0, max: 95 }), (reader, quarter) => {
        const time = wallToText(quarter * 900_000).slice(11, 16);
        const series = daily(time);
        const phases = phasesFor(series, YEAR, reader, HOST);
        phases.slice(1).forEach((p, i) => {
          expect(p.time).not.toBe(phases[i]!.time);
          // 00:00 and, the next evening, 23:00 can be one day for the reader.
          expect(p.first).toBeGreaterThanOrEqual(phases[i]!.last);
        });
        for (const one of occurrencesOf(series, YEAR, HOST)) {
          // In the hour of a clock change the date itself is odd, and the editor says so by itself.
          if (timeOfWall(wallFromText((one.start as { at: string }).at)) !== quarter * 900_000) continue;
          const wall = wallAt(reader, one.from);
          const day = dayOfWall(wall);
          const own = phases.filter((p) => p.first <= day && day <= p.last);
          expect(own.map((p) => p.time)).toContain(timeOfWall(wall));
        }
      }),
      { numRuns: 120, seed: 2 },
    );
  });

  it('shows the weeks in which two zones are nearer than usual', () => {
    const hours = phasesFor(daily('09:00'), YEAR, 'Europe/London', HOST).map((p) => p.time / HOUR);
    // Halifax changes three weeks before London in spring, and a week after it in autumn.
    expect(hours).toEqual([13, 12, 13, 12, 13]);
  });

  it('has nothing to tell of whole days, of single entries and of dates moved by hand', () => {
    expect(phasesFor(entry({ start: zoned('2026-01-05T09:00') }), YEAR, 'UTC', HOST)).toEqual([]);
    const days = entry({
      start: date('2026-01-05'),
      recurrence: { rule: 'FREQ=DAILY', dates: [], exceptDates: [] },
    });
    expect(phasesFor(days, YEAR, 'UTC', HOST)).toEqual([]);
    const moved = daily('09:00', {
      overrides: [
        {
          slot: zoned('2026-02-02T09:00'),
          start: zoned('2026-02-02T15:00'),
          end: zoned('2026-02-02T16:00'),
          content: entry({ start: zoned('2026-02-02T15:00') }),
        },
      ],
    });
    expect(phasesFor(moved, YEAR, HOST, HOST)).toHaveLength(1);
  });
});

describe('the distance of two zones', () => {
  it('changes where it is said to, by what is said, and nowhere else', () => {
    for (const zone of ZONES) {
      const drifts = driftsBetween(HOST, zone, YEAR);
      let distance = wallAt(zone, YEAR.from) - wallAt(HOST, YEAR.from);
      let next = 0;
      for (let at = YEAR.from; at < YEAR.to; at += HOUR / 2) {
        while (next < drifts.length && drifts[next]!.at <= at) distance = drifts[next++]!.distance;
        expect(wallAt(zone, at) - wallAt(HOST, at)).toBe(distance);
      }
      expect(next).toBe(drifts.length);
    }
    expect(driftsBetween(HOST, 'America/Moncton', YEAR)).toEqual([]);
  });
});

describe('odd times', () => {
  it('tell which end, how clocks meet it, and what everybody sees instead', () => {
    const skipped = oddTimesOf({ start: zoned('2026-03-08T02:30'), end: zoned('2026-03-08T04:00') });
    expect(skipped.map((o) => [o.end, o.meeting, wallToText(o.shown)])).toEqual([
      ['start', 'never', '2026-03-08T03:30:00'],
    ]);
    const twice = oddTimesOf({ start: zoned('2026-11-01T00:30'), end: zoned('2026-11-01T01:30') });
    expect(twice.map((o) => [o.end, o.meeting])).toEqual([['end', 'twice']]);
    // Of two, the first counts: still in summer time.
    expect(twice[0]!.instant).toBe(Date.UTC(2026, 10, 1, 4, 30));
    expect(oddTimesOf({ start: date('2026-03-08'), end: date('2026-03-09') })).toEqual([]);
  });
});
