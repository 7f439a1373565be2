import { plainText, textsOf } from '../entries';
import { Budget } from '../work';
import type { Instant } from '../zones';
import type { OutwardContent, OutwardField } from './fields';
import { comparablePhone, phonesIn } from './phones';
import type { OutwardBusy, OutwardItem, OutwardView } from './view';

export const EXPOSURE_KINDS = ['mail-address', 'phone-number', 'passcode', 'person', 'watch-word'] as const;
/** Sensitive matter that can stand in an outward text. */
export type ExposureKind = (typeof EXPOSURE_KINDS)[number];

/** One thing found, and where it stands. */
export interface Exposure {
  readonly kind: ExposureKind;
  /** What was found, as it stands there. */
  readonly text: string;
  readonly uid: string;
  readonly field: OutwardField;
  /** Title and start of the item that it stands in. */
  readonly title: string;
  readonly from: Instant;
}

/**
 * What is looked for besides what can be told by its form, and whom the view itself names: lists of the house, never
 * what stands in its entries. What is kept in has no say in what is found outside, nor in when a draft is shown.
 */
export interface Watch {
  /** Names of the people with an account. */
  readonly people: readonly string[];
  /** The house's own list of words. */
  readonly words: readonly string[];
  /** Country of the house (ISO 3166-1), by which telephone numbers are read, or empty. */
  readonly country: string;
  /** Mail addresses and telephone numbers that the house has made public itself: they are not reported. */
  readonly publicContacts: readonly string[];
}

