import { EMPTY_CONTENT, type Entry, type When } from '@zonal/core/entries';
import { packRows, dayFromText, dayToText } from '@zonal/core/zones';
import { describe, expect, it } from 'vitest';
import { itemsOf, rangeOf, stepOf } from './deskDays';

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
const items = (...entries: Entry[]) => itemsOf(entries, { from: FROM, to: FROM + 7 }, ZONE);

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
    const { rows, count } = packRows(all.map((i) => ({ from: i.firstDay, to: i.lastDay + 1 })));
    expect(all.map((i, n) => `${i.entry.id}${rows[n]}`)).toEqual(['long0', 'a1', 'b2', 'c0']);
    expect(count).toBe(3);
  });

  it('shows the same moments as clocks in another zone show them, and whole days as they are', () => {
    const late = entry('a', at('2026-05-12T22:00'), at('2026-05-12T23:00'));
    const days = entry('b', date('2026-05-12'), date('2026-05-13'));
    const shown = itemsOf([late, days], { from: FROM, to: FROM + 7 }, 'Europe/Lisbon', ZONE);
    expect(shown.map((i) => [i.entry.id, dayToText(i.firstDay)])).toEqual([
      ['b', '2026-05-12'],
      ['a', '2026-05-13'],
    ]);
  });

  it('keeps a milestone in sight from the day that it was planned for', () => {
    const slipped = { ...entry('m', date('2026-06-12'), date('2026-06-13')), kind: 'milestone' as const };
    expect(items(slipped)).toHaveLength(0);
    const [item] = items({ ...slipped, planned: date('2026-05-12') });
    expect(dayToText(item!.plannedDay!)).toBe('2026-05-12');
  });

  it('marks what stands in a clock change', () => {
    const spring = dayFromText('2026-03-02');
    const odd = entry('a', at('2026-03-08T02:30'), at('2026-03-08T04:00'));
    expect(itemsOf([odd], { from: spring, to: spring + 7 }, ZONE)[0]!.odd).toBe(true);
  });

  it('gives an item the same key in every range', () => {
    const series = {
      ...entry('s', at('2026-05-11T09:00'), at('2026-05-11T10:00')),
      recurrence: { rule: 'FREQ=DAILY', dates: [], exceptDates: [] },
    };
    const wide = itemsOf([series], { from: FROM, to: FROM + 28 }, ZONE);
    const narrow = itemsOf([series], { from: FROM + 7, to: FROM + 14 }, ZONE);
    expect(narrow.map((i) => i.key)).toEqual(wide.slice(7, 14).map((i) => i.key));
  });
});

describe('the days of a view', () => {
  const day = dayFromText('2026-05-13');
  const text = (r: { from: number; to: number }) => [dayToText(r.from), dayToText(r.to)];
  it('are whole weeks, a month filled up to them', () => {
    expect(text(rangeOf('lanes', day, 2))).toEqual(['2026-05-11', '2026-05-25']);
    expect(text(rangeOf('week', day, 13))).toEqual(['2026-05-11', '2026-05-18']);
    expect(text(rangeOf('month', day, 1))).toEqual(['2026-04-27', '2026-06-01']);
    expect(text(rangeOf('list', day, 13))).toEqual(['2026-05-11', '2026-08-10']);
  });

  it('go on by as many as are shown', () => {
    const step = (view: 'lanes' | 'month', way: 1 | -1) => dayToText(stepOf(view, day, 4, way));
    expect(step('lanes', 1)).toBe('2026-06-08');
    expect(step('lanes', -1)).toBe('2026-04-13');
    expect(step('month', 1)).toBe('2026-06-01');
    expect(step('month', -1)).toBe('2026-04-01');
  });
});
