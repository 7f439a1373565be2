import { fieldWord } from '../entries';
import type { ItemPart } from './difference';
import type { EntryField, SwitchedField } from './fields';
import type { PropertyTest } from './filter';
import type { Audience, Limiter } from './glass';
import type { LinkNote } from './linkCheck';
import type { SourceGlass, Wording } from './rules';
import type { SightMark } from './sightlines';
import type { InsideLanguage } from '../texts/languages';
import { PART_DE } from '../words/german';
import { inLanguage } from '../words/inLanguage';

/** Our words for glass with plain language beside them. */
export const GLASS_WORDS: Readonly<Record<SourceGlass, { word: string; plain: string }>> = {
  shut: { word: 'Shut', plain: 'nothing' },
  frosted: { word: 'Frosted', plain: 'only when time is taken' },
  tinted: { word: 'Tinted', plain: 'title, time and place' },
  clear: { word: 'Clear', plain: 'every field that may go out' },
  cut: { word: 'Cut', plain: 'the fields picked by hand' },
};

/** Our words for zones, and how many rings lie around the inside. */
export const AUDIENCE_WORDS: Readonly<Record<Audience, { word: string; plain: string; rings: number }>> = {
  crew: { word: 'Crew', plain: 'named colleagues', rings: 1 },
  house: { word: 'House', plain: 'everyone in the organisation', rings: 2 },
  partners: { word: 'Partners', plain: 'named outsiders', rings: 3 },
  street: { word: 'Street', plain: 'anyone who has the address', rings: 4 },
};

/** Who or what sets a limit to the glass, as it is told. */
export const LIMITER_WORDS: Readonly<Record<Limiter, string>> = {
  'house-ceiling': 'ceiling of the house',
  'calendar-ceiling': 'ceiling of the calendar',
  window: 'glass of the window',
  key: 'cap of the key',
  label: 'label that holds back',
  hold: 'hold on the entry',
};

export const SIGHT_MARK_WORDS: Readonly<Record<SightMark, string>> = {
  'clearer-than-usual': 'clearer than usual here',
  sensitive: 'sensitive details',
  'not-polled': 'not used for 60 days',
  'ends-soon': 'ends within 30 days',
};

/** What is to be known of an address before it is handed out. */
export const LINK_NOTE_WORDS: Readonly<Record<LinkNote, string>> = {
  withdrawn: 'its key is withdrawn',
  ended: 'its key has ended',
  closed: 'its window is closed',
  unlisted: 'its window is no longer on the notice board',
  stopped: 'readers get nothing at the moment, because it cannot be computed',
  'busy-only': 'shows busy times only',
  'shows-nothing': 'shows nothing at the moment',
  'ends-soon': 'its key ends within 30 days',
  'closes-soon': 'its window closes within 30 days',
};

export const TEST_WORDS: Readonly<Record<PropertyTest, string>> = {
  is: 'is',
  contains: 'contains',
  'at-least': 'is at least',
  'at-most': 'is at most',
};

/** What a window lets out where a field is switched on, and what is to be known of it besides its glass. */
export const SWITCH_WORDS: Readonly<Record<SwitchedField, { word: string; plain: string }>> = {
  planned: { word: 'Show how far milestones have slipped', plain: '' },
  people: { word: 'Show people’s names', plain: '' },
  contact: { word: 'Show the contact', plain: '' },
  joinLink: { word: 'Show joining links', plain: 'anyone who has one can join' },
};

/** Parts of an item that are no field of an entry, or are told otherwise outside. */
export const PART_WORDS: Readonly<Record<Exclude<ItemPart, EntryField>, string>> = {
  time: 'time',
  recurrence: 'recurrence',
  dates: 'dates',
  tentative: 'tentative',
  calendar: 'calendar',
};

/** Returns a part of an outward item in plain words, in small letters. */
export function partWord(part: ItemPart, language: InsideLanguage = 'en'): string {
  if (!(part in PART_WORDS)) return fieldWord(part as EntryField, language);
  return inLanguage(PART_WORDS, PART_DE, language)[part as keyof typeof PART_WORDS];
}

/** How a window names itself, part by part. */
export const WORDING_WORDS: Readonly<Record<keyof Wording | 'hostZone', string>> = {
  name: 'name',
  description: 'description',
  language: 'language',
  topic: 'topic',
  place: 'place',
  contact: 'contact for questions',
  translations: 'other languages',
  colour: 'colour',
  busyWord: 'word for busy time',
  dueAs: 'form of due items',
  remind: 'suggested reminder',
  lettingGo: 'days that feeds mark removed entries',
  notices: 'change notices by mail',
  firstView: 'first view',
  calendars: 'names of calendars',
  hostZone: 'time zone',
};
