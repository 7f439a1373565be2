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

/** Days for which the public address of a window may go on after the window is unlisted, and the default. */
export const PUBLIC_ADDRESS_GRACE_DAYS = [0, 7, 14, 30, 90] as const;
export const DEFAULT_PUBLIC_ADDRESS_GRACE_DAYS = 14;

/** A window's public address: it works while the window is listed, and then until `publicUntil`. */
export interface PublicAddress {
  readonly listed: boolean;
  /** When it ends or ended; null if the window is listed or never was. */
  readonly publicUntil: Moment;
}

/** Returns the instant at which a window's public address ends: Infinity while it is listed, -Infinity if it never was. */
export function publicAddressEnd({ listed, publicUntil }: PublicAddress): Instant {
  if (listed) return Infinity;
  return publicUntil === null ? -Infinity : at(publicUntil);
}

/** Returns when a window was unlisted and when its public address ends, after it is published at `now`; nulls for never. */
export function listingAfter(
  before: (PublicAddress & { readonly unlistedAt: Moment }) | null,
  { listed, publicGraceDays }: { readonly listed: boolean; readonly publicGraceDays: number },
  now: Instant,
): { readonly unlistedAt: Instant | null; readonly publicUntil: Instant | null } {
  const unlistedAt = before?.listed ? now : at(before?.unlistedAt ?? null);
  if (listed || unlistedAt === Infinity) return { unlistedAt: null, publicUntil: null };
  return { unlistedAt, publicUntil: unlistedAt + publicGraceDays * DAY };
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
