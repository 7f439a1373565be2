import { DAY, type Instant } from '../zones';

/** A moment as an instant, as a date, or as the API tells it (ISO 8601); null for none. */
export type Moment = Instant | Date | string | null;

/** Moments from which on a key no longer opens. */
export interface Ending {
  readonly expiresAt: Moment;
  /** When it was withdrawn by hand. */
  readonly withdrawnAt?: Moment;
}

/** What is to end within so many milliseconds is said to end soon. */
export const SOON = 30 * DAY;

export type KeyState = 'open' | 'ends-soon' | 'ended';

/** Returns a moment as an instant; Infinity for none. */
export function at(moment: Moment): Instant {
  if (moment === null) return Infinity;
  return typeof moment === 'string' ? Date.parse(moment) : +moment;
}

/** Returns the instant from which on a key no longer opens; Infinity for never. */
export function endOf({ expiresAt, withdrawnAt = null }: Ending): Instant {
  return Math.min(at(expiresAt), at(withdrawnAt));
}

/** Returns whether a key that was withdrawn can be brought back still: for a day. */
export function canComeBack({ withdrawnAt = null }: Pick<Ending, 'withdrawnAt'>, now: Instant): boolean {
  return withdrawnAt !== null && now - at(withdrawnAt) <= DAY;
}

/** Returns whether a key opens at a moment, and whether it will do so for long. */
export function keyState(key: Ending, now: Instant): KeyState {
  const end = endOf(key);
  if (now >= end) return 'ended';
  return end - now < SOON ? 'ends-soon' : 'open';
}
