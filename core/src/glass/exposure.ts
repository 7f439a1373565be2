import { plainText, type Entry } from '../entries';
import type { Instant } from '../zones';
import type { OutwardContent, OutwardField } from './fields';
import type { OutwardView } from './view';

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

/** What is looked for besides what can be told by its form. */
export interface Watch {
  /** Names of people who are known inside. */
  readonly people: readonly string[];
  /** The house's own list. */
  readonly words: readonly string[];
}

const MAIL = /[\p{L}\p{N}._%+-]+@[\p{L}\p{N}-]+(?:\.[\p{L}\p{N}-]+)+/gu;
/** With a sign of a telephone number: a plus, brackets or groups; at least seven digits. Dates and times are none. */
const PHONE = /(?<![\w/:.+-])\(?\+?\d[\d ()./-]{5,18}\d(?![\w:.-]*\d)/g;
const PASSCODE =
  /https?:\/\/[^\s<>"]*[?&#/](?:pwd|pin|pass|passcode|password|passwd|code|token|key)=[^\s<>"&]+/gi;
const DATE = /^\d{4}-\d{2}-\d{2}|^\d{1,2}\.\d{1,2}\.\d{2,4}$|^\d{4}-\d{4}$|^\d{1,2}\/\d{1,2}\/\d{2,4}$/;

/** Returns the texts that a field says. */
function textsOf(content: OutwardContent, field: OutwardField): string[] {
  const value = content[field];
  if (typeof value === 'string') return [value];
  if (field === 'people') return (content.people ?? []).flatMap((p) => [p.name, p.address]);
  if (field === 'labels') return [...(content.labels ?? [])];
  if (field === 'attachments') return (content.attachments ?? []).flatMap((a) => [a.name, a.href]);
  if (field === 'properties') return (content.properties ?? []).map((p) => p.value);
  return [];
}

/** Fields whose text is never free text. */
const SKIPPED: readonly OutwardField[] = ['status', 'shows', 'kind', 'planned'];

/** Returns the names of people in entries and in their changed dates; groups among them. */
export function peopleIn(entries: Iterable<Entry>): string[] {
  const names = new Set<string>();
  for (const entry of entries) {
    for (const { people } of [entry, ...entry.overrides.map((o) => o.content)])
      for (const { name } of people) if (name.trim()) names.add(name.trim());
  }
  return [...names];
}

type Finder = (text: string) => { kind: ExposureKind; text: string }[];

function finderOf({ people, words }: Watch): Finder {
  const named = (kind: ExposureKind, list: readonly string[]) =>
    list
      .map((word) => ({ kind, word, plain: plainText(word.trim()) }))
      .filter((w) => w.plain.length > 1)
      .map((w) => ({ ...w, bounded: bounded(w.plain) }));
  const wanted = [...named('person', people), ...named('watch-word', words)];
  return (text) => {
    const out: { kind: ExposureKind; text: string }[] = [];
    for (const [found] of text.matchAll(MAIL)) out.push({ kind: 'mail-address', text: found });
    for (const [found] of text.matchAll(PASSCODE)) out.push({ kind: 'passcode', text: found });
    for (const [found] of text.replace(/https?:\/\/\S+/g, ' ').matchAll(PHONE)) {
      const digits = found.replace(/\D/g, '').length;
      if (digits >= 7 && digits <= 15 && !DATE.test(found.trim()))
        out.push({ kind: 'phone-number', text: found.trim() });
    }
    if (wanted.length) {
      const plain = plainText(text);
      for (const { kind, word, plain: sought, bounded: found } of wanted)
        if (plain.includes(sought) && found.test(plain)) out.push({ kind, text: word });
    }
    return out;
  };
}

function bounded(plain: string): RegExp {
  const escaped = plain.replace(/[.*+?^${}()|[\]\\]/g, '\\$&');
  return new RegExp(`(?<![\\p{L}\\p{N}])${escaped}(?![\\p{L}\\p{N}])`, 'u');
}

/** Returns the sensitive matter in everything that a view says of its entries, each once an item and field. */
export function exposuresOf(view: OutwardView, watch: Watch): Exposure[] {
  const find = finderOf(watch);
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
    const contents =
      item.kind === 'series' ? [item.content, ...item.overrides.map((o) => o.content)] : [item.content];
    for (const content of contents) {
      for (const field of Object.keys(content) as OutwardField[]) {
        if (SKIPPED.includes(field)) continue;
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
