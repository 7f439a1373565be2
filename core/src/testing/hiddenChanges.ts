import fc from 'fast-check';
import {
  contentOf,
  cutSeries,
  instantOfWhen,
  lineageOf,
  slotsOf,
  wallOf,
  whenLike,
  type Content,
  type Entry,
  type Override,
  type When,
} from '../entries';
import { fieldsOfFilter, type Reader, type WindowRules } from '../glass';
import { DAY, HOUR } from '../zones';
import { RANGE, content, entryArbitrary, whenAt } from './arbitraries';
import { clearnessOf, fieldsSeen, type Clearness } from './policy';
import { HOST } from './samples';

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
 * and dates behind shut glass, the make-up of busy time, what lies outside the range, how a lineage is cut into
 * pieces, and the order of entries. What the filter asks of an entry that it decides on stays the same: a filter is a
 * disclosure by itself.
 */
export function changeHidden(
  entries: readonly Entry[],
  rules: WindowRules,
  reader: Reader,
  n: Noise,
  /** Whether what lies outside {@link RANGE} may change too, as the reader sees nothing of it. */
  beyondToo = true,
): Entry[] {
  const seen = (e: Pick<Entry, 'calendarId' | 'hold' | 'labels'>) => clearnessOf(e, rules, reader);
  const pick = (i: number, of: number) => (n.picks[i % n.picks.length]! + i) % of;
  const changed = entries.flatMap((e, i) => {
    const other = n.contents[pick(i, n.contents.length)]!;
    const clearness = seen(e);
    if (clearness === 0) {
      const labels = rules.labelHolds.length ? { labels: e.labels } : {};
      return pick(i, 3) === 0 ? [] : [{ ...e, ...other, ...labels, hold: e.hold, version: 9 }];
    }
    const outside = beyondToo ? beyond(e, pick(i, 5)) : e;
    if (clearness === 1) return changeFrosted(outside, other, rules, pick(i, 4));
    const pieces = cut(outside, beyondToo ? pick(i, 4) : 0, pick(i + 1, 20));
    return pieces.map((piece, k) =>
      changeVisible(piece, n.contents[pick(i + k, n.contents.length)]!, clearness, rules, seen, beyondToo),
    );
  });
  const hidden = n.strangers.flatMap((s, i) => stranger(s, pick(i, beyondToo ? 4 : 2)));
  const all = [...changed, ...hidden];
  const turn = all.length ? n.turn % all.length : 0;
  return [...all.slice(turn), ...all.slice(0, turn)];
}

/** Returns a lineage in pieces: cut where a date is, or deleted and written anew. Its dates stay the same. */
function cut(e: Entry, way: number, at: number): Entry[] {
  if (way === 0) return [{ ...e, id: `anew-${e.id}`, lineage: lineageOf(e) }];
  if (way > 2 || !e.recurrence) return [e];
  const slots = slotsOf(e, { from: RANGE.from - 60 * DAY, to: RANGE.to + 60 * DAY }, HOST);
  const slot = slots[at % Math.max(1, slots.length)];
  if (slot === undefined) return [e];
  const { before, from } = cutSeries(e, whenLike(e.start, slot));
  if (!before || !sameDates(e, [before, from])) return [e];
  return [before, { ...from, id: `later-${e.id}`, lineage: lineageOf(e) }];
}

/** A cut keeps the start of each piece as a date, also where the rule does not meet it: then it is no hidden change. */
function sameDates(e: Entry, pieces: readonly Entry[]): boolean {
  const range = { from: RANGE.from - 400 * DAY, to: RANGE.to + 400 * DAY };
  const whole = slotsOf(e, range, HOST);
  const parts = pieces.flatMap((p) => slotsOf(p, range, HOST)).sort((a, b) => a - b);
  return JSON.stringify(whole) === JSON.stringify(parts);
}

