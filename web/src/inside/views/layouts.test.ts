import { EMPTY_CONTENT, type Entry, type When } from '@zonal/core/entries';
import { DAY, HOUR, MINUTE, dayFromText, dayToText, wallToText } from '@zonal/core/zones';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Calendar } from '@zonal/core/api';
import { itemsOf, type DeskItem } from '../deskDays';
import { lanesOf } from './laneLayout';
import { shownOn, weekOf } from './monthLayout';
import { ROW, rowsOf } from './weekLayout';

const MONDAY = dayFromText('2026-05-11');
const ZONE = 'America/Halifax';
const calendarOf = (id: string) => ({ id, zone: ZONE, name: id, plate: id.toUpperCase() }) as Calendar;
const CALENDARS = ['a', 'b'].map(calendarOf);

const entry: fc.Arbitrary<Entry> = fc
  .record({
    calendarId: fc.constantFrom('a', 'b'),
    title: fc.string({ maxLength: 60 }),
    allDay: fc.boolean(),
    day: fc.integer({ min: -3, max: 30 }),
    quarter: fc.integer({ min: 0, max: 95 }),
    length: fc.constantFrom(0, 15, 60, 480, 2000),
    days: fc.integer({ min: 1, max: 9 }),
    slip: fc.option(fc.integer({ min: -9, max: 9 })),
    id: fc.uuid(),
  })
  .map(({ calendarId, title, allDay, day, quarter, length, days, slip, id }) => {
    const date = (d: number): When => ({ kind: 'date', date: dayToText(MONDAY + d) });
    const at = (minutes: number): When => ({
      kind: 'zoned',
      at: wallToText((MONDAY + day) * DAY + minutes * MINUTE),
      zone: ZONE,
    });
    const own = {
      ...EMPTY_CONTENT,
      id,
      calendarId,
      title,
      version: 1,
      uid: id,
      recurrence: null,
      overrides: [],
    };
    if (slip !== null)
      return { ...own, kind: 'milestone', planned: date(day - slip), start: date(day), end: date(day + 1) };
    return allDay
      ? { ...own, start: date(day), end: date(day + days) }
      : { ...own, start: at(quarter * 15), end: at(quarter * 15 + length) };
  });

const entries = fc.uniqueArray(entry, { maxLength: 25, selector: (e) => e.id });

function itemsBy(list: readonly Entry[], days: number): Map<string, DeskItem[]> {
  const range = { from: MONDAY, to: MONDAY + days };
  return new Map(
    CALENDARS.map(({ id }) => [
      id,
      itemsOf(
        list.filter((e) => e.calendarId === id),
        range,
        ZONE,
      ),
    ]),
  );
}

interface Box {
  readonly left: number;
  readonly width: number;
  readonly top: number;
}

/** Fails where two boxes of one row cover each other. */
function expectApart(boxes: readonly Box[]): void {
  const rows = new Map<number, Box[]>();
  for (const box of boxes) rows.set(box.top, [...(rows.get(box.top) ?? []), box]);
  for (const row of rows.values()) {
    row.sort((a, b) => a.left - b.left);
    row.slice(1).forEach((box, i) => expect(box.left).toBeGreaterThanOrEqual(row[i]!.left + row[i]!.width));
  }
}

describe('lanes', () => {
  it('draw every item once, none over another or over the line of its slip, at any width of a day', () => {
    fc.assert(
      fc.property(
        entries,
        fc.constantFrom<[number, number]>([7, 160], [14, 84], [28, 46], [91, 22]),
        fc.constantFrom(76, 112),
        (list, [count, dayWidth], least) => {
          const items = itemsBy(list, count);
          const rowHeight = count <= 7 ? 38 : 23;
          const lanes = lanesOf(CALENDARS, items, MONDAY, count, {
            dayWidth,
            rowHeight,
            least,
            leastEmpty: 47,
          });
          let top = 0;
          for (const lane of lanes) {
            expect(lane.top).toBe(top);
            expect(lane.height).toBeGreaterThanOrEqual(lane.drawn.length ? least : 47);
            if (!lane.drawn.length) expect(lane.height).toBe(47);
            top += lane.height;
            const own = items.get(lane.calendar.id)!;
            expect(lane.drawn.map((d) => d.item.key).sort()).toEqual(own.map((i) => i.key).sort());
            expectApart(lane.drawn);
            for (const { top: at, width, left } of lane.drawn) {
              expect(at + rowHeight).toBeLessThanOrEqual(lane.height);
              expect(width).toBeGreaterThanOrEqual(14);
              expect(left).toBeGreaterThanOrEqual(0);
            }
            // The line of a slip keeps its row free from the planned day on.
            expectApart(
              lane.drawn.map((d) => {
                const { plannedDay } = d.item;
                const from = plannedDay === null ? d.left : Math.max(0, plannedDay - MONDAY) * dayWidth;
                const left = Math.min(d.left, from);
                return { left, width: d.left + d.width - left, top: d.top };
              }),
            );
          }
        },
      ),
      { numRuns: 300, seed: 3 },
    );
  });

  it('are at least as wide as their days, and as their label where days are narrow', () => {
    const date = (d: number): When => ({ kind: 'date', date: dayToText(MONDAY + d) });
    const three: Entry = {
      ...EMPTY_CONTENT,
      id: 'x',
      calendarId: 'a',
      title: 'Dredging of the North Channel',
      version: 1,
      uid: 'x',
      start: date(1),
      end: date(4),
      recurrence: null,
      overrides: [],
    };
    const width = (count: number, dayWidth: number) =>
      lanesOf([CALENDARS[0]!], itemsBy([three], count), MONDAY, count, {
        dayWidth,
        rowHeight: 23,
        least: 76,
        leastEmpty: 47,
      })[0]!.drawn[0]!.width;
    expect(width(7, 160)).toBe(3 * 160 - 4);
    expect(width(91, 22)).toBeGreaterThan(150);
  });
});

