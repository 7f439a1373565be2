import {
  type Attachment,
  type Content,
  type EntryImage,
  type KeptProperty,
  type Person,
  type PropertyValue,
} from './entry';
import { HOLD_WORDS, KIND_WORDS, SHOWS_WORDS, STATUS_WORDS } from './stateWords';
import type { When } from './when';
import type { InsideLanguage } from '../texts/languages';

/** What the values of a field can be. Whatever reads, writes or shows a field goes by its shape where it can. */
export interface ShapeValues {
  /** Text on one line. */
  readonly line: string;
  readonly text: string;
  /** A web address, or empty. */
  readonly link: string;
  readonly choice: string;
  readonly labels: readonly string[];
  readonly people: readonly Person[];
  readonly attachments: readonly Attachment[];
  readonly properties: readonly PropertyValue[];
  readonly image: EntryImage | null;
  readonly moment: When | null;
  readonly kept: readonly KeptProperty[];
}
export type Shape = keyof ShapeValues;

/** A narrower place to look for something than every text of an entry. */
export type FoundAs = 'label' | 'person';

export interface FieldHome<T> {
  /** The field in plain words, in small letters. */
  readonly word: string;
  readonly german: string;
  /** What it holds where nothing is said, and what a stored entry holds that was written before there was the field. */
  readonly empty: T;
  readonly foundAs?: FoundAs;
  /** Its column in a table of entries, or null for none. */
  readonly column: {
    /** Headings besides its word by which it is known, in plain small letters. */
    readonly known: readonly string[];
    /** Other words that stand for what can be chosen; all else is then read as nothing said, without a note. */
    readonly means?: Readonly<Record<string, T>>;
  } | null;
  /**
   * Set for a field that came when entries had been stored: while it is empty it leaves no trace in fingerprints, so
   * that what was brought in from a file before is not taken for changed.
   */
  readonly later?: true;
}

/** What can be chosen, each in plain words. */
interface Choice<T> {
  readonly of: Readonly<Record<T & string, string>>;
}

type Home<T, S extends Shape> = FieldHome<T> & { readonly shape: S };

/** The home of a field by what it holds: a few words of which one is chosen, or one of the other shapes. */
export type Shaped<T> = [T] extends [string]
  ? [string] extends [T]
    ? Home<T, 'line' | 'text' | 'link'>
    : Home<T, 'choice'> & Choice<T>
  : { [S in Shape]: [T] extends [ShapeValues[S]] ? Home<T, S> : never }[Shape];

function wordsOf<T extends string>(words: Readonly<Record<T, { word: string }>>): Record<T, string> {
  const all = Object.entries(words) as [T, { word: string }][];
  return Object.fromEntries(all.map(([value, { word }]) => [value, word])) as Record<T, string>;
}

