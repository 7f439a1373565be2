import { AUDIENCE_WORDS, GLASS_WORDS, type Audience, type Glass } from '../glass';
import type { InsideLanguage } from '../texts/languages';
import { AUDIENCE_DE, GLASS_DE, STANDING_DE } from '../words/german';
import { inLanguage } from '../words/inLanguage';
import { insideTexts } from '../words/texts';
import type { Made } from './houseRights';
import type { Standing } from './rights';

const STANDING_WORDS: Readonly<Record<Standing, string>> = {
  publisher: 'publisher',
  editor: 'editor',
  reader: 'reader',
};

/** Returns the names of what people are to a calendar. */
export const standingNames = (language: InsideLanguage): Readonly<Record<Standing, string>> =>
  inLanguage(STANDING_WORDS, STANDING_DE, language);

const glassWord = (glass: Glass, language: InsideLanguage) =>
  inLanguage(GLASS_WORDS, GLASS_DE, language)[glass].word.toLowerCase();

/** Returns what somebody asks for, as words after “asks to”: `see “Quay” through tinted glass`. */
export function wishWords(
  { standing, glass }: Made,
  calendar: string,
  language: InsideLanguage = 'en',
): string {
  const t = insideTexts(language);
  if (standing === 'reader')
    return t('seeThrough', { calendar, glass: glassWord(glass ?? 'frosted', language) });
  return t(standing === 'editor' ? 'beEditor' : 'bePublisher', { calendar });
}

/** Returns what somebody is: `reader of Quay through tinted glass`, or without a calendar `reader through tinted glass`. */
export function standingWords(
  { standing, glass }: Made,
  calendar = '',
  language: InsideLanguage = 'en',
): string {
  const t = insideTexts(language);
  const name = standingNames(language)[standing];
  const role = calendar ? t('roleOf', { role: name, calendar }) : name;
  return glass ? t('roleThrough', { role, glass: glassWord(glass, language) }) : role;
}

/**
 * Returns what somebody asks for who wants a higher ceiling: `raise the ceiling of “Quay” for Street to Clear`. Without a calendar
 * it is the ceiling of the whole house.
 */
export function ceilingRequestWords(
  { audience, glass }: { readonly audience: Audience; readonly glass: Glass },
  calendar: string | null,
  language: InsideLanguage = 'en',
): string {
  const values = {
    audience: inLanguage(AUDIENCE_WORDS, AUDIENCE_DE, language)[audience].word,
    glass: inLanguage(GLASS_WORDS, GLASS_DE, language)[glass].word,
  };
  const t = insideTexts(language);
  return calendar === null ? t('raiseHouse', values) : t('raiseCalendar', { ...values, calendar });
}
