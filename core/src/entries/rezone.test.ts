import { describe, expect, it } from 'vitest';
import { date, entry, zoned, HOST } from '../testing/samples';
import { driftsBetween, oddTimesOf, phasesFor } from './clockNotes';
import { occurrencesOf } from './occurrences';
import { rezone } from './rezone';

const NOW = Date.UTC(2026, 5, 1);
const LISBON = 'Europe/Lisbon';
const weekly = entry({
  start: zoned('2026-02-02T14:00'),
  recurrence: {
    rule: 'FREQ=WEEKLY;UNTIL=20261207T180000Z',
    dates: [],
    exceptDates: [zoned('2026-02-09T14:00')],
  },
});
const year = { from: Date.UTC(2026, 0, 1), to: Date.UTC(2027, 0, 1) };

describe('a change of zone that keeps the clock times', () => {
  it('moves the moments and says so, with excepted dates and the end of the rule', () => {
    const { after, moved } = rezone(weekly, HOST, LISBON, 'clock-times', NOW);
    expect(moved).toBe(true);
    expect(after.start).toEqual(zoned('2026-02-02T14:00', LISBON));
    const before = occurrencesOf(weekly, year, HOST).map((o) => (o.start as { at: string }).at);
    expect(occurrencesOf(after, year, LISBON).map((o) => (o.start as { at: string }).at)).toEqual(before);
  });

  it('leaves whole days, floating times and times in a zone of their own as they are', () => {
    for (const start of [
      date('2026-05-01'),
      { kind: 'floating', at: '2026-05-01T09:00:00' } as const,
      zoned('2026-05-01T09:00', 'Asia/Kolkata'),
    ]) {
      const one = entry({ start });
      const { after, moved } = rezone(one, HOST, LISBON, 'clock-times', NOW);
      expect(after).toBe(one);
      expect(moved).toBe(false);
    }
  });

  it('moves nothing where both zones show the same', () => {
    const { after, moved } = rezone(weekly, HOST, 'America/Moncton', 'clock-times', NOW);
    expect(after.start).toEqual(zoned('2026-02-02T14:00', 'America/Moncton'));
    expect(moved).toBe(false);
  });
});

describe('a change of zone that keeps the moments', () => {
  it('writes a single entry on the new clocks', () => {
    const one = entry({
      start: zoned('2026-02-02T22:00'),
      kind: 'milestone',
      planned: zoned('2026-02-01T22:00'),
    });
    const { after, moved } = rezone(one, HOST, LISBON, 'moments', NOW);
    expect(after.start).toEqual(zoned('2026-02-03T02:00', LISBON));
    expect(after.planned).toEqual(zoned('2026-02-02T02:00', LISBON));
    expect(moved).toBe(false);
  });

  it('leaves a series on its clocks where the clock changes of the two zones differ', () => {
    const { after, stays } = rezone(weekly, HOST, LISBON, 'moments', NOW);
    expect(stays).toBe(true);
    expect(after).toBe(weekly);
  });

  it('takes a series along where no moment changes by it', () => {
    const { after, stays } = rezone(weekly, HOST, 'America/New_York', 'moments', NOW);
    expect(stays).toBe(false);
    expect(after.start).toEqual(zoned('2026-02-02T13:00', 'America/New_York'));
    expect(occurrencesOf(after, year, 'America/New_York').map((o) => o.from)).toEqual(
      occurrencesOf(weekly, year, HOST).map((o) => o.from),
    );
  });
});

describe('times in a clock change', () => {
  it('are named with what is made of them', () => {
    const gone = entry({ start: zoned('2026-03-08T02:30'), end: zoned('2026-03-08T04:00') });
    expect(oddTimesOf(gone)).toEqual([
      {
        end: 'start',
        meeting: 'never',
        when: gone.start,
        instant: Date.UTC(2026, 2, 8, 6, 30),
        shown: Date.UTC(2026, 2, 8, 3, 30),
      },
    ]);
    const twice = oddTimesOf({ start: zoned('2026-11-01T00:30'), end: zoned('2026-11-01T01:30') });
    expect(twice).toMatchObject([{ end: 'end', meeting: 'twice', instant: Date.UTC(2026, 10, 1, 4, 30) }]);
    expect(oddTimesOf({ start: zoned('2026-05-01T02:30'), end: date('2026-05-02') })).toEqual([]);
  });

  it('give a reader elsewhere other times in the weeks in which two zones disagree', () => {
    const time = (hours: number) => hours * 3_600_000;
    const phases = phasesFor(weekly, year, LISBON, HOST);
    expect(phases.map((p) => p.time)).toEqual([time(18), time(17), time(18), time(17), time(18)]);
    const text = (day: number) => new Date(day * 86_400_000).toISOString().slice(0, 10);
    expect(text(phases[1]!.first)).toBe('2026-03-09');
    expect(text(phases[1]!.last)).toBe('2026-03-23');
    expect(phasesFor(weekly, year, HOST, HOST)).toHaveLength(1);
    expect(phasesFor(entry({ start: date('2026-05-01') }), year, LISBON, HOST)).toEqual([]);
  });

  it('are the moments at which the distance between two zones becomes another', () => {
    const drifts = driftsBetween(HOST, LISBON, year);
    expect(drifts.map((d) => d.distance / 3_600_000)).toEqual([3, 4, 3, 4]);
    expect(drifts.map((d) => d.zone)).toEqual([HOST, LISBON, LISBON, HOST]);
    expect(driftsBetween(HOST, HOST, year)).toEqual([]);
  });
});
