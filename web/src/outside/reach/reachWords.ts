import type { ReachCounts, ReachSubscriber } from '@zonal/core/api';
import { lengthWords } from '../../ui/timeWords';
import { SUBSCRIBER_STATES, type PollForm, type SubscriberState } from '@zonal/core/reach';

/** States from good to bad, with the words for each. */
export const STATE_ORDER = [
  'in-step',
  'due',
  'late',
  'silent',
  'once',
] as const satisfies readonly SubscriberState[];

export const STATE_WORDS: Readonly<Record<SubscriberState, string>> = {
  'in-step': 'in step',
  due: 'due',
  late: 'late',
  silent: 'silent',
  once: 'looks like a one-time import',
};

export const STATE_RULES = SUBSCRIBER_STATES;

export const FORM_WORDS: Readonly<Record<PollForm, string>> = {
  feed: 'feed',
  freeBusy: 'free/busy',
  jCal: 'jCal',
  table: 'table',
  changes: 'Atom feed',
  difference: 'feed, changes only',
  dav: 'CalDAV',
};

const EVERY: Readonly<Record<string, string>> = {
  '1 h': 'every hour',
  '24 h': 'every day',
  '1 day': 'every day',
};

/** Returns how often a subscriber looks, in words. */
export function rhythmWords({ interval, looks }: Pick<ReachSubscriber, 'interval' | 'looks'>): string {
  if (interval === null || looks < 2) return 'not known yet';
  const length = lengthWords(interval);
  return EVERY[length] ?? `every ${length}`;
}

export function agoWords(at: string, now: number): string {
  return `${lengthWords(Math.max(0, now - Date.parse(at)))} ago`;
}

/** Returns what a subscriber holds, in words. */
export function heldWords({ revision, behind }: Pick<ReachSubscriber, 'revision' | 'behind'>): string {
  if (revision === null) return 'not known';
  if (behind === 0) return `${revision}, the newest`;
  return `${revision}, ${behind} ${behind === 1 ? 'change' : 'changes'} behind`;
}

/** Returns counts by state in words, leaving out those with nobody. */
export function countWords(counts: ReachCounts): string {
  const told = STATE_ORDER.filter((s) => counts[s]).map((s) => `${counts[s]} ${STATE_WORDS[s]}`);
  return told.join(', ') || 'nobody follows yet';
}
