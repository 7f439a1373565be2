import {
  occurrencesOf,
  oddTimesOf,
  wallOf,
  type Content,
  type Entry,
  type Occurrence,
} from '@zonal/core/entries';
import {
  DAY,
  dayOfWall,
  instantOf,
  wallAt,
  weekdayOf,
  partsOfDay,
  dayFromParts,
  type Day,
  type Instant,
  type Wall,
  type ZoneName,
} from '@zonal/core/zones';
import type { DeskView, Weeks } from './deskSlice';

/** One occurrence as the desk shows it, on the clocks of one zone. */
export interface DeskItem {
  /** The same as long as entry and date are the same, also in another view or range. */
  readonly key: string;
  readonly entry: Entry;
  readonly one: Occurrence;
  readonly start: Wall;
  readonly end: Wall;
  readonly allDay: boolean;
  readonly firstDay: Day;
  readonly lastDay: Day;
  /** Whether an end stands at a time that clocks skip or show twice. */
  readonly odd: boolean;
  /** The day that a milestone was planned for; null for everything else. */
  readonly plannedDay: Day | null;
}

/** The days that a view shows: `from` to before `to`. */
export interface DayRange {
  readonly from: Day;
  readonly to: Day;
}

/** Returns the Monday of a day's week. */
export function mondayOf(day: Day): Day {
  return day - weekdayOf(day);
}

/** Returns the days that a view shows around a day. A month is filled up to whole weeks. */
export function rangeOf(view: DeskView, day: Day, weeks: Weeks): DayRange {
  if (view === 'month') {
    const { year, month } = partsOfDay(day);
    const last = dayFromParts(year, month + 1, 1) - 1;
    return { from: mondayOf(dayFromParts(year, month, 1)), to: mondayOf(last) + 7 };
  }
  const from = mondayOf(day);
  return { from, to: from + (view === 'week' ? 7 : weeks * 7) };
}

/** Returns the day that a view starts from one step earlier (-1) or later (1). */
export function stepOf(view: DeskView, day: Day, weeks: Weeks, way: 1 | -1): Day {
  if (view !== 'month') return mondayOf(day) + way * (view === 'week' ? 7 : weeks * 7);
  const { year, month } = partsOfDay(day);
  return dayFromParts(year, month + way, 1);
}

/** Items of an entry that stayed the same object are not worked out anew. */
const known = new WeakMap<Entry, { of: string; items: DeskItem[] }>();

/**
 * Returns the occurrences of entries that touch the days from `from` to before `to`, on the clocks of `zone`. Dates
 * and floating times without a zone are those of the calendar's `home`. A milestone counts on its planned day too.
 */
export function itemsOf(
  entries: readonly Entry[],
  { from, to }: DayRange,
  zone: ZoneName,
  home: ZoneName = zone,
): DeskItem[] {
  const range = { from: instantOf(zone, from * DAY) - DAY, to: instantOf(zone, to * DAY) + DAY };
  const of = `${from} ${to} ${zone} ${home}`;
  const out: DeskItem[] = [];
  for (const entry of entries) {
    let found = known.get(entry);
    if (found?.of !== of) {
      const all = occurrencesOf(entry, spanningPlan(entry, range, home), home).map((one) =>
        itemOf(entry, one, zone),
      );
      found = { of, items: all.filter((i) => touches(i, from, to)) };
      known.set(entry, found);
    }
    out.push(...found.items);
  }
  return out.sort(byTime);
}

/** A milestone that has slipped out of the range is still drawn from its planned day. */
function spanningPlan(entry: Entry, range: { from: Instant; to: Instant }, home: ZoneName) {
  if (!entry.planned) return range;
  const at = instantOf(home, wallOf(entry.start));
  return { from: Math.min(range.from, at - DAY), to: Math.max(range.to, at + DAY) };
}

function touches({ firstDay, lastDay, plannedDay }: DeskItem, from: Day, to: Day): boolean {
  const [first, last] = [
    Math.min(firstDay, plannedDay ?? firstDay),
    Math.max(lastDay, plannedDay ?? lastDay),
  ];
  return first < to && last >= from;
}

function byTime(a: DeskItem, b: DeskItem): number {
  return (
    a.firstDay - b.firstDay ||
    Number(b.allDay) - Number(a.allDay) ||
    a.start - b.start ||
    (a.key < b.key ? -1 : a.key > b.key ? 1 : 0)
  );
}

/**
 * Returns the last day on which an entry is drawn: a night watch stands on the day it starts, only what lasts a day or
 * more is drawn across days.
 */
export function lastDayOf(start: Wall, end: Wall, allDay: boolean): Day {
  const first = dayOfWall(start);
  return allDay || end - start >= DAY ? Math.max(first, Math.ceil(end / DAY) - 1) : first;
}

/** Returns the key of the item that shows an entry, or the date of a series that has this slot. */
export function keyOf(entry: Entry, slot: Occurrence['slot'] = null): string {
  return `${entry.id}|${slot ? wallOf(slot) : ''}`;
}

function itemOf(entry: Entry, one: Occurrence, zone: ZoneName): DeskItem {
  const zoned = one.start.kind === 'zoned';
  const start = zoned ? wallAt(zone, one.from) : wallOf(one.start);
  const end = zoned ? wallAt(zone, one.to) : wallOf(one.end);
  const allDay = one.start.kind === 'date';
  const firstDay = dayOfWall(start);
  const lastDay = lastDayOf(start, end, allDay);
  const { planned } = one.content;
  return {
    key: keyOf(entry, one.slot),
    entry,
    one,
    start,
    end,
    allDay,
    firstDay,
    lastDay,
    odd: oddTimesOf(one).length > 0,
    plannedDay: planned ? dayOfWall(wallOf(planned)) : null,
  };
}

/** Returns the items among those of several calendars that a check lets through. */
export function itemsWhere(
  items: ReadonlyMap<string, readonly DeskItem[]>,
  matches: (content: Content) => boolean,
): Map<string, DeskItem[]> {
  return new Map([...items].map(([id, own]) => [id, own.filter((i) => matches(i.one.content))]));
}
