import {
  DAY,
  HOUR,
  MINUTE,
  MONTH_NAMES,
  WEEKDAY_NAMES,
  instantOf,
  nextClockChange,
  offsetAt,
  partsOfDay,
  timeOfWall,
  wallAt,
  weekdayOf,
  type Day,
  type Instant,
  type Wall,
  type ZoneName,
} from '../../zones';
import { slipOf, wallOf, type Slip, type When } from '../../entries';
import type { OutwardContent } from '../../glass';

/** Short names of the weekdays, Monday first. */
export const WEEKDAYS = WEEKDAY_NAMES.map((name) => name.slice(0, 3));

/** Returns `Mon 23 Nov 2026`. */
export function dayText(day: Day): string {
  const { year, month, date } = partsOfDay(day);
  return `${WEEKDAYS[weekdayOf(day)]} ${date} ${MONTH_NAMES[month - 1]!.slice(0, 3)} ${year}`;
}

/** Returns `November 2026`. */
export function monthText(day: Day): string {
  const { year, month } = partsOfDay(day);
  return `${MONTH_NAMES[month - 1]} ${year}`;
}

/** Returns `14:30` of a clock reading. */
export function timeText(wall: Wall): string {
  const t = timeOfWall(wall);
  const two = (n: number) => String(n).padStart(2, '0');
  return `${two(Math.floor(t / HOUR))}:${two(Math.floor((t % HOUR) / MINUTE))}`;
}

/** Returns `UTC−03:30` for an offset in milliseconds. */
export function offsetText(offset: number): string {
  if (offset === 0) return 'UTC';
  return `UTC${offset < 0 ? '−' : '+'}${timeText(Math.abs(offset) % DAY)}`;
}

/** Returns a zone's name as people read it: `America/Port of Spain`. */
export function zoneText(zone: ZoneName): string {
  return zone.replace(/_/g, ' ');
}

/** Returns a sentence on the next clock change in a zone, or an empty text when none comes within a year. */
export function clockChangeText(zone: ZoneName, now: Instant): string {
  const change = nextClockChange(zone, now);
  if (!change || change.at > now + 366 * DAY) return '';
  const wall = change.at + change.before;
  const way = change.offset > change.before ? 'forward' : 'back';
  return `Clocks there go ${way} on ${dayText(Math.floor(wall / DAY))} at ${timeText(wall)}.`;
}

/** Returns `America/Halifax (UTC−04:00)`. */
export function zoneWithOffset(zone: ZoneName, now: Instant): string {
  return zone === 'UTC' ? 'UTC' : `${zoneText(zone)} (${offsetText(offsetAt(zone, now))})`;
}

/**
 * Returns a moment as people read it: `Mon 23 Nov 2026`, with its time where it has one. A time in a zone is told by the
 * clocks of `on`, or by its own.
 */
export function whenWords(when: When, on?: ZoneName): string {
  const own = wallOf(when);
  const wall = on && when.kind === 'zoned' ? wallAt(on, instantOf(when.zone, own)) : own;
  const day = dayText(Math.floor(wall / DAY));
  return when.kind === 'date' ? day : `${day}, ${timeText(wall)}`;
}

/** Returns a moment as readers anywhere can take it: a time in a zone names the zone. */
function momentWords(when: When): string {
  return when.kind === 'zoned' ? `${whenWords(when)} (${zoneText(when.zone)})` : whenWords(when);
}

/** Returns `6 days (4 working days) later than planned`, or `as planned`. */
export function slipText({ days, workingDays, minutes }: Slip): string {
  if (!days && !minutes) return 'as planned';
  const way = days > 0 || minutes > 0 ? 'later' : 'earlier';
  const count = (n: number, unit: string) => `${Math.abs(n)} ${unit}${Math.abs(n) === 1 ? '' : 's'}`;
  if (!days) return `the same day, ${count(minutes, 'minute')} ${way} than planned`;
  return `${count(days, 'day')} (${count(workingDays, 'working day')}) ${way} than planned`;
}

/** Returns what a milestone or a due item has to say besides its title, or an empty text for an event. */
export function kindText(
  { kind, planned, status }: Pick<OutwardContent, 'kind' | 'planned' | 'status'>,
  start: When,
  hostZone: ZoneName,
): string {
  if (!kind) return '';
  const done = status === 'done';
  if (kind === 'due') return `Due ${momentWords(start)}${done ? ', done' : ''}.`;
  const slip = planned
    ? `: planned for ${momentWords(planned)}, now ${slipText(slipOf(planned, start, hostZone))}`
    : '';
  return `Milestone${done ? ', reached' : ''}${slip}.`;
}
