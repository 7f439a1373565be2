import Holidays from 'date-holidays';
import { dayFromText, partsOfDay, type Day } from '../zones';

/** A country (ISO 3166-1, two letters) and, where its holidays differ by region, one of these. */
export interface HolidayPlace {
  readonly country: string;
  readonly region: string;
}

/** Returns the public holidays from one day to before another, by day. Several on one day are joined. */
export function holidaysOf({ country, region }: HolidayPlace, from: Day, to: Day): Map<Day, string> {
  const out = new Map<Day, string>();
  if (!country) return out;
  const source = region ? new Holidays(country, region) : new Holidays(country);
  for (let year = partsOfDay(from).year; year <= partsOfDay(to - 1).year; year++) {
    for (const { date, name, type } of source.getHolidays(year, 'en') ?? []) {
      if (type !== 'public') continue;
      const day = dayFromText(date.slice(0, 10));
      if (day < from || day >= to) continue;
      const before = out.get(day);
      if (!before?.includes(name)) out.set(day, before ? `${before}, ${name}` : name);
    }
  }
  return out;
}
