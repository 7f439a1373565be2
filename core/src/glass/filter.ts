import { KINDS, STATUSES, plainText, wordsOf, type Content, type Kind, type Status } from '../entries';
import { Problem } from '../problems';

export const PROPERTY_TESTS = ['is', 'contains', 'at-least', 'at-most'] as const;
/** How the value of a property is compared: numbers and dates by size, texts by letters without case and accents. */
export type PropertyTest = (typeof PROPERTY_TESTS)[number];

/** One thing that is asked of an entry, or of one of its changed dates. */
export type Condition =
  | { readonly field: 'calendar' | 'label' | 'person' | 'text'; readonly value: string }
  | { readonly field: 'kind'; readonly value: Kind }
  | { readonly field: 'status'; readonly value: Status }
  | {
      readonly field: 'property';
      readonly name: string;
      readonly test: PropertyTest;
      readonly value: string;
    };

/** Which entries of its calendars a window takes, as data. */
export type Filter =
  | Condition
  | { readonly all: readonly Filter[] }
  | { readonly any: readonly Filter[] }
  | { readonly not: Filter };

export const CONDITION_FIELDS = [
  'label',
  'person',
  'kind',
  'status',
  'text',
  'property',
  'calendar',
] as const;

const MOST_CONDITIONS = 50;
const DEEPEST = 6;
const LONGEST = 200;

/** Returns the conditions of a filter, in order. */
export function conditionsOf(filter: Filter | null): Condition[] {
  if (!filter) return [];
  if ('all' in filter) return filter.all.flatMap(conditionsOf);
  if ('any' in filter) return filter.any.flatMap(conditionsOf);
  return 'not' in filter ? conditionsOf(filter.not) : [filter];
}

/** Returns data as a filter, or null for none. Throws `filter-invalid` with what is wrong. */
export function readFilter(data: unknown): Filter | null {
  if (data === null || data === undefined) return null;
  const filter = read(data, 0);
  if (conditionsOf(filter).length > MOST_CONDITIONS)
    throw new Problem('filter-invalid', { reason: `it has more than ${MOST_CONDITIONS} conditions` });
  return filter;
}

function wrong(reason: string): never {
  throw new Problem('filter-invalid', { reason });
}

function read(data: unknown, depth: number): Filter {
  if (typeof data !== 'object' || data === null) wrong('a part of it is no condition');
  if (depth > DEEPEST) wrong(`its groups are nested more than ${DEEPEST} deep`);
  const part = data as Record<string, unknown>;
  for (const group of ['all', 'any'] as const) {
    if (!(group in part)) continue;
    const of = part[group];
    if (!Array.isArray(of) || !of.length) wrong('a group of it is empty');
    const parts = of.map((p) => read(p, depth + 1));
    return group === 'all' ? { all: parts } : { any: parts };
  }
  if ('not' in part) return { not: read(part['not'], depth + 1) };
  return readCondition(part);
}

function readCondition(part: Record<string, unknown>): Condition {
  const { field, value, name, test } = part;
  if (typeof value !== 'string' || !value.trim()) wrong('a condition has no value');
  if (value.length > LONGEST) wrong(`a value has more than ${LONGEST} letters`);
  switch (field) {
    case 'calendar':
    case 'label':
    case 'person':
    case 'text':
      return { field, value };
    case 'kind':
      if (!KINDS.includes(value as Kind)) wrong(`“${value}” is no kind of entry`);
      return { field, value: value as Kind };
    case 'status':
      if (!STATUSES.includes(value as Status)) wrong(`“${value}” is no status`);
      return { field, value: value as Status };
    case 'property':
      if (typeof name !== 'string' || !name.trim()) wrong('a condition does not say which property it asks');
      if (!PROPERTY_TESTS.includes(test as PropertyTest)) wrong(`“${String(test)}” is no comparison`);
      return { field, name, test: test as PropertyTest, value };
    default:
      return wrong(`“${String(field)}” is nothing that entries can be chosen by`);
  }
}

/** Names that filters can lose: labels and properties that the house keeps, and calendars. */
export interface KnownNames {
  readonly calendars: readonly string[];
  readonly labels: readonly string[];
  readonly properties: readonly string[];
}

/** A name that a filter uses, as it is written in {@link WindowRules.gone}. */
export function nameIn(condition: Condition): string | null {
  if (condition.field === 'calendar') return `calendar:${condition.value}`;
  if (condition.field === 'label') return `label:${plainText(condition.value)}`;
  return condition.field === 'property' ? `property:${condition.name}` : null;
}

/** Returns the names that a filter uses and that are not known (any more); while there are some, it is broken. */
export function goneFrom(filter: Filter | null, known: KnownNames): string[] {
  const there = new Set([
    ...known.calendars.map((id) => `calendar:${id}`),
    ...known.labels.map((label) => `label:${plainText(label)}`),
    ...known.properties.map((name) => `property:${name}`),
  ]);
  const names = conditionsOf(filter).map(nameIn);
  return [...new Set(names.filter((n) => n !== null))].filter((n) => !there.has(n)).sort();
}

/** What is asked of: the calendar and the content of an entry or of one changed date. */
type Test = (calendarId: string, content: Content) => boolean | null;

