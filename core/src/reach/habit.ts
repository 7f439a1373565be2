import { DAY, HOUR, MINUTE, SECOND, weekdayOf, type Instant } from '../zones';

/*
 * What is known of when one subscriber looks. It is made of nothing but the instants of its polls, one after the other, and
 * stays small however many they are.
 */

/** What a subscriber's polls say of its habit. Times are in milliseconds; it is plain data. */
export interface Habit {
  readonly first: Instant;
  /** When the last look began; polls shortly after it are the same look. */
  readonly look: Instant;
  /** The last poll of all. */
  readonly last: Instant;
  readonly polls: number;
  readonly looks: number;
  /** Lengths between the last looks, the newest last. */
  readonly recent: readonly number[];
  /** How often each length was met after a look in each part of the week; see {@link cellOf}. Older ones count less. */
  readonly gaps: Readonly<Record<string, number>>;
  /** How often it looked in each hour of the week; see {@link hourOf}. */
  readonly met: Readonly<Record<string, number>>;
  /** When what is older was last made to count less. */
  readonly aged: Instant;
}

/** Lengths are told apart by steps of 2^(1/16), some four per cent, from half a minute to half a year. */
const SHORTEST = MINUTE / 2;
const PER_DOUBLING = 16;
export const BINS = 19 * PER_DOUBLING;

/** Returns the step that a length is in. */
export function binOf(length: number): number {
  const bin = Math.floor(Math.log2(length / SHORTEST) * PER_DOUBLING);
  return Math.max(0, Math.min(BINS - 1, bin));
}

/** Returns the length at which a step begins. */
export function edgeOf(bin: number): number {
  return SHORTEST * 2 ** (bin / PER_DOUBLING);
}

/** Parts of a week in UTC: eight of a day, on Mondays to Thursdays, Fridays, Saturdays and Sundays. */
export const PARTS = 32;
const PART = 3 * HOUR;

/** Returns the part of the week of an instant: 0 to 31. */
export function partOf(instant: Instant): number {
  return pieceOf(instant, PART);
}

/** Returns the hour of the week of an instant, of such kinds of days: 0 to 95. */
export function hourOf(instant: Instant): number {
  return pieceOf(instant, HOUR);
}

function pieceOf(instant: Instant, length: number): number {
  const day = Math.floor(instant / DAY);
  const kind = Math.max(0, weekdayOf(day) - 3);
  return kind * (DAY / length) + Math.floor((instant - day * DAY) / length);
}

/** Returns the name under which lengths of one step, after looks in one part of the week, are counted. */
export function cellOf(part: number, bin: number): number {
  return part * BINS + bin;
}

/** Returns the part of the week of such a name. */
export function partOfCell(cell: number): number {
  return Math.floor(cell / BINS);
}

/** So many of the last lengths are kept as they are. */
const RECENT = 24;
/** Polls that follow a look within the least of these, or the share of the usual length, ask for the same again. */
const BURST = { least: 90 * SECOND, share: 0.2, most: 15 * MINUTE };
/** What is a week older counts so much. */
const AGEING = { every: 7 * DAY, share: 0.7, least: 0.05 };

/** Returns the usual length from one look to the next, or null before there are two of them. */
export function intervalOf({ recent }: Pick<Habit, 'recent'>): number | null {
  if (!recent.length) return null;
  const sorted = [...recent].sort((a, b) => a - b);
  return sorted[Math.floor((sorted.length - 1) / 2)]!;
}

/** Returns what is known after more polls, in their order, none of which is earlier than those before; null for none at all. */
export function habitAfter(habit: Habit | null, polls: readonly Instant[]): Habit | null {
  if (!polls.length) return habit;
  const [first] = polls;
  // It is copied once, and changed by each poll.
  const known: Draft = habit
    ? { ...habit, recent: [...habit.recent], gaps: { ...habit.gaps }, met: { ...habit.met } }
    : {
        ...{ first: first!, look: first!, last: first!, polls: 0, looks: 1, aged: first! },
        ...{ recent: [], gaps: {}, met: { [hourOf(first!)]: 1 } },
      };
  for (const at of polls) take(known, at);
  return known;
}

type Draft = { -readonly [K in keyof Habit]: Habit[K] } & {
  recent: number[];
  gaps: Record<string, number>;
  met: Record<string, number>;
};

function take(known: Draft, at: Instant): void {
  known.polls++;
  known.last = Math.max(known.last, at);
  const gap = at - known.look;
  const usual = intervalOf(known);
  const burst = usual === null ? 0 : Math.min(BURST.share * usual, BURST.most);
  if (gap < Math.max(BURST.least, burst)) return;
  age(known, at);
  count(known.gaps, cellOf(partOf(known.look), binOf(gap)));
  count(known.met, hourOf(at));
  known.recent.push(gap);
  if (known.recent.length > RECENT) known.recent.shift();
  known.look = at;
  known.looks++;
}

function count(counts: Record<string, number>, cell: number): void {
  counts[cell] = (counts[cell] ?? 0) + 1;
}

function age(known: Draft, at: Instant): void {
  const times = Math.floor((at - known.aged) / AGEING.every);
  if (times < 1) return;
  const share = AGEING.share ** times;
  known.gaps = lessOf(known.gaps, share);
  known.met = lessOf(known.met, share);
  known.aged += times * AGEING.every;
}

function lessOf(counts: Readonly<Record<string, number>>, share: number): Record<string, number> {
  const less: Record<string, number> = {};
  for (const [cell, number] of Object.entries(counts))
    if (number * share >= AGEING.least) less[cell] = Math.round(number * share * 1000) / 1000;
  return less;
}
