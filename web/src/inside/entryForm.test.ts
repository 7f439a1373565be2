import { EMPTY_CONTENT, type Entry, type When } from '@zonal/core/entries';
import { dayFromText } from '@zonal/core/zones';
import { describe, expect, it } from 'vitest';
import {
  blankForm,
  daysBetween,
  formOf,
  inputOf,
  laterDate,
  recurrenceWords,
  spanOf,
  withStart,
  type EntryForm,
} from './entryForm';

const ZONE = 'America/Halifax';
const at = (text: string): When => ({ kind: 'zoned', at: `${text}:00`, zone: ZONE });

const entry = (parts: Partial<Entry> = {}): Entry => ({
  ...EMPTY_CONTENT,
  id: 'e',
  calendarId: 'c',
  version: 3,
  uid: 'u',
  title: 'Lock inspection',
  people: [{ name: 'Ida', address: 'ida@ostrel.example' }],
  kept: [['x-depth', {}, 'text', '7']],
  start: at('2026-05-13T09:00'),
  end: at('2026-05-13T10:00'),
  recurrence: null,
  overrides: [],
  ...parts,
});

describe('another start', () => {
  const form = (parts: Partial<EntryForm>) => ({ ...blankForm(ZONE, dayFromText('2026-05-13')), ...parts });

  it('takes the end along, so that the entry keeps its length', () => {
    const evening = form({ startTime: '20:00', endTime: '22:30' });
    expect(withStart(evening, { startTime: '22:15' })).toEqual({
      ...{ startTime: '22:15', endDate: '2026-05-14', endTime: '00:45' },
    });
    expect(withStart(evening, { startDate: '2026-06-01' })).toMatchObject({
      ...{ endDate: '2026-06-01', endTime: '22:30' },
    });
    const night = form({ startTime: '22:00', endDate: '2026-05-14', endTime: '06:00' });
    expect(withStart(night, { startTime: '01:00' })).toMatchObject({
      endDate: '2026-05-13',
      endTime: '09:00',
    });
  });

  it('moves whole days by days, and leaves an end that is wrong already where it is', () => {
    const days = form({ clock: 'date', endDate: '2026-05-15', startTime: '09:00', endTime: '08:00' });
    expect(withStart(days, { startDate: '2026-05-30' })).toEqual({
      ...{ startDate: '2026-05-30', endDate: '2026-06-01' },
    });
    const wrong = form({ endDate: '2026-05-12' });
    expect(withStart(wrong, { startTime: '08:00' })).toEqual({ startTime: '08:00' });
  });
});

describe('the form of an entry', () => {
  it('says the same entry again when nothing was changed', () => {
    const rules = [
      'FREQ=WEEKLY;BYDAY=WE',
      'FREQ=MONTHLY;BYDAY=-1FR',
      'FREQ=DAILY;UNTIL=20260520T115959Z',
      'FREQ=DAILY;COUNT=4',
    ];
    for (const rule of rules) {
      const before = entry({ recurrence: { rule, dates: [], exceptDates: [at('2026-05-14T09:00')] } });
      expect(inputOf(formOf(before, ZONE), before), rule).toEqual(before);
    }
    const days = entry({
      start: { kind: 'date', date: '2026-05-13' },
      end: { kind: 'date', date: '2026-05-15' },
    });
    expect(formOf(days, ZONE)).toMatchObject({
      clock: 'date',
      startDate: '2026-05-13',
      endDate: '2026-05-14',
    });
    expect(inputOf(formOf(days, ZONE), days)).toEqual(days);
  });

  it('keeps what it does not show', () => {
    const before = entry();
    const after = inputOf({ ...formOf(before, ZONE), title: ' Sluice ', labels: 'works, , night ' }, before);
    expect(after).toMatchObject({
      title: 'Sluice',
      labels: ['works', 'night'],
      people: before.people,
      kept: before.kept,
    });
  });

  it('makes an entry recur, and stop recurring', () => {
    const before = entry();
    const form = {
      ...formOf(before, ZONE),
      recurs: 'weekly' as const,
      weekdays: [2, 4],
      end: 'count' as const,
      count: '6',
    };
    expect(inputOf(form, before).recurrence!.rule).toBe('FREQ=WEEKLY;BYDAY=WE,FR;COUNT=6');
    expect(recurrenceWords(form, before)).toBe('every week on Wednesday and Friday, 6 times');
    const weekly = entry({ recurrence: { rule: 'FREQ=WEEKLY', dates: [], exceptDates: [] } });
    expect(inputOf({ ...formOf(weekly, ZONE), recurs: 'once' }, weekly).recurrence).toBeNull();
  });

  it('says why it cannot be read', () => {
    const form = blankForm(ZONE, dayFromText('2026-05-13'));
    expect(() => spanOf({ ...form, startDate: '' })).toThrowError('is not a date');
    expect(recurrenceWords({ ...form, recurs: 'daily', interval: '0' }, null)).toContain(
      'whole number from 1',
    );
  });
});

describe('dates as text', () => {
  it('lie apart by days and move by days; unreadable ones stay', () => {
    expect(daysBetween('2026-02-27', '2026-03-01')).toBe(2);
    expect(laterDate('2026-02-27', 2)).toBe('2026-03-01');
    expect(daysBetween('', '2026-03-01')).toBe(0);
    expect(laterDate('soon', 2)).toBe('soon');
  });
});
