import { DAY, type Instant } from '../zones';
import { nextLookOf } from './forecast';
import { intervalOf, type Habit } from './habit';
import { stateOf, type SubscriberState } from './state';
import type { Prior } from './waiting';

/** Who was not met for so long is no subscriber any more: it has gone, or comes as somebody else. */
export const COUNTED_FOR = 60 * DAY;

/** How a subscriber stands at an instant. */
export interface Standing {
  readonly state: SubscriberState;
  /** Usual time between its looks, in milliseconds; null while it is not known. */
  readonly interval: number | null;
  /** When it is as likely as not to have looked again, and when nine in ten; null where it probably never will. */
  readonly nextBy: Instant | null;
  readonly nineInTenBy: Instant | null;
}

/** Returns how a subscriber stands at an instant; `holds` says whether it has the newest revision. */
export function standingOf(habit: Habit, holds: boolean, now: Instant, prior?: Prior): Standing {
  const next = nextLookOf(habit, now, prior);
  const at = (chance: number) => {
    const length = next.by(chance);
    return length === null ? null : Math.round(now + length);
  };
  return {
    state: stateOf(habit, holds, now, prior),
    interval: intervalOf(habit),
    nextBy: at(0.5),
    nineInTenBy: at(0.9),
  };
}

/** Who is less likely than this to look before a moment is said not to know in time. */
const IN_TIME = 0.5;

/** Returns the chance that a subscriber looks before a moment, and whether that is too little to count on. */
export function knowsBy(
  habit: Habit,
  now: Instant,
  moment: Instant,
  prior?: Prior,
): { chance: number; late: boolean } {
  const chance = moment <= now ? 0 : nextLookOf(habit, now, prior).within(moment - now);
  return { chance, late: chance < IN_TIME };
}

/** A revision as it spread: how many readers got it within which step of the curve. */
export interface Spread {
  readonly step: number;
  readonly readers: number;
}

/**
 * Returns the share of readers that held a revision at each length of a curve, up to how long ago it was made: `steps` are
 * counts by step, of as many readers as its forecast was of. Lengths that are not over yet are left out.
 */
export function spreadCurve(
  steps: readonly Spread[],
  readers: number,
  curve: readonly number[],
  age: number,
): { readonly after: number; readonly share: number }[] {
  let reached = 0;
  const out: { after: number; share: number }[] = [];
  for (const [step, after] of curve.entries()) {
    if (after > age) break;
    reached += steps.filter((s) => s.step === step).reduce((sum, s) => sum + s.readers, 0);
    // Those who came since are more than it was made for.
    out.push({ after, share: readers ? Math.min(1, reached / readers) : 0 });
  }
  return out;
}
