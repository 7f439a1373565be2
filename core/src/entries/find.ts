import { CONTENT_FIELDS, ENTRY_FIELDS, textsOf } from './contentFields';
import type { Content, Entry } from './entry';

export const FIND_IN = ['text', 'label', 'person', 'property'] as const;
/** Where is looked: every text of an entry, or one kind of field. */
export type FindIn = (typeof FIND_IN)[number];

/** What is looked for. All words must be found; letters count without case and accents. */
export interface FindQuery {
  readonly text: string;
  readonly in: FindIn;
}

/** Returns the texts of content in which is looked. A property by itself is looked for by its name too. */
function textsIn(content: Partial<Content>, where: FindIn): string[] {
  if (where === 'property') return (content.properties ?? []).map((p) => `${p.name}: ${p.value}`);
  return CONTENT_FIELDS.filter((f) => where === 'text' || ENTRY_FIELDS[f].foundAs === where).flatMap((f) =>
    textsOf(content, f),
  );
}

/** Orders texts by code unit, the same in every process whatever its language. */
export function compareText(a: string, b: string): number {
  return a < b ? -1 : a > b ? 1 : 0;
}

/** Returns a text as it is compared. */
export function plainText(text: string): string {
  return text
    .normalize('NFKD')
    .replace(/[\u0300-\u036f]/g, '')
    .toLowerCase();
}

/** Returns the words of a query as they are compared; none for an empty one. */
export function wordsOf(text: string): string[] {
  return plainText(text).split(/\s+/).filter(Boolean);
}

/** The texts of contents as they are compared, for looking anywhere in them: readers look again and again. */
const known = new WeakMap<object, readonly string[]>();

function plainTextsIn(content: Partial<Content>, where: FindIn): readonly string[] {
  if (where !== 'text') return textsIn(content, where).map(plainText);
  let texts = known.get(content);
  if (!texts) known.set(content, (texts = textsIn(content, where).map(plainText)));
  return texts;
}

/** Returns a check of contents for a query; an empty query lets everything through. */
export function finder(query: FindQuery): (content: Partial<Content>) => boolean {
  const words = wordsOf(query.text);
  if (!words.length) return () => true;
  return (content) => {
    const texts = plainTextsIn(content, query.in);
    return words.every((word) => texts.some((text) => text.includes(word)));
  };
}

/** Returns whether an entry, or one of its dates that were changed, has what is looked for. */
export function found(entry: Entry, matches: (content: Content) => boolean): boolean {
  return matches(entry) || entry.overrides.some((o) => matches(o.content));
}