/**
 * Returns a check for a filter. A condition that names something gone is neither true nor false, and an entry
 * passes only where the filter holds whatever that condition would have said: a broken filter never lets more out.
 */
export function filterTest(
  filter: Filter | null,
  gone: readonly string[],
): (calendarId: string, content: Content) => boolean {
  if (!filter) return () => true;
  const test = testOf(filter, new Set(gone));
  return (calendarId, content) => test(calendarId, content) === true;
}

function testOf(filter: Filter, gone: ReadonlySet<string>): Test {
  if ('not' in filter) {
    const test = testOf(filter.not, gone);
    return (id, content) => negated(test(id, content));
  }
  if ('all' in filter || 'any' in filter) {
    const every = 'all' in filter;
    const tests = (every ? filter.all : filter.any).map((f) => testOf(f, gone));
    return (id, content) => {
      let unknown = false;
      for (const test of tests) {
        const answer = test(id, content);
        if (answer === !every) return !every;
        if (answer === null) unknown = true;
      }
      return unknown ? null : every;
    };
  }
  const name = nameIn(filter);
  if (name !== null && gone.has(name)) return () => null;
  return conditionTest(filter);
}

function negated(answer: boolean | null): boolean | null {
  return answer === null ? null : !answer;
}

function conditionTest(condition: Condition): Test {
  if (condition.field === 'property') {
    const { name, test, value } = condition;
    return (_id, c) => c.properties.some((p) => p.name === name && compared(p.value, test, value));
  }
  const { field } = condition;
  if (field === 'calendar') return (id) => id === condition.value;
  if (field === 'kind') return (_id, c) => c.kind === condition.value;
  if (field === 'status') return (_id, c) => c.status === condition.value;
  const value = plainText(condition.value.trim());
  if (field === 'label') return (_id, c) => c.labels.some((l) => plainText(l) === value);
  if (field === 'person') {
    return (_id, c) => c.people.some((p) => plainText(p.name) === value || plainText(p.address) === value);
  }
  const words = wordsOf(condition.value);
  return (_id, c) => {
    const texts = [c.title, c.place, c.description].map(plainText);
    return words.every((word) => texts.some((t) => t.includes(word)));
  };
}

/** Two numbers are compared as numbers; all else as text, which for dates is by time. */
function compared(value: string, test: PropertyTest, with_: string): boolean {
  if (test === 'contains') return plainText(value).includes(plainText(with_));
  if (test === 'is') return plainText(value) === plainText(with_);
  const [a, b] = [Number(value), Number(with_)];
  if (!value.trim()) return false;
  const order = Number.isNaN(a) || Number.isNaN(b) ? (value < with_ ? -1 : value > with_ ? 1 : 0) : a - b;
  return test === 'at-least' ? order >= 0 : order <= 0;
}

/** Returns the fields of content that a filter looks at. */
export function fieldsOfFilter(filter: Filter | null): (keyof Content)[] {
  const of: Record<Condition['field'], readonly (keyof Content)[]> = {
    calendar: [],
    label: ['labels'],
    person: ['people'],
    kind: ['kind'],
    status: ['status'],
    text: ['title', 'place', 'description'],
    property: ['properties'],
  };
  return [...new Set(conditionsOf(filter).flatMap((c) => of[c.field]))];
}

type Literal = { readonly condition: Condition; readonly holds: boolean };

/** A filter with more alternatives than this is not looked through for contradictions. */
const MOST_ALTERNATIVES = 4096;

/** Returns whether a filter contradicts itself, so that no entry whatever can pass it. */
export function isContradictory(filter: Filter | null): boolean {
  if (!filter) return false;
  const alternatives = alternativesOf(filter, true);
  return alternatives !== null && alternatives.every(clashes);
}

/** Returns the filter as alternatives of conditions that hold or not; null when there are too many. */
function alternativesOf(filter: Filter, holds: boolean): Literal[][] | null {
  if ('not' in filter) return alternativesOf(filter.not, !holds);
  if (!('all' in filter) && !('any' in filter)) return [[{ condition: filter, holds }]];
  const parts = ('all' in filter ? filter.all : filter.any).map((f) => alternativesOf(f, holds));
  if ('all' in filter !== holds) {
    const all = parts.flatMap((p) => p ?? []);
    return parts.includes(null) || all.length > MOST_ALTERNATIVES ? null : all;
  }
  let out: Literal[][] = [[]];
  for (const part of parts) {
    if (!part || out.length * part.length > MOST_ALTERNATIVES) return null;
    out = out.flatMap((a) => part.map((b) => [...a, ...b]));
  }
  return out;
}

/** Fields of which an entry has exactly one value. */
const SINGLE: readonly Condition['field'][] = ['calendar', 'kind', 'status'];

function clashes(literals: readonly Literal[]): boolean {
  return literals.some(({ condition: a, holds }, i) =>
    literals.slice(i + 1).some(({ condition: b, holds: other }) => {
      if (a.field !== b.field) return false;
      const same = JSON.stringify(plain(a)) === JSON.stringify(plain(b));
      if (same) return holds !== other;
      return holds && other && SINGLE.includes(a.field);
    }),
  );
}

function plain(condition: Condition): unknown {
  return { ...condition, value: plainText(condition.value.trim()) };
}