/** The home of each field of an entry's content, in the order in which fields are told. */
export const ENTRY_FIELDS: { readonly [F in keyof Content]: Shaped<Content[F]> } = {
  title: {
    word: 'title',
    german: 'Titel',
    shape: 'line',
    empty: '',
    column: { known: ['subject', 'summary', 'name', 'event', 'what'] },
  },
  place: {
    word: 'place',
    german: 'Ort',
    shape: 'line',
    empty: '',
    column: { known: ['location', 'where', 'venue', 'room'] },
  },
  description: {
    word: 'description',
    german: 'Beschreibung',
    shape: 'text',
    empty: '',
    column: { known: ['notes', 'details', 'text', 'body'] },
  },
  publicLink: {
    word: 'public link',
    german: 'öffentlicher Link',
    shape: 'link',
    empty: '',
    column: { known: ['link', 'url', 'web', 'website'] },
  },
  joinLink: {
    word: 'joining link',
    german: 'Zugangslink',
    shape: 'link',
    empty: '',
    column: { known: ['join', 'meeting link', 'conference'] },
  },
  labels: {
    word: 'labels',
    german: 'Etiketten',
    shape: 'labels',
    empty: [],
    foundAs: 'label',
    column: { known: ['label', 'category', 'categories', 'tags', 'tag'] },
  },
  people: {
    word: 'people',
    german: 'Personen',
    shape: 'people',
    empty: [],
    foundAs: 'person',
    column: { known: ['person', 'attendees', 'participants', 'who', 'group', 'groups'] },
  },
  contact: {
    word: 'contact',
    german: 'Kontakt',
    shape: 'line',
    empty: '',
    foundAs: 'person',
    column: { known: ['organizer', 'organiser', 'contact person'] },
  },
  kind: {
    word: 'kind',
    german: 'Art',
    shape: 'choice',
    of: wordsOf(KIND_WORDS),
    empty: 'event',
    column: { known: ['type'] },
  },
  planned: {
    word: 'planned for',
    german: 'geplant für',
    shape: 'moment',
    empty: null,
    column: { known: ['planned', 'baseline', 'planned date'] },
  },
  status: {
    word: 'status',
    german: 'Status',
    shape: 'choice',
    of: STATUS_WORDS,
    empty: 'confirmed',
    column: { known: ['state'] },
  },
  shows: {
    word: 'busy or free',
    german: 'belegt oder frei',
    shape: 'choice',
    of: SHOWS_WORDS,
    empty: 'busy',
    column: {
      known: ['busy', 'show as', 'availability', 'transparency'],
      means: { transparent: 'free', available: 'free', no: 'free', false: 'free' },
    },
  },
  hold: {
    word: 'hold',
    german: 'Sperre',
    shape: 'choice',
    of: wordsOf(HOLD_WORDS),
    empty: 'none',
    column: null,
  },
  attachments: { word: 'attachments', german: 'Anhänge', shape: 'attachments', empty: [], column: null },
  image: { word: 'image', german: 'Bild', shape: 'image', empty: null, column: null, later: true },
  properties: { word: 'properties', german: 'Eigenschaften', shape: 'properties', empty: [], column: null },
  kept: {
    word: 'more properties of its file',
    german: 'weitere Eigenschaften aus seiner Datei',
    shape: 'kept',
    empty: [],
    column: null,
  },
};

export const CONTENT_FIELDS = Object.keys(ENTRY_FIELDS) as readonly (keyof Content)[];

export const EMPTY_CONTENT = Object.fromEntries(
  CONTENT_FIELDS.map((field) => [field, ENTRY_FIELDS[field].empty]),
) as unknown as Content;

/** Returns content as it was stored, with what is empty where it says nothing: fields come after entries were written. */
export function storedContent<T extends Content>(stored: T): T {
  const missing = CONTENT_FIELDS.filter(
    (field) => stored[field] === undefined || (stored[field] === null && ENTRY_FIELDS[field].empty !== null),
  );
  if (!missing.length) return stored;
  return { ...stored, ...Object.fromEntries(missing.map((field) => [field, ENTRY_FIELDS[field].empty])) };
}

type Told = { [S in Shape]: (value: ShapeValues[S]) => readonly string[] };

const own = (value: string) => [value];
const none = () => [];

/** The texts in a value of a shape that people look for. */
const TEXTS: Told = {
  line: own,
  text: own,
  link: own,
  choice: none,
  labels: (labels) => labels,
  people: (people) => people.flatMap((p) => [p.name, p.address]),
  attachments: (attachments) => attachments.flatMap((a) => [a.name, a.href]),
  image: (image) => (image ? [image.alt] : []),
  properties: (properties) => properties.map((p) => p.value),
  moment: none,
  kept: none,
};

/** Returns the texts that content says in a field, and that people look for; none where it says nothing. */
export function textsOf(content: Partial<Content>, field: keyof Content): readonly string[] {
  const value = content[field];
  if (value === undefined) return [];
  return (TEXTS[ENTRY_FIELDS[field].shape] as (v: unknown) => readonly string[])(value);
}

/** Words for what an entry says besides its content, in English and German. */
const TIME_WORDS = {
  start: { word: 'start', german: 'Anfang' },
  end: { word: 'end', german: 'Ende' },
  recurrence: { word: 'recurrence', german: 'Wiederholung' },
  overrides: { word: 'changed dates', german: 'geänderte Termine' },
} as const;

/** What an entry says, by name: its content, its times, and how it recurs. */
export type SaidField = keyof Content | keyof typeof TIME_WORDS;
export const SAID_FIELDS = [...CONTENT_FIELDS, ...Object.keys(TIME_WORDS)] as readonly SaidField[];

/** Returns a field of an entry in plain words, in small letters. */
export function fieldWord(field: SaidField, language: InsideLanguage = 'en'): string {
  const { word, german } =
    field in TIME_WORDS ? TIME_WORDS[field as keyof typeof TIME_WORDS] : ENTRY_FIELDS[field as keyof Content];
  return language === 'de' ? german : word;
}
