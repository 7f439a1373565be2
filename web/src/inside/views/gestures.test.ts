import { EMPTY_CONTENT, type When } from '@zonal/core/entries';
import { DAY, HOUR, MINUTE, dayFromText } from '@zonal/core/zones';
import { describe, expect, it } from 'vitest';
import { itemsOf } from '../deskDays';
import { ghostOf, shiftOf } from './gestures';
import type { Drag, Place } from './viewTypes';

const MONDAY = dayFromText('2026-05-11');
const ZONE = 'America/Halifax';
const at = (text: string): When => ({ kind: 'zoned', at: `${text}:00`, zone: ZONE });
const date = (text: string): When => ({ kind: 'date', date: text });
const itemOf = (start: When, end: When) =>
  itemsOf(
    [
      {
        ...EMPTY_CONTENT,
        id: 'e',
        calendarId: 'a',
        uid: 'u',
        version: 1,
        start,
        end,
        recurrence: null,
        overrides: [],
      },
    ],
    { from: MONDAY - 7, to: MONDAY + 14 },
    ZONE,
  )[0]!;
const place = (day: number, minutes: number | null = null): Place => ({
  day: MONDAY + day,
  minutes,
  calendarId: 'a',
});
const watch = itemOf(at('2026-05-11T22:00'), at('2026-05-12T02:00'));
const fair = itemOf(date('2026-05-12'), date('2026-05-15'));

describe('a gesture', () => {
  it('moves both ends by days and minutes, or one of them as far as the other lets it', () => {
    const drag = (kind: 'move' | 'start' | 'end', from: Place, to: Place, item = watch) =>
      shiftOf({ kind, item, from, to, copy: false } as Exclude<Drag, { kind: 'draw' }>);
    expect(drag('move', place(0, 600), place(1, 630))).toEqual({
      start: DAY + 30 * MINUTE,
      end: DAY + 30 * MINUTE,
    });
    expect(drag('end', place(1, 120), place(1, 180))).toEqual({ start: 0, end: HOUR });
    expect(drag('end', place(1, 120), place(0, 0))).toEqual({ start: 0, end: 15 * MINUTE - 4 * HOUR });
    expect(drag('start', place(0, 1320), place(2, 0))).toEqual({ start: 4 * HOUR - 15 * MINUTE, end: 0 });
    expect(drag('start', place(1), place(5), fair)).toEqual({ start: 2 * DAY, end: 0 });
  });

  it('is shown where the entry would stand: by the hour where the view has hours, over days, past midnight', () => {
    const ghost = (drag: Drag) => {
      const { first, last, allDay, words } = ghostOf(drag);
      return [first - MONDAY, last - MONDAY, allDay, words];
    };
    const move = { kind: 'move', item: watch, copy: true } as const;
    expect(ghost({ ...move, from: place(0, 1320), to: place(1, 1350) })).toEqual([
      1,
      1,
      false,
      '22:30–02:30, a copy',
    ]);
    expect(ghost({ ...move, copy: false, from: place(0), to: place(3) })).toEqual([
      3,
      3,
      false,
      'Thu 14 May 2026',
    ]);
    expect(ghost({ kind: 'start', item: fair, from: place(1), to: place(0) })).toEqual([
      0,
      3,
      true,
      'Mon 11 May 2026 to Thu 14 May 2026',
    ]);
    expect(ghost({ kind: 'draw', from: place(2, 600), to: place(2, 540) })).toEqual([
      2,
      2,
      false,
      '09:00–10:15',
    ]);
    expect(ghost({ kind: 'draw', from: place(4, 600), to: place(2, 540) })).toEqual([
      2,
      4,
      true,
      'Wed 13 May 2026 to Fri 15 May 2026',
    ]);
  });
});
