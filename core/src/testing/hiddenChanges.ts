import fc from 'fast-check';
import { contentOf, wallOf, type Content, type Entry } from '../entries';
import { atLeast, effectiveGlass, limitsFor, type Glass, type Reader, type WindowRules } from '../glass';
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

/**
 * Returns another inside that differs from the given one only in what a reader may not see: hidden fields, entries
 * and dates behind shut glass, the make-up of busy time, what lies outside the range, and the order of entries.
 */
export function changeHidden(
  entries: readonly Entry[],
  rules: WindowRules,
  reader: Reader,
  n: Noise,
): Entry[] {
  const glassOf = (e: Pick<Entry, 'calendarId' | 'hold'>): Glass =>
    effectiveGlass(limitsFor(e, rules, reader)).glass;
  const pick = (i: number, of: number) => (n.picks[i % n.picks.length]! + i) % of;
  const changed = entries.flatMap((e, i) => {
    const other = n.contents[pick(i, n.contents.length)]!;
    const glass = glassOf(e);
    if (glass === 'shut') return pick(i, 3) === 0 ? [] : [{ ...e, ...other, hold: e.hold, version: 9 }];
    if (glass === 'frosted') return changeFrosted(e, other, pick(i, 4));
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
function changeFrosted(e: Entry, other: Content, way: number): Entry[] {
  const keep = { status: e.status, shows: e.shows, hold: e.hold } as const;
  const disguised: Entry = {
    ...e,
    ...other,
    ...keep,
    id: `other-${e.id}`,
    uid: 'another',
    version: 5,
    overrides: e.overrides.map((o) => ({
      ...o,
      content: { ...other, status: o.content.status, shows: o.content.shows, hold: o.content.hold },
    })),
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
  glassOf: (e: Pick<Entry, 'calendarId' | 'hold'>) => Glass,
): Entry {
  const clear = atLeast(glass, 'clear');
  const disguise = (c: Content): Content => ({
    ...c,
    kept: other.kept,
    ...(clear
      ? {}
      : {
          description: other.description,
          publicLink: other.publicLink,
          labels: other.labels,
          attachments: other.attachments,
          properties: other.properties,
        }),
    ...(clear && rules.switches.joinLink ? {} : { joinLink: other.joinLink }),
    ...(clear && rules.switches.people ? {} : { people: other.people }),
    ...(clear && rules.switches.contact ? {} : { contact: other.contact }),
  });
  const overrides = e.overrides.map((o) => {
    const hold = glassOf({ ...e, hold: o.content.hold });
    // A date that is kept in may stand anywhere and say anything.
    if (hold === 'shut') return { ...o, content: { ...other, hold: o.content.hold } };
    if (hold === 'frosted') {
      return {
        ...o,
        content: { ...other, status: o.content.status, shows: o.content.shows, hold: o.content.hold },
      };
    }
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
