import { HOUR, MINUTE, type Instant } from '../zones';
import { BINS, PARTS, binOf, edgeOf, intervalOf, partOf, partOfCell, type Habit } from './habit';

/**
 * How long a subscriber waits from its last look to the next one, as a renewal process has it: the lengths that were met,
 * those after looks at a like time of the week counting most, and a few of others' while it has few of its own.
 */
export interface Waiting {
  /** The chance that it waits longer than a length in milliseconds: 1 at none, falling. */
  longerThan(length: number): number;
  /** The length that it waits no longer than with a chance from 0 to below 1. */
  within(chance: number): number;
}

/** How much a length counts that was met after a look at another time of the week. */
const LIKE = { same: 1, besides: 0.3, otherDay: 0.25, other: 0.05 };

const likeness: readonly (readonly number[])[] = Array.from({ length: PARTS }, (_, a) =>
  Array.from({ length: PARTS }, (_, b) => {
    const apart = Math.abs((a % 8) - (b % 8));
    const sameDay = a >> 3 === b >> 3;
    if (apart === 0) return sameDay ? LIKE.same : LIKE.otherDay;
    return (apart === 1 || apart === 7) && sameDay ? LIKE.besides : LIKE.other;
  }),
);

/** Lengths between looks as they are met of all subscribers: shares by step, which sum to 1. */
export type Prior = readonly number[];

/** Lengths that programs are made with, and nights; for while there are no subscribers to learn from. */
const USUAL: readonly (readonly [length: number, share: number])[] = [
  [15 * MINUTE, 0.1],
  [30 * MINUTE, 0.1],
  [HOUR, 0.25],
  [2 * HOUR, 0.08],
  [4 * HOUR, 0.1],
  [8 * HOUR, 0.07],
  [12 * HOUR, 0.08],
  [24 * HOUR, 0.2],
  [72 * HOUR, 0.02],
];
/** Steps by which lengths differ from a usual one, on either side. */
const SPREAD = 8;

export const USUAL_PRIOR: Prior = spread(USUAL.map(([length, share]) => [binOf(length), share]));

/** Returns shares by step of lengths with some doubt about each. */
function spread(told: readonly (readonly [bin: number, share: number])[]): number[] {
  const shares = new Array<number>(BINS).fill(0);
  let sum = 0;
  for (const [bin, share] of told)
    for (let by = -SPREAD; by <= SPREAD; by++) {
      const at = bin + by;
      if (at < 0 || at >= BINS) continue;
      const part = share * (SPREAD + 1 - Math.abs(by));
      shares[at]! += part;
      sum += part;
    }
  return shares.map((share) => share / sum);
}

/** Returns what is met of many subscribers, each of whom counts as one. */
export function priorOf(habits: readonly Habit[]): Prior {
  const shares = new Array<number>(BINS).fill(0);
  let known = 0;
  for (const { gaps } of habits) {
    const counts = Object.entries(gaps);
    const sum = counts.reduce((total, [, count]) => total + count, 0);
    if (sum < KNOWN) continue;
    known++;
    for (const [cell, count] of counts) shares[Number(cell) % BINS]! += count / sum;
  }
  // A few stand for programs of which none has come yet.
  return shares.map((share, bin) => (share + USUAL_PRIOR[bin]! * STILL) / (known + STILL));
}

/** Fewer lengths of one subscriber say nothing of others. */
const KNOWN = 5;
const STILL = 4;

/** How much others' lengths count beside one's own: less once there are some. */
const OTHERS = { first: 1.2, later: 0.25, enough: 12 };
/** Where a length of its own is usual, others' are met as multiples of it. */
const MULTIPLES: readonly (readonly [by: number, share: number])[] = [
  [0.5, 0.05],
  [1, 0.7],
  [2, 0.12],
  [3, 0.05],
  [5, 0.04],
  [12, 0.04],
];

/** Returns how long a subscriber waits after its last look, without what it has waited already. */
export function waitingOf(habit: Habit, prior: Prior = USUAL_PRIOR): Waiting {
  // State and forecast of one subscriber ask for the same.
  const last = lastOf.get(habit);
  if (last?.prior === prior) return last.waiting;
  const waiting = newWaiting(habit, prior);
  lastOf.set(habit, { prior, waiting });
  return waiting;
}

const lastOf = new WeakMap<Habit, { readonly prior: Prior; readonly waiting: Waiting }>();

