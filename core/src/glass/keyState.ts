import type { Instant } from '../zones';

/** A moment as an instant, as a date, or as the API tells it (ISO 8601); null for none. */
type Moment = Instant | Date | string | null;

/** Moments from which on a key no longer opens. */
export interface Ending {
  readonly expiresAt: Moment;
  /** When it was withdrawn by hand. */
  readonly withdrawnAt?: Moment;
}

/** What is to end within so many milliseconds is said to end soon. */
export const SOON = 30 * 86_400_000;

export type KeyState = 'open' | 'ends-soon' | 'ended';

/** Returns the instant from which on a key no longer opens; Infinity for never. */
export function endOf({ expiresAt, withdrawnAt = null }: Ending): Instant {
  const at = (moment: Moment) => {
    if (moment === null) return Infinity;
    return typeof moment === 'string' ? Date.parse(moment) : +moment;
  };
  return Math.min(at(expiresAt), at(withdrawnAt));
}

/** For so long a key that was withdrawn can be brought back. */
export const BRING_BACK = 86_400_000;

/** Returns whether a key opens at a moment, and whether it will do so for long. */
export function keyState(key: Ending, now: Instant): KeyState {
  const end = endOf(key);
  if (now >= end) return 'ended';
  return end - now < SOON ? 'ends-soon' : 'open';
}
