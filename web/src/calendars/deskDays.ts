import { occurrencesOf, type Entry, type Occurrence } from '@zonal/core/entries';
import {
  DAY,
  dayOfWall,
  instantOf,
  wallAt,
  weekdayOf,
  type Day,
  type Instant,
  type Wall,
  type ZoneName,
} from '@zonal/core/zones';
import { wallOf } from '@zonal/core/entries';

/** One occurrence as the desk shows it, on the clocks of the calendar's zone. */
export interface DeskItem {
  readonly key: string;
  readonly entry: Entry;
  readonly one: Occurrence;
  readonly start: Wall;
  readonly end: Wall;
  readonly allDay: boolean;
  readonly firstDay: Day;
  readonly lastDay: Day;
}

/** Returns the Monday of the week that an instant falls in, by the clocks of a zone. */
export function mondayOf(instant: Instant, zone: ZoneName): Day {
  const day = dayOfWall(wallAt(zone, instant));
  return day - weekdayOf(day);
}

/** Returns the occurrences of entries that touch the days from `from` to before `to`. */
export function itemsOf(entries: readonly Entry[], from: Day, to: Day, zone: ZoneName): DeskItem[] {
  const range = { from: instantOf(zone, from * DAY), to: instantOf(zone, to * DAY) };
  return entries
    .flatMap((entry) => occurrencesOf(entry, range, zone).map((one, i) => itemOf(entry, one, i, zone)))
    .sort((a, b) => a.firstDay - b.firstDay || Number(b.allDay) - Number(a.allDay) || a.start - b.start);
}

function itemOf(entry: Entry, one: Occurrence, i: number, zone: ZoneName): DeskItem {
  const zoned = one.start.kind === 'zoned';
  const start = zoned ? wallAt(zone, one.from) : wallOf(one.start);
  const end = zoned ? wallAt(zone, one.to) : wallOf(one.end);
  const allDay = one.start.kind === 'date';
  const firstDay = dayOfWall(start);
  // A night watch stands on the day it starts; only what lasts a day or more is drawn across days.
  const long = allDay || end - start >= DAY;
  const lastDay = long ? Math.max(firstDay, Math.ceil(end / DAY) - 1) : firstDay;
  return { key: `${entry.id}-${i}`, entry, one, start, end, allDay, firstDay, lastDay };
}

/** Returns for each item the row in which it can be drawn without covering another one. */
export function packRows(items: readonly DeskItem[]): Map<DeskItem, number> {
  const taken: Day[] = [];
  const rows = new Map<DeskItem, number>();
  for (const item of items) {
    let row = taken.findIndex((until) => until < item.firstDay);
    if (row < 0) row = taken.length;
    taken[row] = item.lastDay;
    rows.set(item, row);
  }
  return rows;
}
