import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { HOST, date, entry, zoned } from '../testing/samples';
import { entryArbitrary } from '../testing/arbitraries';
import { wallToText } from '../zones';
import {
  changeDate,
  changeOnward,
  cutSeries,
  occurrencesOf,
  skipDate,
  usualAt,
  wallOf,
  type Entry,
} from './index';

const YEAR = { from: Date.UTC(2025, 6, 1), to: Date.UTC(2027, 6, 1) };
const series = (rule: string, parts: Partial<Entry> = {}) =>
  entry({ start: zoned('2026-01-05T09:00'), recurrence: { rule, dates: [], exceptDates: [] }, ...parts });
const told = (e: Entry | null) =>
  e
    ? occurrencesOf(e, YEAR, HOST).map(
        (o) => `${wallToText(wallOf(o.start)).slice(0, 16)} ${o.content.title}`,
      )
    : [];

describe('one date of a series', () => {
  it('is changed by itself, and stays changed by itself only where it differs', () => {
    const weekly = series('FREQ=WEEKLY;COUNT=3');
    const slot = zoned('2026-01-12T09:00');
    const usual = usualAt(weekly, slot);
    const changed = changeDate(weekly, slot, {
      ...usual,
      start: zoned('2026-01-13T10:00'),
      end: zoned('2026-01-13T11:00'),
    });
    expect(told(changed)).toEqual([
      '2026-01-05T09:00 Lock inspection',
      '2026-01-13T10:00 Lock inspection',
      '2026-01-19T09:00 Lock inspection',
    ]);
    expect(changeDate(changed, slot, usual).overrides).toEqual([]);
  });

  it('is skipped, with what was its own', () => {
    const weekly = series('FREQ=WEEKLY;COUNT=3');
    const slot = zoned('2026-01-12T09:00');
    const changed = changeDate(weekly, slot, {
      ...usualAt(weekly, slot),
      content: { ...weekly, title: 'Other' },
    });
    const skipped = skipDate(changed, slot, HOST);
    expect(told(skipped)).toEqual(['2026-01-05T09:00 Lock inspection', '2026-01-19T09:00 Lock inspection']);
    expect(skipped.overrides).toEqual([]);
    expect(() => skipDate(series('FREQ=DAILY;COUNT=1'), zoned('2026-01-05T09:00'), HOST)).toThrowError(
      'no date would be left',
    );
  });
});

describe('a series from one date on', () => {
  it('is moved and renamed, and the part before stays', () => {
    const daily = series('FREQ=DAILY;COUNT=4');
    const slot = zoned('2026-01-07T09:00');
    const cut = changeOnward(daily, slot, {
      start: zoned('2026-01-07T14:00'),
      end: zoned('2026-01-07T15:00'),
      content: { ...daily, title: 'Afternoon' },
    });
    expect(told(cut.before)).toEqual([
      '2026-01-05T09:00 Lock inspection',
      '2026-01-06T09:00 Lock inspection',
    ]);
    expect(told(cut.from)).toEqual(['2026-01-07T14:00 Afternoon', '2026-01-08T14:00 Afternoon']);
  });

  it('follows to another weekday', () => {
    const weekly = series('FREQ=WEEKLY;BYDAY=MO');
    const slot = zoned('2026-01-19T09:00');
    const { from } = changeOnward(weekly, slot, {
      start: zoned('2026-01-21T09:00'),
      end: zoned('2026-01-21T10:00'),
      content: weekly,
    });
    expect(from.recurrence!.rule).toBe('FREQ=WEEKLY;BYDAY=WE');
    expect(told(from).slice(0, 2)).toEqual([
      '2026-01-21T09:00 Lock inspection',
      '2026-01-28T09:00 Lock inspection',
    ]);
  });

  it('has no part before at its first date', () => {
    expect(cutSeries(series('FREQ=DAILY'), zoned('2026-01-05T09:00')).before).toBeNull();
    const days = entry({
      start: date('2026-01-05'),
      recurrence: { rule: 'FREQ=DAILY;COUNT=3', dates: [], exceptDates: [] },
    });
    expect(told(cutSeries(days, date('2026-01-06')).before)).toEqual(['2026-01-05T00:00 Lock inspection']);
  });

  it('cut anywhere has the same dates as before, for generated series', () => {
    const recurring = entryArbitrary.filter(
      (e) => e.recurrence !== null && occurrencesOf(e, YEAR, HOST).length > 1,
    );
    fc.assert(
      fc.property(recurring, fc.nat(1000), (whole, n) => {
        const dates = occurrencesOf(whole, YEAR, HOST);
        const { slot } = dates[n % dates.length]!;
        const { before, from } = cutSeries(whole, slot!);
        expect([...told(before), ...told(from)].sort()).toEqual(told(whole).sort());
      }),
      { numRuns: 400, seed: 7 },
    );
  });
});