describe('the week', () => {
  it('draws what touches a day in its row, whole days apart from the hours, within the day and none over another', () => {
    fc.assert(
      fc.property(entries, fc.constantFrom(34, 46, 60), fc.constantFrom(200, 900), (list, hour, room) => {
        const items = itemsBy(list, 7);
        const rows = rowsOf(CALENDARS, items, { from: MONDAY, to: MONDAY + 7 }, hour, room);
        expect(rows.map((r) => r.day)).toEqual([0, 1, 2, 3, 4, 5, 6].map((d) => MONDAY + d));
        const all = [...items.values()].flat();
        for (const row of rows) {
          const due = all.filter((i) => {
            const last = i.allDay ? i.lastDay : Math.max(i.firstDay, Math.ceil(i.end / DAY) - 1);
            return i.firstDay <= row.day && last >= row.day;
          });
          expect(row.drawn.map((d) => d.item.key).sort()).toEqual(due.map((i) => i.key).sort());
          expectApart(row.drawn);
          for (const d of row.drawn) {
            expect(d.top + ROW).toBeLessThanOrEqual(row.height + 3);
            // Whole days end where the hours begin, and run on in further rows rather than out of sight.
            if (d.item.allDay) {
              expect(d.top + ROW).toBeLessThanOrEqual(row.band);
              expect(d.left + d.width).toBeLessThanOrEqual(room);
              continue;
            }
            expect(d.top).toBeGreaterThanOrEqual(row.band);
            // A block begins no later than its time, and words never run out of the day.
            const from = Math.max(d.item.start, row.day * DAY) - row.day * DAY;
            expect(d.left).toBeLessThanOrEqual((from / HOUR) * hour + 0.001);
            expect(d.left).toBeGreaterThanOrEqual(0);
            expect(d.left + d.width).toBeLessThanOrEqual(24 * hour + 0.001);
            // Its time is drawn where it happens, but for the last minutes of a day.
            const at = d.left + d.box!.left;
            expect(Math.abs(at - (from / HOUR) * hour)).toBeLessThanOrEqual(8.001);
            const to = Math.min(d.item.end, (row.day + 1) * DAY) - row.day * DAY;
            expect(Math.abs(at + d.box!.width - (to / HOUR) * hour)).toBeLessThanOrEqual(8.001);
            expect(d.box!.left + d.box!.width).toBeLessThanOrEqual(d.width + 0.001);
          }
        }
      }),
      { numRuns: 300, seed: 4 },
    );
  });
});

describe('the month', () => {
  it('draws what has room, and loses nothing: a day says how many more it has and lists all', () => {
    fc.assert(
      fc.property(entries, fc.integer({ min: 1, max: 5 }), (list, room) => {
        const items = itemsBy(list, 7);
        const all = [...items.values()].flat();
        const { drawn, more } = weekOf(CALENDARS, items, MONDAY, room);
        expectApart(drawn.map((d) => ({ left: d.from, width: d.to - d.from, top: d.row })));
        expect(drawn.every((d) => d.row < room)).toBe(true);
        for (let day = MONDAY; day < MONDAY + 7; day++) {
          const here = all.filter((i) => i.firstDay <= day && i.lastDay >= day);
          const told = more.find(([d]) => d === day)?.[1];
          const seen = shownOn(drawn, day, MONDAY);
          if (told) {
            expect(told.map((p) => p.item.key).sort()).toEqual(here.map((i) => i.key).sort());
            expect(seen).toBeLessThan(here.length);
          } else expect(seen).toBe(here.length);
        }
      }),
      { numRuns: 300, seed: 5 },
    );
  });
});
