import { packRows, type Day } from '@zonal/core/zones';
import type { Calendar } from '@zonal/core/api';
import type { DeskItem } from '../deskDays';
import { slipMark } from './marks';
import type { ViewProps } from './viewTypes';
import { t } from '../../texts/inside';

/** Days narrower than this have labels that are wider than their entry. */
const WIDE = 112;
const LETTER = 6.4;
const MOST_LABEL = 240;
const MOST_SLIPPED = 340;

/** An item with the place of its block in its lane, in pixels. */
export interface DrawnInLane {
  readonly item: DeskItem;
  readonly left: number;
  readonly width: number;
  readonly top: number;
}

export interface LaneLayout {
  readonly calendar: Calendar;
  readonly drawn: readonly DrawnInLane[];
  readonly top: number;
  readonly height: number;
}

/** Sizes in pixels. */
export interface LaneSizes {
  readonly dayWidth: number;
  readonly rowHeight: number;
  /** Least height of a lane, and of one with nothing in it. */
  readonly least: number;
  readonly leastEmpty: number;
}

/** Returns the lanes of calendars from a day on, one below the other; no block covers another one or its slip. */
export function lanesOf(
  calendars: readonly Calendar[],
  items: ViewProps['items'],
  from: Day,
  count: number,
  { dayWidth, rowHeight, least, leastEmpty }: LaneSizes,
): LaneLayout[] {
  const out: LaneLayout[] = [];
  let top = 0;
  for (const calendar of calendars) {
    const own = items.get(calendar.id) ?? [];
    const spans = own.map((item) => {
      const first = Math.max(0, item.firstDay - from);
      const last = Math.min(count, item.lastDay - from + 1);
      const left = first * dayWidth + 2;
      // Where days are narrow a label is wider than its entry, as on a chart.
      const label = labelWidth(item, calendar.zone, rowHeight);
      const width = Math.max((last - first) * dayWidth - 4, dayWidth < WIDE ? label : 0, 14);
      const planned = item.plannedDay === null ? first : Math.max(0, item.plannedDay - from);
      return { left, width, from: Math.min(left, planned * dayWidth), to: left + width + 2 };
    });
    const order = spans.map((_, i) => i).sort((a, b) => spans[a]!.from - spans[b]!.from || a - b);
    const { rows, count: needed } = packRows(order.map((i) => spans[i]!));
    const height = Math.max(own.length ? least : leastEmpty, needed * rowHeight + 8);
    const drawn = order.map((i, n) => ({
      item: own[i]!,
      left: spans[i]!.left,
      width: spans[i]!.width,
      top: rows[n]! * rowHeight + 4,
    }));
    out.push({ calendar, drawn, top, height });
    top += height;
  }
  return out;
}

function labelWidth(item: DeskItem, zone: string, rowHeight: number): number {
  const letters = (item.one.content.title || t('untitled')).length + slipMark(item, zone).length;
  const most = item.plannedDay === null ? MOST_LABEL : MOST_SLIPPED;
  return Math.min(most, letters * LETTER + (item.allDay || rowHeight > 30 ? 22 : 56));
}
