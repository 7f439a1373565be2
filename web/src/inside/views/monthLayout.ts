import { packRows, type Day } from '@zonal/core/zones';
import type { Calendar } from '@zonal/core/api';
import type { DeskItem } from '../deskDays';
import type { ViewProps } from './viewTypes';

export interface Placed {
  readonly item: DeskItem;
  readonly calendar: Calendar;
}

/** An item with the columns that it takes: 0 for Monday, `to` not included. */
export interface DrawnInWeek extends Placed {
  readonly from: number;
  readonly to: number;
  readonly row: number;
}

/** Returns how many items are drawn on a day. */
export const shownOn = (drawn: readonly DrawnInWeek[], day: Day, monday: Day) =>
  drawn.filter((d) => d.from <= day - monday && d.to > day - monday).length;

/** Returns what stands in a week with `room` rows: items that have room, and the days on which there are more. */
export function weekOf(calendars: readonly Calendar[], items: ViewProps['items'], monday: Day, room: number) {
  const own: Placed[] = [];
  for (const calendar of calendars) {
    for (const item of items.get(calendar.id) ?? []) {
      if (item.firstDay < monday + 7 && item.lastDay >= monday) own.push({ item, calendar });
    }
  }
  // Long ones first, so that they stay in one line over their days.
  own.sort(
    (a, b) =>
      Math.max(a.item.firstDay, monday) - Math.max(b.item.firstDay, monday) ||
      b.item.lastDay - b.item.firstDay - (a.item.lastDay - a.item.firstDay) ||
      a.item.start - b.item.start,
  );
  const spans = own.map(({ item }) => ({
    from: Math.max(0, item.firstDay - monday),
    to: Math.min(7, item.lastDay - monday + 1),
  }));
  const { rows } = packRows(spans);
  const drawn: DrawnInWeek[] = [];
  const hidden = new Set<Day>();
  own.forEach((placed, i) => {
    if (rows[i]! < room) drawn.push({ ...placed, ...spans[i]!, row: rows[i]! });
    else for (let d = spans[i]!.from; d < spans[i]!.to; d++) hidden.add(monday + d);
  });
  const more = [...hidden].map((day): [Day, Placed[]] => [
    day,
    own
      .filter(({ item }) => item.firstDay <= day && item.lastDay >= day)
      .sort((a, b) => Number(b.item.allDay) - Number(a.item.allDay) || a.item.start - b.item.start),
  ]);
  return { drawn, more };
}
