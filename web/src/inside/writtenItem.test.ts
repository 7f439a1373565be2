import { EMPTY_CONTENT, type Entry, type When } from '@zonal/core/entries';
import { dayFromText, dayToText } from '@zonal/core/zones';
import { expect, it } from 'vitest';
import { firstItemOf, isOutOfDays } from './writtenItem';

const ZONE = 'America/Halifax';
const at = (text: string): When => ({ kind: 'zoned', at: `${text}:00`, zone: ZONE });
const WEEK = { from: dayFromText('2026-05-11'), to: dayFromText('2026-05-18') };

const meeting: Entry = {
  ...EMPTY_CONTENT,
  id: 'a',
  calendarId: 'c',
  version: 1,
  uid: 'a',
  start: at('2026-06-02T09:00'),
  end: at('2026-06-02T10:00'),
  recurrence: null,
  overrides: [],
};
const daily: Entry = {
  ...meeting,
  start: at('2026-05-12T09:00'),
  end: at('2026-05-12T10:00'),
  recurrence: { rule: 'FREQ=DAILY', dates: [], exceptDates: [] },
};

it('finds the day of an entry that was written for another week', () => {
  const written = { entry: meeting, slot: null };
  expect(isOutOfDays(written, WEEK, ZONE, ZONE)).toBe(true);
  expect(dayToText(firstItemOf(written, ZONE, ZONE)!.firstDay)).toBe('2026-06-02');
  expect(isOutOfDays({ entry: daily, slot: null }, WEEK, ZONE, ZONE)).toBe(false);
});

it('looks for the date of a series that was moved, not for its other dates', () => {
  const slot = at('2026-05-13T09:00');
  const moved = { slot, start: at('2026-06-20T09:00'), end: at('2026-06-20T10:00'), content: EMPTY_CONTENT };
  const written = { entry: { ...daily, overrides: [moved] }, slot };
  expect(isOutOfDays(written, WEEK, ZONE, ZONE)).toBe(true);
  expect(dayToText(firstItemOf(written, ZONE, ZONE)!.firstDay)).toBe('2026-06-20');
});
