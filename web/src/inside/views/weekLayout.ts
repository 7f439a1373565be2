import { DAY, HOUR, type Day } from '@zonal/core/zones';
import type { Calendar } from '@zonal/core/api';
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
  /** Where in the block its time is; null for whole days, which have none. */
  readonly box: { readonly left: number; readonly width: number } | null;
  /** Where the words stand: in that time, or beside it where it is too short for them. */
  readonly words: 'inside' | 'after' | 'before';
}

export interface DayRow {
  readonly day: Day;
  readonly top: number;
  readonly height: number;
  readonly drawn: readonly DrawnInDay[];
}

/** Words that fit into a time by so much stand in it, and are cut at its end. */
const ENOUGH = 0.75;
const GAP = 3;
const LEAST_BOX = 8;

/** An entry is drawn where it happens; words that it is too short for stand after it, or before it at the end of the day. */
function placed(start: number, length: number, words: number, end: number) {
  if (length >= words * ENOUGH)
    return { left: start, width: length, box: { left: 0, width: length }, words: 'inside' as const };
  if (start + length + GAP + words <= end)
    return {
      left: start,
      width: length + GAP + words,
      box: { left: 0, width: length },
      words: 'after' as const,
    };
  const left = Math.max(0, start - GAP - words);
  return {
    left,
    width: start + length - left,
    box: { left: start - left, width: length },
    words: 'before' as const,
  };
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
      const letters = (item.one.content.title || 'Untitled').length + slipMark(item, calendar.zone).length;
      if (item.allDay) {
        const width = Math.min(280, Math.max(60, letters * LETTER + 98));
        return { item, calendar, left: 0, width, box: null, words: 'inside' as const };
      }
      const [from, to] = [Math.max(item.start, day * DAY), Math.min(item.end, (day + 1) * DAY)];
      const length = Math.max(LEAST_BOX, ((to - from) / HOUR) * hour - 2);
      const start = Math.min(((from - day * DAY) / HOUR) * hour, 24 * hour - length);
      return { item, calendar, ...placed(start, length, Math.min(280, letters * LETTER + 80), 24 * hour) };
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
