import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex, utf8ToBytes } from '@noble/hashes/utils.js';
import { CONTENT_FIELDS, ENTRY_FIELDS, SAID_FIELDS, type SaidField } from './contentFields';
import { contentOf, type Content, type Entry } from './entry';

type Saying = Pick<Entry, 'start' | 'end' | 'recurrence' | 'overrides'> & Content;

/** Marks that a program sets anew each time it writes a file. */
const MARKS = new Set(['sequence', 'created', 'last-modified']);

/** Returns a text that is the same for values that say the same, in whatever order their keys stand. */
export function canonical(value: unknown): string {
  if (Array.isArray(value)) return `[${value.map(canonical).join(',')}]`;
  if (typeof value !== 'object' || value === null) return JSON.stringify(value) ?? 'null';
  const parts = Object.entries(value)
    .filter(([, v]) => v !== undefined)
    .sort(([a], [b]) => (a < b ? -1 : 1))
    .map(([k, v]) => `${JSON.stringify(k)}:${canonical(v)}`);
  return `{${parts.join(',')}}`;
}

const LATER = CONTENT_FIELDS.filter((field) => ENTRY_FIELDS[field].later) as (keyof Content)[];

/** Whether content says nothing in a field. */
function isEmpty(content: Partial<Content>, field: keyof Content): boolean {
  return canonical(content[field]) === canonical(ENTRY_FIELDS[field].empty);
}

/** The parts of an entry that are compared, by the name of the field. */
function partsOf(entry: Saying): Record<string, unknown> {
  const telling = (content: Content) => {
    const said: Partial<Content> = {
      ...contentOf(content),
      kept: content.kept.filter(([n]) => !MARKS.has(n)),
    };
    for (const field of LATER) if (isEmpty(said, field)) delete said[field];
    return said;
  };
  const { start, end, recurrence } = entry;
  return {
    ...telling(entry),
    start,
    end,
    recurrence,
    overrides: entry.overrides.map((o) => ({ ...o, content: telling(o.content) })),
  };
}

/** Returns a fingerprint of all that an entry says; marks of time and number that a program sets do not count. */
export function printOfEntry(entry: Saying): string {
  return bytesToHex(sha256(utf8ToBytes(canonical(partsOf(entry))))).slice(0, 32);
}

/** Returns the names of the fields in which two entries differ. */
export function fieldsApart(a: Saying, b: Saying): SaidField[] {
  const [one, other] = [partsOf(a), partsOf(b)];
  return SAID_FIELDS.filter((field) => canonical(one[field]) !== canonical(other[field]));
}

/** Returns the number of the version in its file (RFC 5545 section 3.8.7.4); 0 when it has none. */
export function sequenceOf({ kept }: Pick<Content, 'kept'>): number {
  const found = kept.find(([name]) => name === 'sequence');
  return Number(found?.[3] ?? 0) || 0;
}
