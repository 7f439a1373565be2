import { Problem } from '../problems';

declare const unit: unique symbol;

/**
 * A number of one unit. It is not taken for one of another unit; what is computed is a plain number again, and takes the
 * unit of where it is put.
 */
type Of<Unit> = number & { readonly [unit]?: Unit };

/** Milliseconds since 1970-01-01T00:00:00Z. */
export type Instant = Of<'instant'>;
/** A clock reading with no zone: the milliseconds that it would be since 1970-01-01T00:00 if it were UTC. */
export type Wall = Of<'wall'>;
/** Days since 1970-01-01 in the proleptic Gregorian calendar, with no zone. */
export type Day = Of<'day'>;

export const SECOND = 1000;
export const MINUTE = 60 * SECOND;
export const HOUR = 60 * MINUTE;
export const DAY = 24 * HOUR;

/** Returns what clocks in UTC show at an instant. */
export function utcWall(instant: Instant): Wall {
  return +instant;
}

/** Returns the instant at which clocks in UTC show a reading. */
export function instantOfUtc(wall: Wall): Instant {
  return +wall;
}

/** Returns the number written with `count` digits at a place of a text, or NaN. Faster than a pattern by far. */
function digits(text: string, at: number, count: number): number {
  let n = 0;
  for (let i = at; i < at + count; i++) {
    const digit = text.charCodeAt(i) - 48;
    if (!(digit >= 0 && digit <= 9)) return NaN;
    n = n * 10 + digit;
  }
  return n;
}

/** Returns the day that the first ten characters of a text say, or NaN. */
function dayAtStart(text: string): Day {
  const year = digits(text, 0, 4);
  const month = digits(text, 5, 2);
  const date = digits(text, 8, 2);
  const fits = text[4] === '-' && text[7] === '-' && month >= 1 && month <= 12 && date >= 1;
  return fits && (date <= 28 || date <= daysInMonth(year, month)) ? dayFromParts(year, month, date) : NaN;
}

/** Returns the day of `2026-05-31`. Throws `date-invalid` for anything else, 30 February included. */
export function dayFromText(text: string): Day {
  const day = text.length === 10 ? dayAtStart(text) : NaN;
  if (Number.isNaN(day)) throw new Problem('date-invalid', { text });
  return day;
}

/** Returns the day written as `2026-05-31`. */
export function dayToText(day: Day): string {
  const { year, month, date } = partsOfDay(day);
  return `${pad(year, 4)}-${pad(month, 2)}-${pad(date, 2)}`;
}

/** Returns the clock reading of `2026-05-31T14:30:00` (seconds optional). Throws `time-invalid`. */
export function wallFromText(text: string): Wall {
  const long = text.length === 19 && text[16] === ':';
  const hour = digits(text, 11, 2);
  const minute = digits(text, 14, 2);
  const second = long ? digits(text, 17, 2) : 0;
  const fits = (long || text.length === 16) && text[10] === 'T' && text[13] === ':';
  const wall = dayAtStart(text) * DAY + hour * HOUR + minute * MINUTE + second * SECOND;
  if (!fits || Number.isNaN(wall) || hour > 23 || minute > 59 || second > 59) {
    throw new Problem('time-invalid', { text });
  }
  return wall;
}

/** Returns the clock reading written as `2026-05-31T14:30:00`. */
export function wallToText(wall: Wall): string {
  const t = timeOfWall(wall);
  const hour = Math.floor(t / HOUR);
  const minute = Math.floor((t % HOUR) / MINUTE);
  const second = Math.floor((t % MINUTE) / SECOND);
  return `${dayToText(dayOfWall(wall))}T${pad(hour, 2)}:${pad(minute, 2)}:${pad(second, 2)}`;
}

/** Returns the day that a clock reading falls on. */
export function dayOfWall(wall: Wall): Day {
  return Math.floor(wall / DAY);
}

/** Returns the milliseconds since midnight of a clock reading. */
export function timeOfWall(wall: Wall): number {
  return wall - Math.floor(wall / DAY) * DAY;
}

/** Returns the day of a year, a month from 1 and a day of the month; out-of-range parts carry over. */
export function dayFromParts(year: number, month: number, date: number): Day {
  // Days-from-civil: years start in March so that the leap day comes last.
  const m = month - 1;
  const y = year + Math.floor(m / 12);
  const mm = ((m % 12) + 12) % 12;
  const shifted = mm < 2 ? y - 1 : y;
  const era = Math.floor(shifted / 400);
  const yearOfEra = shifted - era * 400;
  const dayOfYear = Math.floor((153 * ((mm + 10) % 12) + 2) / 5);
  const dayOfEra = yearOfEra * 365 + Math.floor(yearOfEra / 4) - Math.floor(yearOfEra / 100) + dayOfYear;
  return era * 146097 + dayOfEra - 719468 + date - 1;
}

/** Returns year, month from 1 and day of the month. */
export function partsOfDay(day: Day): { year: number; month: number; date: number } {
  const z = day + 719468;
  const era = Math.floor(z / 146097);
  const dayOfEra = z - era * 146097;
  const yearOfEra = Math.floor(
    (dayOfEra - Math.floor(dayOfEra / 1460) + Math.floor(dayOfEra / 36524) - Math.floor(dayOfEra / 146096)) /
      365,
  );
  const dayOfYear = dayOfEra - (365 * yearOfEra + Math.floor(yearOfEra / 4) - Math.floor(yearOfEra / 100));
  const shiftedMonth = Math.floor((5 * dayOfYear + 2) / 153);
  const month = shiftedMonth < 10 ? shiftedMonth + 3 : shiftedMonth - 9;
  return {
    year: yearOfEra + era * 400 + (month <= 2 ? 1 : 0),
    month,
    date: dayOfYear - Math.floor((153 * shiftedMonth + 2) / 5) + 1,
  };
}

/** Returns 0 for Monday to 6 for Sunday. */
export function weekdayOf(day: Day): number {
  return (((day + 3) % 7) + 7) % 7;
}

/** Returns the number of days in a month, counted from 1. */
export function daysInMonth(year: number, month: number): number {
  return dayFromParts(year, month + 1, 1) - dayFromParts(year, month, 1);
}

/** Returns the ISO 8601 week number of a day (weeks start on Monday; week 1 has the year's first Thursday). */
export function isoWeekOf(day: Day): number {
  const thursday = day - weekdayOf(day) + 3;
  return 1 + Math.floor((thursday - dayFromParts(partsOfDay(thursday).year, 1, 1)) / 7);
}

/** Returns a distance from UTC in milliseconds as `-03:30`, to the minute (ISO 8601, RFC 3339 section 5.6). */
export function isoOffset(offset: number): string {
  const minutes = Math.round(Math.abs(offset) / MINUTE);
  return `${offset < 0 ? '-' : '+'}${pad(Math.floor(minutes / 60), 2)}:${pad(minutes % 60, 2)}`;
}

const TWO_DIGITS = Array.from({ length: 100 }, (_, n) => String(n).padStart(2, '0'));

function pad(n: number, width: number): string {
  return (width === 2 && TWO_DIGITS[n]) || String(n).padStart(width, '0');
}
