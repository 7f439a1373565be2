import {
  DAY,
  HOUR,
  MINUTE,
  MONTH_NAMES,
  WEEKDAY_NAMES,
  instantOf,
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
import { wallOf, whenLike, type When } from '../../entries';
import type { InsideLanguage } from '../../texts/languages';
import { insideTexts } from '../../words/texts';

/** Short names of the weekdays, Monday first. */
export const WEEKDAYS = WEEKDAY_NAMES.map((name) => name.slice(0, 3));

const germanDates = (options: Intl.DateTimeFormatOptions) => {
  const format = new Intl.DateTimeFormat('de-DE', { ...options, timeZone: 'UTC' });
  return (day: Day) => format.format(day * DAY);
};
const germanDay = germanDates({ weekday: 'short', day: 'numeric', month: 'short', year: 'numeric' });
const germanMonth = germanDates({ month: 'long', year: 'numeric' });

/** Returns `Mon 23 Nov 2026`, or `Mo., 23. Nov. 2026`. */
export function dayText(day: Day, language: InsideLanguage = 'en'): string {
  if (language === 'de') return germanDay(day);
  const { year, month, date } = partsOfDay(day);
  return `${WEEKDAYS[weekdayOf(day)]} ${date} ${MONTH_NAMES[month - 1]!.slice(0, 3)} ${year}`;
}

/** Returns `November 2026`. */
export function monthText(day: Day, language: InsideLanguage = 'en'): string {
  if (language === 'de') return germanMonth(day);
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

/** Returns `America/Halifax (UTC−04:00)`. */
export function zoneWithOffset(zone: ZoneName, now: Instant): string {
  return zone === 'UTC' ? 'UTC' : `${zoneText(zone)} (${offsetText(offsetAt(zone, now))})`;
}

/**
 * Returns a moment as people read it: `Mon 23 Nov 2026`, with its time where it has one. A time in a zone is told by the
 * clocks of `on`, or by its own.
 */
export function whenWords(when: When, on?: ZoneName, language: InsideLanguage = 'en'): string {
  const { day, time } = partsOfWhen(when, on, language);
  return time ? `${day}, ${time}` : day;
}

function partsOfWhen(when: When, on: ZoneName | undefined, language: InsideLanguage) {
  const own = wallOf(when);
  const wall = on && when.kind === 'zoned' ? wallAt(on, instantOf(when.zone, own)) : own;
  const day = dayText(Math.floor(wall / DAY), language);
  return { day, time: when.kind === 'date' ? '' : timeText(wall) };
}

/** Returns when something begins and ends, on the clocks of a zone where one is named; of whole days, the last one that is meant. */
export function spanWords(
  { start, end }: { readonly start: When; readonly end: When },
  on?: ZoneName,
  language: InsideLanguage = 'en',
): string {
  const last = end.kind === 'date' ? whenLike(end, wallOf(end) - DAY) : end;
  const from = whenWords(start, on, language);
  if (wallOf(last) === wallOf(start) && last.kind === start.kind) return from;
  const to = partsOfWhen(last, on, language);
  const isSameDay = partsOfWhen(start, on, language).day === to.day;
  return insideTexts(language)('span', { from, to: isSameDay ? to.time : whenWords(last, on, language) });
}
