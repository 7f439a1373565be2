import type { Content, Entry } from './entry';

export const FIND_IN = ['text', 'label', 'person', 'property'] as const;
/** Where is looked: every text of an entry, or one kind of field. */
export type FindIn = (typeof FIND_IN)[number];

/** What is looked for. All words must be found; letters count without case and accents. */
export interface FindQuery {
  readonly text: string;
  readonly in: FindIn;
}

const TEXTS: Readonly<Record<FindIn, (content: Content) => readonly string[]>> = {
  text: (c) => [
    c.title,
    c.place,
    c.description,
    c.publicLink,
    c.joinLink,
    c.contact,
    ...c.labels,
    ...c.people.flatMap((p) => [p.name, p.address]),
    ...c.attachments.flatMap((a) => [a.name, a.href]),
    ...c.properties.map((p) => p.value),
  ],
  label: (c) => c.labels,
  person: (c) => [...c.people.flatMap((p) => [p.name, p.address]), c.contact],
  property: (c) => c.properties.map((p) => `${p.name}: ${p.value}`),
};

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

/** Returns a check of contents for a query; an empty query lets everything through. */
export function finder(query: FindQuery): (content: Content) => boolean {
  const words = wordsOf(query.text);
  if (!words.length) return () => true;
  return (content) => {
    const texts = TEXTS[query.in](content).map(plainText);
    return words.every((word) => texts.some((text) => text.includes(word)));
  };
}

/** Returns whether an entry, or one of its dates that were changed, has what is looked for. */
export function found(entry: Entry, matches: (content: Content) => boolean): boolean {
  return matches(entry) || entry.overrides.some((o) => matches(o.content));
}
