import { timeText } from '@zonal/core/forms';
import { DAY, MINUTE, dayOfWall, type Day, type Wall } from '@zonal/core/zones';
import { both, type Shift } from '../changes';
import { lastDayOf } from '../deskDays';
import type { Drag } from './viewTypes';
import { t } from '../../texts/inside';
import { dayText } from '../../texts/formWords';

/** Minutes to which times in a view go. */
export const SNAP = 15;

type OfItem = Exclude<Drag, { kind: 'draw' }>;

/** Returns by how much a gesture moves the ends of its entry: none ends before it starts, a whole day stays one. */
export function shiftOf(gesture: OfItem): Shift {
  const { item, from, to } = gesture;
  const ms = item.allDay ? 0 : ((to.minutes ?? 0) - (from.minutes ?? 0)) * MINUTE;
  const whole = both(to.day - from.day, ms);
  if (gesture.kind === 'move') return whole;
  const length = item.end - item.start;
  const least = item.allDay ? DAY : SNAP * MINUTE;
  return gesture.kind === 'start'
    ? { start: Math.min(whole.start, length - least), end: 0 }
    : { start: 0, end: Math.max(whole.end, least - length) };
}

/** Where a dragged or drawn entry would stand, on the clocks of the view. */
export interface GhostSpan {
  readonly start: Wall;
  /** Not included. */
  readonly end: Wall;
  readonly allDay: boolean;
  readonly first: Day;
  readonly last: Day;
  /** The calendar that it is over; null in views that have no place for each. */
  readonly calendarId: string | null;
  readonly words: string;
}

/** Returns where the entry of a gesture would stand. Hours of one day are drawn where the view has hours, else days. */
export function ghostOf(gesture: Drag): GhostSpan {
  const { from, to } = gesture;
  const timed = from.minutes !== null && to.minutes !== null;
  if (gesture.kind === 'draw') {
    if (timed && from.day === to.day) {
      const start = from.day * DAY + Math.min(from.minutes!, to.minutes!) * MINUTE;
      const end = from.day * DAY + (Math.max(from.minutes!, to.minutes!) + SNAP) * MINUTE;
      return spanOf(start, end, false, true, to.calendarId, false);
    }
    const [first, last] = [Math.min(from.day, to.day), Math.max(from.day, to.day)];
    return spanOf(first * DAY, (last + 1) * DAY, true, true, to.calendarId, false);
  }
  const { item } = gesture;
  const shift = shiftOf(gesture);
  const isCopy = gesture.kind === 'move' && gesture.copy === true;
  return spanOf(item.start + shift.start, item.end + shift.end, item.allDay, timed, to.calendarId, isCopy);
}

function spanOf(
  start: Wall,
  end: Wall,
  allDay: boolean,
  timed: boolean,
  calendarId: string | null,
  isCopy: boolean,
): GhostSpan {
  const [first, last] = [dayOfWall(start), lastDayOf(start, end, allDay)];
  const days = last > first ? t('dayRange', { from: dayText(first), to: dayText(last) }) : dayText(first);
  const words = allDay || !timed ? days : `${timeText(start)}–${timeText(end)}`;
  return { start, end, allDay, first, last, calendarId, words: isCopy ? t('ghostCopy', { words }) : words };
}
