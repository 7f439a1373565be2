import type { Instant } from '../zones';

/** The moment from which on a key no longer opens: an instant, or as the API tells it (ISO 8601); null for never. */
export interface Ending {
  readonly expiresAt: Instant | string | null;
}

/** What is to end within so many milliseconds is said to end soon. */
export const SOON = 30 * 86_400_000;

export type KeyState = 'open' | 'ends-soon' | 'ended';

/** Returns the instant from which on a key no longer opens; Infinity for never. */
export function endOf({ expiresAt }: Ending): Instant {
  if (expiresAt === null) return Infinity;
  return typeof expiresAt === 'string' ? Date.parse(expiresAt) : expiresAt;
}

/** Returns whether a key opens at a moment, and whether it will do so for long. */
export function keyState(key: Ending, now: Instant): KeyState {
  const end = endOf(key);
  if (now >= end) return 'ended';
  return end - now < SOON ? 'ends-soon' : 'open';
}
