import {
  DAY,
  MONTH_NAMES,
  WEEKDAY_NAMES,
  partsOfDay,
  utcWall,
  weekdayOf,
  wallToText,
  type Instant,
} from '../zones';

/** Returns an instant to the second as headers of HTTP have it: `Sun, 31 May 2026 14:30:00 GMT` (RFC 9110 section 5.6.7). */
export function httpDate(at: Instant): string {
  const day = Math.floor(at / DAY);
  const { year, month, date } = partsOfDay(day);
  const two = (n: number) => String(n).padStart(2, '0');
  const weekday = WEEKDAY_NAMES[weekdayOf(day)]!.slice(0, 3);
  const time = wallToText(utcWall(at)).slice(11, 19);
  return `${weekday}, ${two(date)} ${MONTH_NAMES[month - 1]!.slice(0, 3)} ${year} ${time} GMT`;
}
