import { LOCALES, type InsideLanguage } from './languages';

/** A Monday, in milliseconds since 1970. */
const MONDAY = Date.UTC(2026, 5, 1);
const DAY = 86_400_000;

/** Returns the names of the weekdays in a language, Monday first. */
export function weekdayNames(language: InsideLanguage, width: 'short' | 'long'): string[] {
  const format = new Intl.DateTimeFormat(LOCALES[language], { weekday: width, timeZone: 'UTC' });
  return Array.from({ length: 7 }, (_, weekday) => format.format(MONDAY + weekday * DAY));
}
