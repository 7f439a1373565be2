import { CalendarDate, getDayOfWeek } from '@internationalized/date';
import { CATALOGUE, type Language } from './catalogue';

/** How somebody reads times: in which language and by the customs of where, on which clock, from which weekday on. */
export interface Reading {
  readonly language: Language;
  /** Language and, where it is known, region (RFC 5646). */
  readonly locale: string;
  readonly clock: '12' | '24';
  /** The weekday on which weeks begin, 0 for Monday. */
  readonly firstDay: number;
}

export const CLOCKS = ['24', '12'] as const;
/** Weekdays on which weeks begin somewhere, by their number, Monday being 0. */
export const FIRST_DAYS = { monday: 0, sunday: 6, saturday: 5 } as const;

/** What a reader said of it, and what is known besides; what is not understood counts as not said. */
export interface ReadingWish {
  /** Chosen by the reader. */
  readonly lang?: string | undefined;
  readonly clock?: string | undefined;
  readonly week?: string | undefined;
  /** What the reader's program accepts, best first. */
  readonly accepted?: readonly string[];
  /** The language of what is read, or empty. */
  readonly own?: string;
}

/** English with no region is read by the customs of most of the world: days before months, 24 hours, from Monday on. */
const PLAIN: Partial<Record<Language, string>> = { en: 'en-GB' };

interface Tag {
  readonly language: Language;
  readonly region: string;
}

/** Answers about locales that are kept in memory: asking for one takes as long as writing a small page. */
const MAX_KEPT_LOCALES = 500;

/** Returns a function that keeps its last answers; all of them are forgotten once there are too many. */
function remembered<T>(ask: (text: string) => T): (text: string) => T {
  const answers = new Map<string, T>();
  return (text) => {
    if (answers.has(text)) return answers.get(text)!;
    if (answers.size >= MAX_KEPT_LOCALES) answers.clear();
    const answer = ask(text);
    answers.set(text, answer);
    return answer;
  };
}

const tagOf = remembered((text: string): Tag | null => {
  try {
    const { language, region } = new Intl.Locale(text);
    return Object.hasOwn(CATALOGUE, language)
      ? { language: language as Language, region: region ?? '' }
      : null;
  } catch {
    return null;
  }
});

/** Returns how somebody reads: as chosen, else as the reader's program says, else in the language of what is read. */
export function readingOf({ lang = '', clock, week, accepted = [], own = '' }: ReadingWish): Reading {
  const tags = [lang, ...accepted, own].map(tagOf).filter((t) => t !== null);
  const language = tags[0]?.language ?? 'en';
  const region = tags.find((t) => t.language === language && t.region)?.region;
  const locale = region ? `${language}-${region}` : (PLAIN[language] ?? language);
  const customs = customsIn(locale);
  return {
    language,
    locale,
    clock: CLOCKS.find((c) => c === clock) ?? customs.clock,
    firstDay:
      week !== undefined && Object.hasOwn(FIRST_DAYS, week)
        ? FIRST_DAYS[week as keyof typeof FIRST_DAYS]
        : customs.firstDay,
  };
}

/** A Monday. */
const MONDAY = new CalendarDate(2026, 6, 1);

/** Returns which clock and which first weekday are usual in a locale. */
const customsIn = remembered((locale: string): Pick<Reading, 'clock' | 'firstDay'> => {
  const hours = new Intl.DateTimeFormat(locale, { hour: 'numeric' }).resolvedOptions().hourCycle;
  return {
    clock: hours === 'h12' || hours === 'h11' ? '12' : '24',
    firstDay: (7 - getDayOfWeek(MONDAY, locale)) % 7,
  };
});

/** Scripts that are written from right to left (ISO 15924). */
const LEFTWARD = new Set(['Arab', 'Hebr', 'Syrc', 'Thaa', 'Nkoo', 'Samr', 'Mand', 'Adlm', 'Rohg']);

/** Returns in which direction a language is written, by the script that is usual for it. */
export function directionOf(language: string): 'ltr' | 'rtl' {
  try {
    return LEFTWARD.has(new Intl.Locale(language).maximize().script ?? '') ? 'rtl' : 'ltr';
  } catch {
    return 'ltr';
  }
}