const LINK = /https?:\/\/[^\s<>"]+/gi;
const SECRET = /[?&#/](?:pwd|pin|pass|passcode|password|passwd|code|token|key)=[^\s<>"&]+/i;
/** The longest local part and domain of a mail address (RFC 5321 section 4.5.3.1). */
const [LOCAL, DOMAIN] = [64, 255];

export const NOTHING_WATCHED: Watch = { people: [], words: [], country: '', publicContacts: [] };

/** Returns the mail addresses in a text: from each @ as far to both sides as an address goes. */
function mailsIn(text: string): string[] {
  const out: string[] = [];
  for (let at = text.indexOf('@'); at >= 0; at = text.indexOf('@', at + 1)) {
    const local = /[\p{L}\p{N}._%+-]{1,64}$/u.exec(text.slice(Math.max(0, at - LOCAL), at))?.[0];
    const domain = /^[\p{L}\p{N}-]+(?:\.[\p{L}\p{N}-]+)+/u.exec(text.slice(at + 1, at + 1 + DOMAIN))?.[0];
    if (local && domain) out.push(`${local}@${domain}`);
  }
  return out;
}

/** Returns a mail address or telephone number in the form in which it is compared with others, however it was written. */
function comparableContact(contact: string, country: string): string {
  const text = contact.trim();
  return text.includes('@') ? text.toLowerCase() : comparablePhone(text, country);
}

/** Returns the names of the people whom a view names; groups among them. */
function peopleNamed({ items }: OutwardView): string[] {
  const names = new Set<string>();
  for (const item of items)
    if (item.kind !== 'busy')
      for (const { people } of contentsOf(item)) for (const { name } of people ?? []) names.add(name);
  return [...names];
}

function contentsOf(item: Exclude<OutwardItem, OutwardBusy>): OutwardContent[] {
  return item.kind === 'series' ? [item.content, ...item.overrides.map((o) => o.content)] : [item.content];
}

type Finder = (text: string) => { kind: ExposureKind; text: string }[];

/** Steps of one search through everything that a view says. */
const MOST_STEPS = 5_000_000;
/** A name or a watched word has so many words at most; further ones do not matter for finding it. */
const MOST_WORDS = 6;

/** Returns the words of a text as they are compared. */
function plainWords(text: string): string[] {
  return plainText(text).match(/[\p{L}\p{N}]+/gu) ?? [];
}

/** What is sought, by its words joined by single spaces; what has no letters and figures is sought as it stands. */
interface Sought {
  readonly byWords: ReadonlyMap<string, readonly { kind: ExposureKind; word: string }[]>;
  readonly asTheyStand: readonly { kind: ExposureKind; word: string }[];
  readonly longest: number;
}

function soughtOf({ people, words }: Watch): Sought {
  const byWords = new Map<string, { kind: ExposureKind; word: string }[]>();
  const asTheyStand: { kind: ExposureKind; word: string }[] = [];
  let longest = 0;
  const add = (kind: ExposureKind, word: string) => {
    const parts = plainWords(word).slice(0, MOST_WORDS);
    const key = parts.join(' ');
    if (!key && kind === 'watch-word' && word.trim().length > 1) asTheyStand.push({ kind, word });
    if (key.length < 2) return;
    longest = Math.max(longest, parts.length);
    const known = byWords.get(key);
    if (!known) byWords.set(key, [{ kind, word }]);
    else if (!known.some((k) => k.kind === kind && k.word === word)) known.push({ kind, word });
  };
  for (const name of people) add('person', name);
  for (const word of words) add('watch-word', word);
  return { byWords, asTheyStand, longest };
}

function finderOf(watch: Watch, budget: Budget): Finder {
  const { byWords, asTheyStand, longest } = soughtOf(watch);
  const publicContacts = new Set(watch.publicContacts.map((one) => comparableContact(one, watch.country)));
  const isPublic = (found: string) => publicContacts.has(comparableContact(found, watch.country));
  return (text) => {
    budget.spend(1 + (text.length >> 4));
    const out: { kind: ExposureKind; text: string }[] = [];
    for (const found of mailsIn(text)) if (!isPublic(found)) out.push({ kind: 'mail-address', text: found });
    for (const [link] of text.matchAll(LINK)) {
      const found = SECRET.exec(link);
      if (found) out.push({ kind: 'passcode', text: link.slice(0, found.index + found[0].length) });
    }
    for (const found of phonesIn(text.replace(LINK, ' '), watch.country, budget))
      if (!isPublic(found)) out.push({ kind: 'phone-number', text: found });
    if (longest) {
      const words = plainWords(text);
      budget.spend(words.length * longest);
      for (let i = 0; i < words.length; i++) {
        let key = '';
        for (let n = 0; n < longest && i + n < words.length; n++) {
          key += n ? ` ${words[i + n]!}` : words[i]!;
          for (const { kind, word } of byWords.get(key) ?? []) out.push({ kind, text: word });
        }
      }
    }
    budget.spend(asTheyStand.length);
    for (const { kind, word } of asTheyStand) if (text.includes(word.trim())) out.push({ kind, text: word });
    return out;
  };
}

/**
 * Returns the sensitive matter in everything that a view says of its entries, each once an item and field. Throws
 * `too-much-work` where a view says more than can be looked through.
 */
export function exposuresOf(view: OutwardView, watch: Watch): Exposure[] {
  const people = [...watch.people, ...peopleNamed(view)];
  const find = finderOf(
    { ...watch, people },
    new Budget(MOST_STEPS, 'what a view says about people and secrets'),
  );
  // The same text stands in many entries.
  const known = new Map<string, ReturnType<Finder>>();
  const findIn = (text: string) => {
    let found = known.get(text);
    if (!found) known.set(text, (found = text.length > 1 ? find(text) : []));
    return found;
  };
  const out: Exposure[] = [];
  for (const item of view.items) {
    if (item.kind === 'busy') continue;
    const seen = new Set<string>();
    for (const content of contentsOf(item)) {
      for (const field of Object.keys(content) as OutwardField[]) {
        // The window's own word, not the entry's.
        if (field === 'calendar') continue;
        const found = textsOf(content, field).flatMap(findIn);
        if (field === 'people') {
          for (const { name } of content.people ?? []) if (name) found.push({ kind: 'person', text: name });
        }
        for (const { kind, text } of found) {
          const key = `${kind}|${text}|${field}`;
          if (seen.has(key)) continue;
          seen.add(key);
          out.push({ kind, text, uid: item.uid, field, title: item.content.title, from: item.from });
        }
      }
    }
  }
  return out;
}

/** Returns what is exposed afterwards and was not before, in the same place. */
export function newlyExposed(
  before: OutwardView | null,
  after: OutwardView | null,
  watch: Watch,
): Exposure[] {
  if (!after) return [];
  const key = (e: Exposure) => `${e.kind}|${e.text}|${e.uid}|${e.field}`;
  const old = new Set((before ? exposuresOf(before, watch) : []).map(key));
  return exposuresOf(after, watch).filter((e) => !old.has(key(e)));
}

/** The same thing found in several places. */
export interface ExposureGroup {
  readonly kind: ExposureKind;
  readonly text: string;
  /** The first places in which it was found. */
  readonly places: readonly Exposure[];
  /** The number of all places. */
  readonly count: number;
}

/** Places that a group lists; more are only counted. */
const MAX_LISTED_PLACES = 3;

/** Returns findings grouped by what was found, in the order in which each was found first. */
export function groupedExposures(found: readonly Exposure[]): ExposureGroup[] {
  const groups = new Map<string, ExposureGroup>();
  for (const one of found) {
    const key = `${one.kind}|${one.text}`;
    const { places, count } = groups.get(key) ?? { places: [], count: 0 };
    groups.set(key, {
      kind: one.kind,
      text: one.text,
      places: places.length < MAX_LISTED_PLACES ? [...places, one] : places,
      count: count + 1,
    });
  }
  return [...groups.values()];
}