function newWaiting(habit: Habit, prior: Prior): Waiting {
  const weights = new Float64Array(BINS);
  const like = likeness[partOf(habit.look)]!;
  let own = 0;
  for (const [cell, count] of Object.entries(habit.gaps)) {
    const at = Number(cell);
    const weight = count * like[partOfCell(at)]!;
    weights[at % BINS]! += weight;
    own += weight;
  }
  const seen = habit.recent.length;
  const others = OTHERS.later + (OTHERS.first - OTHERS.later) * Math.max(0, 1 - seen / OTHERS.enough);
  // What was met counts as often as it was met, also where all of it was at other times of the week.
  const scale = own ? Math.min(seen, Math.max(own, 3)) / own : 0;
  for (let bin = 0; bin < BINS; bin++) weights[bin]! *= scale;
  const usual = intervalOf(habit);
  const near = usual === null ? null : multiplesOf(usual);
  for (let bin = 0; bin < BINS; bin++)
    weights[bin]! += others * (near ? 0.6 * near[bin]! + 0.4 * prior[bin]! : prior[bin]!);
  return new Steps(weights, habit.recent);
}

const known = new Map<number, readonly number[]>();

function multiplesOf(usual: number): readonly number[] {
  const bin = binOf(usual);
  let shares = known.get(bin);
  if (!shares) {
    shares = spread(MULTIPLES.map(([by, share]) => [binOf(edgeOf(bin) * by), share]));
    known.set(bin, shares);
  }
  return shares;
}

/** Lengths of one step are taken as they were met where some of them are known exactly, else as even. */
const EXACT = 3;

class Steps implements Waiting {
  private readonly beyond: Float64Array;
  private readonly exact = new Map<number, number[]>();

  constructor(weights: Float64Array, recent: readonly number[]) {
    const sum = weights.reduce((total, weight) => total + weight, 0);
    // The chance of a length of this step or a longer one.
    this.beyond = new Float64Array(BINS + 1);
    for (let bin = BINS - 1; bin >= 0; bin--) this.beyond[bin] = this.beyond[bin + 1]! + weights[bin]! / sum;
    for (const length of recent) {
      const bin = binOf(length);
      const same = this.exact.get(bin);
      if (same) same.push(length);
      else this.exact.set(bin, [length]);
    }
    for (const [bin, lengths] of this.exact)
      if (lengths.length < EXACT) this.exact.delete(bin);
      else lengths.sort((a, b) => a - b);
  }

  longerThan(length: number): number {
    if (length < edgeOf(0)) return 1;
    const bin = binOf(length);
    const [here, next] = [this.beyond[bin]!, this.beyond[bin + 1]!];
    return next + (here - next) * (1 - this.passed(bin, length));
  }

  /** The share of the lengths of a step that are no longer than one in it. */
  private passed(bin: number, length: number): number {
    const lengths = this.exact.get(bin);
    if (!lengths) return Math.min(1, (length - edgeOf(bin)) / (edgeOf(bin + 1) - edgeOf(bin)));
    // As if one more lay beyond the longest of them.
    return lengths.filter((one) => one <= length).length / (lengths.length + 1);
  }

  within(chance: number): number {
    let [low, high] = [0, BINS];
    while (low < high) {
      const middle = (low + high) >> 1;
      if (this.beyond[middle + 1]! <= 1 - chance) high = middle;
      else low = middle + 1;
    }
    const bin = Math.min(low, BINS - 1);
    const [here, next] = [this.beyond[bin]!, this.beyond[bin + 1]!];
    const share = here > next ? (here - (1 - chance)) / (here - next) : 0;
    const lengths = this.exact.get(bin);
    if (!lengths) return edgeOf(bin) + share * (edgeOf(bin + 1) - edgeOf(bin));
    return lengths[Math.min(lengths.length - 1, Math.floor(share * (lengths.length + 1)))]!;
  }
}

/** How likely it is that a subscriber has stopped at its last look, before anything was waited. */
const STOPS = 0.005;
/** One of whom one look is known has often come only once. */
const STOPS_AT_FIRST = 0.35;

/** Returns the chance that a subscriber still looks, after the time that it has waited by an instant. */
export function chanceAlive(habit: Habit, waiting: Waiting, now: Instant): number {
  const stops = habit.looks === 1 ? STOPS_AT_FIRST : habit.looks < 4 ? STOPS * 6 : STOPS;
  const waits = waiting.longerThan(Math.max(0, now - habit.last));
  return ((1 - stops) * waits) / ((1 - stops) * waits + stops);
}
