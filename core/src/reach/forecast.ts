import { DAY, HOUR, MINUTE, type Instant } from '../zones';
import type { Habit } from './habit';
import { chanceAlive, waitingOf, type Prior, type Waiting } from './waiting';

/** When one subscriber is expected to look next, seen from an instant. */
export interface NextLook {
  /** The chance that it looks within a length of time, in milliseconds, from that instant on. */
  within(length: number): number;
  /** The length within which it looks with a chance, or null where it is not that likely to look at all. */
  by(chance: number): number | null;
  /** The chance that it looks again at all. */
  readonly ever: number;
}

/** Returns when a subscriber is expected to look next: the time that it has waited already is taken into account. */
export function nextLookOf(habit: Habit, now: Instant, prior?: Prior): NextLook {
  const waiting = waitingOf(habit, prior);
  const waited = Math.max(0, now - habit.last);
  const ever = chanceAlive(habit, waiting, now);
  const left = Math.max(waiting.longerThan(waited), TINY);
  return {
    ever,
    within: (length) => ever * (1 - waiting.longerThan(waited + length) / left),
    by: (chance) => (chance >= ever ? null : lengthBy(waiting, waited, left, chance / ever)),
  };
}

/** Nobody has waited longer than everybody. */
const TINY = 1e-9;

function lengthBy(waiting: Waiting, waited: number, left: number, chance: number): number {
  return Math.max(0, waiting.within(1 - left * (1 - chance)) - waited);
}

/** One of those who are to hold a revision. */
export interface Awaited {
  readonly habit: Habit;
  /** For how many readers it looks. */
  readonly readers: number;
  readonly holds: boolean;
}

/** What is expected of a revision, seen from an instant. Shares are of all readers that were given. */
export interface Forecast {
  readonly at: Instant;
  readonly readers: number;
  readonly curve: readonly { readonly after: number; readonly share: number }[];
  /** When half of them, and nine in ten, are expected to hold it; null for never. */
  readonly halfBy: Instant | null;
  readonly nineInTenBy: Instant | null;
  /** The readers who will probably never hold it. */
  readonly never: number;
}

/** The lengths at which a curve is told. */
export const CURVE: readonly number[] = [
  0,
  15 * MINUTE,
  30 * MINUTE,
  ...[1, 2, 3, 4, 6, 8, 10, 12, 15, 18, 21, 24, 30, 36, 48, 60, 72, 96, 120, 144, 168].map((h) => h * HOUR),
];

/** Who is less likely than this to look within a week probably never will. */
const PROBABLY = 0.5;

/** Returns what share of readers is expected to hold the newest revision, and when. */
export function forecastOf(awaited: readonly Awaited[], now: Instant, prior?: Prior): Forecast {
  const holding = new Array<number>(CURVE.length).fill(0);
  let [readers, never] = [0, 0];
  for (const { habit, readers: many, holds } of awaited) {
    readers += many;
    const next = holds ? null : nextLookOf(habit, now, prior);
    for (const [i, after] of CURVE.entries()) holding[i]! += many * (next ? next.within(after) : 1);
    if (next && next.within(7 * DAY) < PROBABLY) never += many;
  }
  const curve = CURVE.map((after, i) => ({ after, share: readers ? holding[i]! / readers : 0 }));
  return {
    at: now,
    readers,
    curve,
    halfBy: shareBy(curve, now, 0.5),
    nineInTenBy: shareBy(curve, now, 0.9),
    never,
  };
}

/** Returns when a curve gets to a share, between two of its lengths as if it rose evenly; null where it does not. */
function shareBy(curve: Forecast['curve'], at: Instant, share: number): Instant | null {
  const i = curve.findIndex((point) => point.share >= share);
  if (i < 0) return null;
  const [before, point] = [curve[i - 1], curve[i]!];
  if (!before) return at + point.after;
  const part = (share - before.share) / (point.share - before.share);
  return Math.round(at + before.after + part * (point.after - before.after));
}

/** Returns the share of a curve after a length of time, between two of its points as if it rose evenly. */
export function shareAfter(curve: Forecast['curve'], length: number): number {
  const i = curve.findIndex((point) => point.after >= length);
  if (i < 0) return curve.at(-1)!.share;
  const [before, point] = [curve[i - 1] ?? curve[i]!, curve[i]!];
  const part = point.after > before.after ? (length - before.after) / (point.after - before.after) : 0;
  return before.share + part * (point.share - before.share);
}