/** Moves what lies outside the range: ends beyond it, and the places that dates were moved in from. */
function beyond(e: Entry, days: number): Entry {
  const [from, to] = [instantOfWhen(e.start, HOST), instantOfWhen(e.end, HOST)];
  const moved = (when: When, by: number) => whenLike(when, wallOf(when) + by * DAY);
  const overrides = e.overrides.map((o): Override => {
    const at = instantOfWhen(o.slot, HOST);
    const far = at < RANGE.from - 60 * DAY ? -1 : at > RANGE.to + 60 * DAY ? 1 : 0;
    // Whole years keep the time of day; the place need not be one that the rule meets.
    return far ? { ...o, slot: moved(o.slot, far * days * 366) } : o;
  });
  const past = (instant: number) => instant < RANGE.from - DAY;
  const next = (instant: number) => instant > RANGE.to + DAY;
  if (e.recurrence) return { ...e, overrides };
  return {
    ...e,
    start: past(from) && to > RANGE.from ? moved(e.start, -days) : e.start,
    end: next(to) && from < RANGE.to ? moved(e.end, days) : e.end,
  };
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
  clearness: Clearness,
  rules: WindowRules,
  seen: (e: Pick<Entry, 'calendarId' | 'hold' | 'labels'>) => Clearness,
  beyondToo: boolean,
): Entry {
  const out = fieldsSeen(e.calendarId, clearness, rules);
  const keep = [...new Set<keyof Content>([...out, ...deciding(rules), 'kind'])];
  const disguise = (c: Content): Content => unseen(keeping(c, other, keep), beyondToo);
  const overrides = e.overrides.map((o) => {
    const own = seen({ ...e, hold: o.content.hold, labels: o.content.labels });
    // A date that is kept in may say anything but what holds it back.
    if (own === 0) {
      const held: (keyof Content)[] = rules.labelHolds.length ? ['hold', 'labels'] : ['hold'];
      return { ...o, content: keeping(o.content, other, held) };
    }
    if (own === 1) return { ...o, content: keeping(o.content, other, deciding(rules)) };
    return { ...o, content: disguise(o.content) };
  });
  return {
    ...e,
    ...disguise(contentOf(e)),
    uid: 'another',
    version: 3,
    recurrence: e.recurrence && {
      ...e.recurrence,
      rule: beyondToo ? sameWithinRange(e.recurrence.rule) : e.recurrence.rule,
    },
    overrides,
  };
}

/** Changes what is in the fields that go out, but shows in no form. */
function unseen(c: Content, beyondToo: boolean): Content {
  return {
    ...c,
    people: c.people.map((p) => ({ ...p, group: !p.group })),
    publicLink: c.publicLink.startsWith('javascript') ? 'javascript:alert(2)' : c.publicLink,
    title: c.title && `${c.title}\u0007`,
    planned:
      beyondToo && c.planned && outsideRange(c.planned)
        ? whenLike(c.planned, wallOf(c.planned) - 400 * DAY)
        : c.planned,
  };
}

function outsideRange(when: When): boolean {
  const at = instantOfWhen(when, HOST);
  return at < RANGE.from;
}

/**
 * Returns an entry of three dates in the range, each of which says everything itself, and the same with another
 * hidden master: other content, other length.
 */
export const hiddenMaster: fc.Arbitrary<readonly [Entry, Entry]> = fc
  .record({
    own: content,
    other: content,
    dates: fc.array(content, { minLength: 3, maxLength: 3 }),
    hour: fc.integer({ min: 0, max: 23 }),
    moved: fc.array(fc.constantFrom(0, 0, 1, 30), { minLength: 3, maxLength: 3 }),
    longer: fc.integer({ min: 1, max: 5 }),
  })
  .map(({ own, other, dates, hour, moved, longer }) => {
    const at = (hours: number): When =>
      whenAt({ kind: 'zoned', zone: HOST }, Date.UTC(2026, 5, 1) + hours * HOUR);
    const overrides = dates.map((said, i): Override => {
      const start = hour + i * 24 + moved[i]!;
      return {
        slot: at(hour + i * 24),
        start: at(start),
        end: at(start + 1),
        content: { ...said, kind: 'event', planned: null, hold: said.hold === 'frost' ? 'none' : said.hold },
      };
    });
    const entry = (c: Content, hours: number, labels: readonly string[]): Entry => ({
      ...c,
      kind: 'event',
      planned: null,
      hold: 'none',
      labels,
      id: 'fully-overridden',
      calendarId: 'a',
      version: 1,
      uid: 'u',
      start: at(hour),
      end: at(hour + hours),
      recurrence: { rule: 'FREQ=DAILY;COUNT=3', dates: [], exceptDates: [] },
      overrides,
    });
    return [entry(own, 1, own.labels), entry(other, longer, own.labels)] as const;
  });

/** An endless rule looks the same as one that ends after the range. */
function sameWithinRange(rule: string): string {
  if (!rule || /COUNT|UNTIL/.test(rule)) return rule;
  return `${rule};UNTIL=${new Date(RANGE.to + 40 * DAY).toISOString().slice(0, 10).replace(/-/g, '')}`;
}
