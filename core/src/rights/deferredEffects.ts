import type { Deed } from './rights';

/**
 * What acts later than somebody asked for it, with what its author must still be allowed to do at the moment when it acts;
 * null if it is enough that the author's account is active. What acts within a call, such as a staged edit that is applied or
 * taken back, is checked with that call (see {@link CALL_RIGHTS}).
 */
export const DEFERRED_EFFECTS = {
  /** A draft that publishes itself at a time: for all calendars that the window shows and would show. */
  'scheduled-draft': 'publish',
  /** Changes that are pushed to a system outside: for all calendars of the window. */
  push: 'publish',
  /** A mail to the readers of a window: for all its calendars. */
  announcement: 'publish',
  /** An address on a link sheet: for a calendar of its window. */
  'link-sheet': 'see-windows',
  /** A mail about a window to somebody who looks after it: for one of its calendars. */
  alert: 'see-windows',
  /** A mail about a request to somebody who may answer it: for its calendar. */
  'access-request': 'people',
  /** A mail to a steward about a request for a higher ceiling. */
  'ceiling-request': 'run-house',
  /** A mail with the answer to such a request: for its calendar. */
  'ceiling-reply': 'ask-ceiling',
  /** An invitation that is accepted. */
  invitation: 'run-house',
  /** Access that is granted to whoever asked for it. */
  'granted-access': null,
  /** An address in a mail that works once. */
  'one-time-link': null,
} as const satisfies Readonly<Record<string, Deed | null>>;
export type DeferredEffect = keyof typeof DEFERRED_EFFECTS;
