import type { Instant } from '../zones';
import { SOON, at, endOf, publicAddressEnd, type Ending, type Moment, type PublicAddress } from './keyState';

/** What somebody finds behind an address: entries, nothing but when time is taken, or nothing at all. */
export type ShowsBehind = 'entries' | 'busy' | 'nothing';

/** All that decides whether an address of a window works for whoever is given it. */
export interface LinkState extends PublicAddress {
  /** When its key ends; null where it is the address that a listed window has for everybody. */
  readonly key: Ending | null;
  readonly closedAt: Moment;
  readonly closesAt: Moment;
  /** Whether readers get nothing because it cannot be worked out. */
  readonly stopped: boolean;
  /** Null where it is not worked out yet. */
  readonly shows: ShowsBehind | null;
}

/** With these an address leads nowhere. */
const DEAD = ['withdrawn', 'ended', 'closed', 'unlisted', 'stopped'] as const;
/** With these it works, and there is something to know before it is handed out. */
const TO_KNOW = ['busy-only', 'shows-nothing', 'ends-soon', 'closes-soon'] as const;

export type LinkNote = (typeof DEAD)[number] | (typeof TO_KNOW)[number];

/** Returns what is to be known of an address before it is handed out, most pressing first. */
export function checkLink(link: LinkState, now: Instant): LinkNote[] {
  const { key, stopped, shows } = link;
  const end = key === null ? publicAddressEnd(link) : endOf(key);
  const [closed, closes] = [at(link.closedAt), at(link.closesAt)];
  const isClosed = Math.min(closed, closes) <= now;
  const withdrawn = key !== null && at(key.withdrawnAt ?? null) <= now;
  const ended = key !== null && end <= now;
  const dead: Readonly<Record<(typeof DEAD)[number], boolean>> = {
    withdrawn,
    ended: ended && !withdrawn,
    closed: isClosed,
    unlisted: key === null && end <= now,
    stopped: stopped && !isClosed,
  };
  const found = DEAD.filter((note) => dead[note]);
  if (found.length) return found;
  const toKnow: Readonly<Record<(typeof TO_KNOW)[number], boolean>> = {
    'busy-only': shows === 'busy',
    'shows-nothing': shows === 'nothing',
    'ends-soon': end - now < SOON,
    'closes-soon': closes - now < SOON,
  };
  return TO_KNOW.filter((note) => toKnow[note]);
}

/** Returns whether an address with these notes leads somewhere. */
export function leadsOn(notes: readonly LinkNote[]): boolean {
  return !notes.some((note) => (DEAD as readonly LinkNote[]).includes(note));
}
