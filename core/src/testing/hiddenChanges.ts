import fc from 'fast-check';
import { contentOf, wallOf, type Content, type Entry } from '../entries';
import {
  effectiveGlass,
  fieldsOfFilter,
  fieldsOfSource,
  limitsFor,
  type Glass,
  type Reader,
  type WindowRules,
} from '../glass';
import { DAY } from '../zones';
import { RANGE, content, entryArbitrary, whenAt } from './arbitraries';

/** Random material for changing an inside where the reader may not look. */
export interface Noise {
  readonly contents: readonly Content[];
  readonly strangers: readonly Entry[];
  readonly picks: readonly number[];
  readonly turn: number;
}

export const noise: fc.Arbitrary<Noise> = fc.record({
  contents: fc.array(content, { minLength: 6, maxLength: 6 }),
  strangers: fc.array(entryArbitrary, { minLength: 1, maxLength: 3 }),
  picks: fc.array(fc.nat(1000), { minLength: 8, maxLength: 8 }),
  turn: fc.nat(7),
});

/** What is looked at in deciding whether and how an entry is shown, besides what goes out: it must stay the same. */
function deciding(rules: WindowRules): (keyof Content)[] {
  return [
    'status',
    'shows',
    'hold',
    ...fieldsOfFilter(rules.filter),
    ...(rules.labelHolds.length ? LABELLED : []),
  ];
}
const LABELLED: readonly (keyof Content)[] = ['labels'];

/** Returns `other` with the given fields of `own`. */
function keeping(own: Content, other: Content, fields: readonly (keyof Content)[]): Content {
  return { ...other, ...Object.fromEntries(fields.map((f) => [f, own[f]])) };
}

/**
 * Returns another inside that differs from the given one only in what a reader may not see: hidden fields, entries
 * and dates behind shut glass, the make-up of busy time, what lies outside the range, and the order of entries. What
 * the filter asks of an entry that it decides on stays the same: a filter is a disclosure by itself.
 */
export function changeHidden(
  entries: readonly Entry[],
  rules: WindowRules,
  reader: Reader,
  n: Noise,
): Entry[] {
  const glassOf = (e: Pick<Entry, 'calendarId' | 'hold' | 'labels'>): Glass =>
    effectiveGlass(limitsFor(e, rules, reader)).glass;
  const pick = (i: number, of: number) => (n.picks[i % n.picks.length]! + i) % of;
  const changed = entries.flatMap((e, i) => {
    const other = n.contents[pick(i, n.contents.length)]!;
    const glass = glassOf(e);
    if (glass === 'shut') {
      const labels = rules.labelHolds.length ? { labels: e.labels } : {};
      return pick(i, 3) === 0 ? [] : [{ ...e, ...other, ...labels, hold: e.hold, version: 9 }];
    }
    if (glass === 'frosted') return changeFrosted(e, other, rules, pick(i, 4));
    return [changeVisible(e, other, glass, rules, glassOf)];
  });
  const hidden = n.strangers.flatMap((s, i) => stranger(s, pick(i, 4)));
  const all = [...changed, ...hidden];
  const turn = all.length ? n.turn % all.length : 0;
  return [...all.slice(turn), ...all.slice(0, turn)];
}

/** Entries of the window's calendars that a reader cannot see at all. */
function stranger(entry: Entry, way: number): Entry[] {
  const plain: Entry = { ...entry, recurrence: null, overrides: [] };
  switch (way) {
    case 0:
      return [{ ...entry, calendarId: 'c' }];
    case 1:
      return [{ ...entry, hold: 'keep-in', overrides: entry.overrides }];
    case 2: {
      // Far outside the range on either side.
      const wall = wallOf(plain.start) - 5 * 366 * DAY;
      return [{ ...plain, start: whenAtLike(plain, wall), end: whenAtLike(plain, wall + DAY) }];
    }
    default:
      return [];
  }
}

function whenAtLike({ start }: Entry, wall: number) {
  return whenAt({ kind: start.kind, zone: start.kind === 'zoned' ? start.zone : '' }, wall);
}

/** Behind frosted glass only the union of busy time may be told: everything that it is made of can change. */
function changeFrosted(e: Entry, other: Content, rules: WindowRules, way: number): Entry[] {
  const keep = deciding(rules);
  const disguised: Entry = {
    ...e,
    ...keeping(e, other, keep),
    id: `other-${e.id}`,
    uid: 'another',
    version: 5,
    overrides: e.overrides.map((o) => ({ ...o, content: keeping(o.content, other, keep) })),
  };
  const within = { ...disguised, id: `within-${e.id}` };
  if (way === 0) return [disguised, within];
  if (way === 1) return [disguised, { ...within, shows: 'free', overrides: [] }];
  if (way === 2) return [disguised, { ...within, status: 'cancelled', overrides: [] }];
  return [disguised];
}

/** Changes the fields that do not go through the glass; overrides that then differ in nothing visible come and go. */
function changeVisible(
  e: Entry,
  other: Content,
  glass: Glass,
  rules: WindowRules,
  glassOf: (e: Pick<Entry, 'calendarId' | 'hold' | 'labels'>) => Glass,
): Entry {
  const source = rules.sources.find((s) => s.calendarId === e.calendarId)!;
  const out = fieldsOfSource(source, glass, rules);
  const keep = [...new Set<keyof Content>([...out, ...deciding(rules), 'kind'])];
  const disguise = (c: Content): Content => keeping(c, other, keep);
  const overrides = e.overrides.map((o) => {
    const own = glassOf({ ...e, hold: o.content.hold, labels: o.content.labels });
    // A date that is kept in may say anything but what holds it back.
    if (own === 'shut') {
      const held: (keyof Content)[] = rules.labelHolds.length ? ['hold', 'labels'] : ['hold'];
      return { ...o, content: keeping(o.content, other, held) };
    }
    if (own === 'frosted') return { ...o, content: keeping(o.content, other, deciding(rules)) };
    return { ...o, content: disguise(o.content) };
  });
  return {
    ...e,
    ...disguise(contentOf(e)),
    uid: 'another',
    version: 3,
    recurrence: e.recurrence && { ...e.recurrence, rule: sameWithinRange(e.recurrence.rule) },
    overrides,
  };
}

/** An endless rule looks the same as one that ends after the range. */
function sameWithinRange(rule: string): string {
  if (/COUNT|UNTIL/.test(rule)) return rule;
  return `${rule};UNTIL=${new Date(RANGE.to + 40 * DAY).toISOString().slice(0, 10).replace(/-/g, '')}`;
}
