import type { EntryInput } from '@zonal/core/api';
import { EMPTY_CONTENT, capital } from '@zonal/core/entries';
import { dayFromText, dayToText, type Day, type ZoneName } from '@zonal/core/zones';
import { t } from '../texts/shell';

/** Calendars that are made with something in them. */
export const READYMADE = {
  holidays: { name: t('publicHolidays'), say: t('holidaysSay') },
  moon: { name: t('moonPhases'), say: t('moonSay') },
} as const;
export type Readymade = keyof typeof READYMADE;

interface Where {
  readonly country: string;
  readonly region: string;
  readonly zone: ZoneName;
}

/** Returns the entries of a ready-made calendar from a year on, for two years: whole days that take nobody's time. */
export async function readymadeDays(kind: Readymade, where: Where, year: number): Promise<EntryInput[]> {
  const { holidaysOf, moonPhases } = await import('@zonal/core/readymade');
  const [from, to] = [dayFromText(`${year}-01-01`), dayFromText(`${year + 2}-01-01`)];
  const titles: ReadonlyMap<Day, string> =
    kind === 'holidays'
      ? holidaysOf(where, from, to)
      : new Map([...moonPhases(from, to, where.zone)].map(([day, { phase }]) => [day, capital(phase)]));
  return [...titles].map(([day, title]) => ({
    ...EMPTY_CONTENT,
    title,
    shows: 'free',
    start: { kind: 'date', date: dayToText(day) },
    end: { kind: 'date', date: dayToText((day + 1) as Day) },
    recurrence: null,
    overrides: [],
  }));
}
