import { KINDS, STATUSES, plainText, wordsOf, type Content, type Kind, type Status } from '../entries';
import { Problem } from '../problems';
import { Budget } from '../work';
import { FILTER_LIMITS } from './limits';

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
  const filter = read(data, 0, { parts: 0 });
  const conditions = conditionsOf(filter);
  if (conditions.length > FILTER_LIMITS.conditions)
    wrong(`it has more than ${FILTER_LIMITS.conditions} conditions`);
  const words = conditions.flatMap((c) => (c.field === 'text' ? wordsOf(c.value) : []));
  if (words.length > FILTER_LIMITS.words) wrong(`it looks for more than ${FILTER_LIMITS.words} words`);
  return filter;
}

function wrong(reason: string): never {
  throw new Problem('filter-invalid', { reason });
}

function read(data: unknown, depth: number, seen: { parts: number }): Filter {
  if (typeof data !== 'object' || data === null || Array.isArray(data)) wrong('a part of it is no condition');
  if (depth > FILTER_LIMITS.depth) wrong(`its groups are nested more than ${FILTER_LIMITS.depth} deep`);
  // Groups count too, so that no one reads on in what is much too large.
  if (++seen.parts > 4 * FILTER_LIMITS.conditions)
    wrong(`it has more than ${FILTER_LIMITS.conditions} conditions`);
  const part = data as Record<string, unknown>;
  for (const group of ['all', 'any'] as const) {
    if (!Object.hasOwn(part, group)) continue;
    only(part, [group]);
    const of = part[group];
    if (!Array.isArray(of) || !of.length) wrong('a group of it is empty');
    const parts = of.map((p) => read(p, depth + 1, seen));
    return group === 'all' ? { all: parts } : { any: parts };
  }
  if (Object.hasOwn(part, 'not')) {
    only(part, ['not']);
    return { not: read(part['not'], depth + 1, seen) };
  }
  only(part, part['field'] === 'property' ? ['field', 'name', 'test', 'value'] : ['field', 'value']);
  return readCondition(part);
}

/** Nothing is kept that is not understood. */
function only(part: Readonly<Record<string, unknown>>, known: readonly string[]): void {
  const other = Object.keys(part).find((key) => !known.includes(key));
  if (other !== undefined) wrong(`it says “${other.slice(0, 40)}”, which means nothing there`);
}

function readCondition(part: Record<string, unknown>): Condition {
  const { field, value, name, test } = part;
  if (typeof value !== 'string' || !value.trim()) wrong('a condition has no value');
  if (value.length > FILTER_LIMITS.letters) wrong(`a value has more than ${FILTER_LIMITS.letters} letters`);
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
  const test = testOf(filter, new Set(gone), plainMemo());
  return (calendarId, content) => test(calendarId, content) === true;
}

