import { EMPTY_CONTENT, type Entry, type When } from '@zonal/core/entries';
import { dayFromText, dayToText } from '@zonal/core/zones';
import { describe, expect, it } from 'vitest';
import { itemsOf, mondayOf, packRows } from './deskDays';

const ZONE = 'America/Halifax';
const at = (text: string, zone = ZONE): When => ({ kind: 'zoned', at: `${text}:00`, zone });
const entry = (id: string, start: When, end: When): Entry => ({
  ...EMPTY_CONTENT,
  id,
  calendarId: 'c',
  version: 1,
  uid: id,
  start,
  end,
  recurrence: null,
  overrides: [],
});
const date = (text: string): When => ({ kind: 'date', date: text });
const FROM = dayFromText('2026-05-11');
const items = (...entries: Entry[]) => itemsOf(entries, FROM, FROM + 7, ZONE);

describe('what the desk shows', () => {
  it('stands on the clocks of the calendar', () => {
    const [item] = items(
      entry('a', at('2026-05-12T01:00', 'Europe/London'), at('2026-05-12T02:00', 'Europe/London')),
    );
    expect(dayToText(item!.firstDay)).toBe('2026-05-11');
    expect(item!.start % 86_400_000).toBe(21 * 3_600_000);
  });

  it('keeps a night watch on the day it starts, and draws what lasts a day or more across days', () => {
    const [watch] = items(entry('a', at('2026-05-12T22:00'), at('2026-05-13T06:00')));
    expect(watch!.lastDay).toBe(watch!.firstDay);
    const [long] = items(entry('b', at('2026-05-12T22:00'), at('2026-05-14T06:00')));
    expect(long!.lastDay - long!.firstDay).toBe(2);
    const [days] = items(entry('c', date('2026-05-12'), date('2026-05-15')));
    expect(days!.lastDay - days!.firstDay).toBe(2);
  });

  it('packs entries so that none covers another', () => {
    const all = items(
      entry('long', date('2026-05-11'), date('2026-05-14')),
      entry('a', at('2026-05-12T09:00'), at('2026-05-12T10:00')),
      entry('b', at('2026-05-12T11:00'), at('2026-05-12T12:00')),
      entry('c', at('2026-05-14T09:00'), at('2026-05-14T10:00')),
    );
    const rows = packRows(all);
    expect(all.map((i) => `${i.entry.id}${rows.get(i)}`)).toEqual(['long0', 'a1', 'b2', 'c0']);
  });

  it('finds the Monday of an instant by the clocks of a zone', () => {
    const sundayNight = Date.UTC(2026, 4, 18, 1);
    expect(dayToText(mondayOf(sundayNight, ZONE))).toBe('2026-05-11');
    expect(dayToText(mondayOf(sundayNight, 'UTC'))).toBe('2026-05-18');
  });
});
