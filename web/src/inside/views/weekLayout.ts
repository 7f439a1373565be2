import { DAY, HOUR, type Day } from '@zonal/core/zones';
import type { Calendar } from '../../api/types';
import { packRows, type DeskItem } from '../deskDays';
import { slipMark } from './marks';
import type { ViewProps } from './viewTypes';

const LETTER = 6.3;
/** Height of a row of blocks in pixels. */
export const ROW = 24;
const LEAST_DAY = 58;

/** An item with the place of its block in a day's row, in pixels. */
export interface DrawnInDay {
  readonly item: DeskItem;
  readonly calendar: Calendar;
  readonly left: number;
  readonly width: number;
  readonly top: number;
}

export interface DayRow {
  readonly day: Day;
  readonly top: number;
  readonly height: number;
  readonly drawn: readonly DrawnInDay[];
}

/**
 * Returns the days of a range one below the other with what stands in them: whole days first, then by the hour. `hour`
 * is its width in pixels; no block covers another one.
 */
export function rowsOf(
  calendars: readonly Calendar[],
  items: ViewProps['items'],
  range: ViewProps['range'],
  hour: number,
): DayRow[] {
  const byDay = new Map<Day, { item: DeskItem; calendar: Calendar }[]>();
  for (const calendar of calendars) {
    for (const item of items.get(calendar.id) ?? []) {
      // What goes past midnight stands on both days.
      const last = item.allDay ? item.lastDay : Math.max(item.firstDay, Math.ceil(item.end / DAY) - 1);
      for (let day = Math.max(range.from, item.firstDay); day <= Math.min(range.to - 1, last); day++) {
        const own = byDay.get(day);
        if (own) own.push({ item, calendar });
        else byDay.set(day, [{ item, calendar }]);
      }
    }
  }
  const rows: DayRow[] = [];
  let top = 0;
  for (let day = range.from; day < range.to; day++) {
    const all = (byDay.get(day) ?? []).map(({ item, calendar }) => {
      const from = item.allDay ? day * DAY : Math.max(item.start, day * DAY);
      const left = ((from - day * DAY) / HOUR) * hour;
      const to = Math.min(item.allDay ? (day + 1) * DAY : item.end, (day + 1) * DAY);
      const letters = (item.one.content.title || 'Untitled').length + slipMark(item, calendar.zone).length;
      const label = Math.min(280, letters * LETTER + (item.allDay ? 98 : 88));
      // A label that would run out of the day is moved to the left of it.
      const width = item.allDay ? Math.max(label, 60) : Math.max(((to - from) / HOUR) * hour - 2, label);
      return { item, calendar, left: Math.min(left, 24 * hour - width), width };
    });
    const allDay = all.filter((d) => d.item.allDay);
    let x = 2;
    for (const d of allDay) {
      d.left = x;
      x += d.width + 4;
    }
    const order = [...allDay, ...all.filter((d) => !d.item.allDay).sort((a, b) => a.left - b.left)];
    const { rows: at, count } = packRows(order.map((d) => ({ from: d.left, to: d.left + d.width + 3 })));
    const drawn = order.map((d, i) => ({ ...d, top: at[i]! * ROW + 3 }));
    const height = Math.max(LEAST_DAY, count * ROW + 8);
    rows.push({ day, top, height, drawn });
    top += height;
  }
  return rows;
}