function testOf(filter: Filter, gone: ReadonlySet<string>, plainOf: PlainOf): Test {
  if ('not' in filter) {
    const test = testOf(filter.not, gone, plainOf);
    return (id, content) => negated(test(id, content));
  }
  if ('all' in filter || 'any' in filter) {
    const every = 'all' in filter;
    const tests = (every ? filter.all : filter.any).map((f) => testOf(f, gone, plainOf));
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
  return conditionTest(filter, plainOf);
}

function negated(answer: boolean | null): boolean | null {
  return answer === null ? null : !answer;
}

/** The texts of content as they are compared, each made once and only where a condition asks for it. */
interface Plain {
  labels(): ReadonlySet<string>;
  people(): ReadonlySet<string>;
  texts(): readonly string[];
}
type PlainOf = (content: Content) => Plain;

function plainMemo(): PlainOf {
  const known = new WeakMap<Content, Plain>();
  return (content) => {
    let plain = known.get(content);
    if (!plain) known.set(content, (plain = plainOfContent(content)));
    return plain;
  };
}

function plainOfContent(c: Content): Plain {
  let [labels, people]: (ReadonlySet<string> | undefined)[] = [];
  let texts: readonly string[] | undefined;
  return {
    labels: () => (labels ??= new Set(c.labels.map(plainText))),
    people: () => (people ??= new Set(c.people.flatMap((p) => [plainText(p.name), plainText(p.address)]))),
    texts: () => (texts ??= [c.title, c.place, c.description].map(plainText)),
  };
}

function conditionTest(condition: Condition, plainOf: PlainOf): Test {
  if (condition.field === 'property') {
    const { name, test, value } = condition;
    return (_id, c) => c.properties.some((p) => p.name === name && compared(p.value, test, value));
  }
  const { field } = condition;
  if (field === 'calendar') return (id) => id === condition.value;
  if (field === 'kind') return (_id, c) => c.kind === condition.value;
  if (field === 'status') return (_id, c) => c.status === condition.value;
  const value = plainText(condition.value.trim());
  if (field === 'label') return (_id, c) => plainOf(c).labels().has(value);
  if (field === 'person') return (_id, c) => plainOf(c).people().has(value);
  const words = wordsOf(condition.value);
  return (_id, c) => {
    const texts = plainOf(c).texts();
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

/**
 * Returns whether a filter contradicts itself, so that no entry whatever can pass it. A filter with very many
 * alternatives is not looked through to the end; then it counts as possible.
 */
export function isContradictory(filter: Filter | null): boolean {
  if (!filter) return false;
  try {
    const budget = new Budget(FILTER_LIMITS.steps, 'the filter');
    return !possible(filter, true, [], numbering(), budget);
  } catch (error) {
    if (error instanceof Problem && error.code === 'too-much-work') return false;
    throw error;
  }
}

/** A condition that holds, or does not: its number, and its field and value where an entry has one value of the field. */
interface Literal {
  readonly id: number;
  readonly holds: boolean;
  readonly only: string | null;
}

/** Fields of which an entry has exactly one value. */
const SINGLE: readonly Condition['field'][] = ['calendar', 'kind', 'status'];

/** Returns a function that gives conditions that ask the same the same number. */
function numbering(): (condition: Condition, holds: boolean) => Literal {
  const ids = new Map<string, number>();
  return (condition, holds) => {
    const text = JSON.stringify({ ...condition, value: plainText(condition.value.trim()) });
    if (!ids.has(text)) ids.set(text, ids.size);
    return { id: ids.get(text)!, holds, only: SINGLE.includes(condition.field) ? condition.field : null };
  };
}

/** A way through the rest of a filter: what must still be, all of it. */
interface Wanted {
  readonly filter: Filter;
  readonly holds: boolean;
}

/** Returns whether some entry could pass: looks for one set of conditions that do not clash, the first way first. */
function possible(
  filter: Filter,
  holds: boolean,
  held: readonly Literal[],
  literal: ReturnType<typeof numbering>,
  budget: Budget,
  rest: readonly Wanted[] = [],
): boolean {
  budget.spend();
  const goOn = (next: readonly Literal[], wanted: readonly Wanted[]): boolean => {
    const [first, ...more] = wanted;
    return !first || possible(first.filter, first.holds, next, literal, budget, more);
  };
  if ('not' in filter) return possible(filter.not, !holds, held, literal, budget, rest);
  if ('all' in filter || 'any' in filter) {
    const parts = ('all' in filter ? filter.all : filter.any).map((part) => ({ filter: part, holds }));
    // What leaves no choice comes first, so that a clash is seen before the ways are tried out.
    const plain = parts.filter((p) => !isGroup(p.filter));
    const groups = parts.filter((p) => isGroup(p.filter));
    if ('all' in filter === holds) return goOn(held, [...plain, ...rest, ...groups]);
    return parts.some((part) => goOn(held, [part, ...rest]));
  }
  const own = literal(filter, holds);
  budget.spend(held.length);
  return !held.some((other) => clash(own, other)) && goOn([...held, own], rest);
}

function isGroup(filter: Filter): boolean {
  return 'all' in filter || 'any' in filter;
}

function clash(a: Literal, b: Literal): boolean {
  if (a.id === b.id) return a.holds !== b.holds;
  return a.only !== null && a.only === b.only && a.holds && b.holds;
}
