import type { Glass } from '../glass';
import type { InsideLanguage } from '../texts/languages';
import { DEED_DE, WHO_DE } from '../words/german';
import { inLanguage } from '../words/inLanguage';
import { insideTexts } from '../words/texts';

/** What somebody can be made to a calendar. */
export const STANDINGS = ['publisher', 'editor', 'reader'] as const;
export type Standing = (typeof STANDINGS)[number];

/** What somebody is in the house. */
export const HOUSE_ROLES = ['steward', 'member'] as const;
export type HouseRole = (typeof HOUSE_ROLES)[number];

/** What somebody is to a calendar: what they were made, a steward of the house, or anybody else in it. */
export type Who = 'steward' | Standing | 'house';

/** How much of a calendar somebody inside sees: everything that is known of it, or what a glass lets through. */
export type Sight = 'all' | Glass;

/** Deeds by who may do them: the one table of rights. All but those with no calendar are asked of each that is concerned. */
export const DEEDS = {
  'see-all': { who: ['steward', 'publisher', 'editor'], say: 'see everything in this calendar' },
  see: { who: ['steward', 'publisher', 'editor', 'reader', 'house'], say: 'see this calendar' },
  write: { who: ['steward', 'publisher', 'editor'], say: 'write entries in this calendar' },
  manage: { who: ['steward', 'publisher'], say: 'change or delete this calendar' },
  people: { who: ['steward', 'publisher'], say: 'decide who may see or write this calendar' },
  publish: { who: ['steward', 'publisher'], say: 'publish this calendar, or stop publishing it' },
  'see-windows': { who: ['steward', 'publisher'], say: 'see the windows over this calendar' },
  'know-windows': { who: ['steward', 'publisher', 'editor'], say: 'know which windows show this calendar' },
  'ask-ceiling': {
    who: ['steward', 'publisher', 'editor'],
    say: 'ask for a higher ceiling of this calendar',
  },
  'ask-to-see': { who: ['reader', 'house'], say: 'ask for more rights to this calendar' },
  'run-house': { who: ['steward'], say: 'look after the house' },
} as const satisfies Readonly<Record<string, { readonly who: readonly Who[]; readonly say: string }>>;
export type Deed = keyof typeof DEEDS;

/** Returns whether somebody may do a deed, by what they are to the calendar. */
export function may(deed: Deed, who: Who): boolean {
  return (DEEDS[deed].who as readonly Who[]).includes(who);
}

const WHO_WORDS: Readonly<Record<Who, string>> = {
  steward: 'a steward of the house',
  publisher: 'a publisher of the calendar',
  editor: 'an editor of the calendar',
  reader: 'a reader of the calendar',
  house: 'anybody in the house',
};

/** Returns who may do a deed, in words: `an editor of the calendar, a publisher of the calendar or a steward of the house`. */
export function whoMay(deed: Deed, language: InsideLanguage = 'en'): string {
  const names = inLanguage(WHO_WORDS, WHO_DE, language);
  const words = [...DEEDS[deed].who].reverse().map((who) => names[who]);
  if (words.length === 1) return words[0]!;
  return insideTexts(language)('or', { first: words.slice(0, -1).join(', '), last: words.at(-1)! });
}

/** Returns what a deed is, as words after “you may”. */
export function deedWords(deed: Deed, language: InsideLanguage = 'en'): string {
  return language === 'de' ? DEED_DE[deed] : DEEDS[deed].say;
}
