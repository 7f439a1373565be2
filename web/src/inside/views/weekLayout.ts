import { packRows, DAY, HOUR, type Day } from '@zonal/core/zones';
import type { Calendar } from '@zonal/core/api';
import type { DeskItem } from '../deskDays';
import { slipMark } from './marks';
import type { ViewProps } from './viewTypes';
import { t } from '../../texts/inside';

const LETTER = 6.3;
/** Height of a row of blocks in pixels. */
export const ROW = 24;
/** Least height of a day in pixels. */
export const LEAST_DAY = 58;

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
  /** Height of what stands above the hours: whole days. 0 where there are none. */
  readonly band: number;
  /** Whole days, and below them what happens at a time. */
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

interface OnDay {
  readonly item: DeskItem;
  readonly calendar: Calendar;
}

/** Returns what stands on each day of a range: what goes past midnight stands on both days. */
function byDayOf(
  calendars: readonly Calendar[],
  items: ViewProps['items'],
  { from, to }: ViewProps['range'],
): Map<Day, OnDay[]> {
  const byDay = new Map<Day, OnDay[]>();
  for (const calendar of calendars) {
    for (const item of items.get(calendar.id) ?? []) {
      const last = item.allDay ? item.lastDay : Math.max(item.firstDay, Math.ceil(item.end / DAY) - 1);
      for (let day = Math.max(from, item.firstDay); day <= Math.min(to - 1, last); day++) {
        const own = byDay.get(day);
        if (own) own.push({ item, calendar });
        else byDay.set(day, [{ item, calendar }]);
      }
    }
  }
  return byDay;
}

const lettersOf = ({ item, calendar }: OnDay) =>
  (item.one.content.title || t('untitled')).length + slipMark(item, calendar.zone).length;

/** Returns whole days side by side, in as many rows as they need in a width. */
function bandOf(all: readonly OnDay[], width: number): DrawnInDay[] {
  let [x, row] = [2, 0];
  return all.map((one) => {
    const own = Math.min(width - 4, 280, Math.max(60, lettersOf(one) * LETTER + 52));
    if (x > 2 && x + own > width) [x, row] = [2, row + 1];
    const left = x;
    x += own + 4;
    return { ...one, left, width: own, top: row * ROW + 3, box: null, words: 'inside' as const };
  });
}

/** Returns what happens at a time, each where it happens; no block covers another one. */
function hoursOf(all: readonly OnDay[], day: Day, hour: number, top: number) {
  const placedAll = all
    .map((one) => {
      const { item } = one;
      const [from, to] = [Math.max(item.start, day * DAY), Math.min(item.end, (day + 1) * DAY)];
      const length = Math.max(LEAST_BOX, ((to - from) / HOUR) * hour - 2);
      const start = Math.min(((from - day * DAY) / HOUR) * hour, 24 * hour - length);
      return { ...one, ...placed(start, length, Math.min(280, lettersOf(one) * LETTER + 80), 24 * hour) };
    })
    .sort((a, b) => a.left - b.left);
  const { rows, count } = packRows(placedAll.map((d) => ({ from: d.left, to: d.left + d.width + 3 })));
  return { drawn: placedAll.map((d, i) => ({ ...d, top: top + rows[i]! * ROW + 3 })), count };
}

/**
 * Returns the days of a range one below the other with what stands in them: whole days in a band of their own, as wide
 * as `room`, and below it all else by the hour. `hour` is its width in pixels; no block covers another one.
 */
export function rowsOf(
  calendars: readonly Calendar[],
  items: ViewProps['items'],
  range: ViewProps['range'],
  hour: number,
  room: number,
): DayRow[] {
  const byDay = byDayOf(calendars, items, range);
  const rows: DayRow[] = [];
  let top = 0;
  for (let day = range.from; day < range.to; day++) {
    const all = byDay.get(day) ?? [];
    const whole = bandOf(
      all.filter((d) => d.item.allDay),
      room,
    );
    const band = whole.length ? whole.at(-1)!.top + ROW + 2 : 0;
    const timed = hoursOf(
      all.filter((d) => !d.item.allDay),
      day,
      hour,
      band,
    );
    const height = Math.max(LEAST_DAY, band + Math.max(1, timed.count) * ROW + 8);
    rows.push({ day, top, height, band, drawn: [...whole, ...timed.drawn] });
    top += height;
  }
  return rows;
}
