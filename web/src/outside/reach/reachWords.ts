import type { ReachCounts, ReachSubscriber } from '@zonal/core/api';
import { lengthWords } from '../../ui/timeWords';
import { type PollForm, type SubscriberState } from '@zonal/core/reach';
import { t } from '../../texts/outside';
import { SUBSCRIBER_STATES } from '../../texts/subscriberWords';

/** States from good to bad, with the words for each. */
export const STATE_ORDER = [
  'in-step',
  'due',
  'late',
  'silent',
  'once',
] as const satisfies readonly SubscriberState[];

export const STATE_WORDS: Readonly<Record<SubscriberState, string>> = {
  'in-step': t('inStep'),
  due: t('due'),
  late: t('late'),
  silent: t('silent'),
  once: t('oneTime'),
};

export const STATE_RULES = SUBSCRIBER_STATES;

export const FORM_WORDS: Readonly<Record<PollForm, string>> = {
  feed: t('feed'),
  freeBusy: t('freeBusy'),
  jCal: 'jCal',
  table: t('table'),
  changes: t('atomFeed'),
  difference: t('changesOnly'),
  dav: 'CalDAV',
};

const COUNT_MESSAGES = {
  'in-step': 'countInStep',
  due: 'countDue',
  late: 'countLate',
  silent: 'countSilent',
  once: 'countOneTime',
} as const satisfies Readonly<Record<SubscriberState, string>>;

const HOUR = 3_600_000;
const DAY = 24 * HOUR;

/** Returns how often a subscriber looks, in words. */
export function rhythmWords({ interval, looks }: Pick<ReachSubscriber, 'interval' | 'looks'>): string {
  if (interval === null || looks < 2) return t('notKnownYet');
  const length = lengthWords(interval);
  if (length === lengthWords(HOUR)) return t('everyHour');
  return length === lengthWords(DAY) ? t('everyDay') : t('everyLength', { length });
}

export function agoWords(at: string, now: number): string {
  return t('ago', { length: lengthWords(Math.max(0, now - Date.parse(at))) });
}

/** Returns what a subscriber holds, in words. */
export function heldWords({ revision, behind }: Pick<ReachSubscriber, 'revision' | 'behind'>): string {
  if (revision === null) return t('notKnown');
  if (behind === 0) return t('revisionNewest', { revision });
  return t('revisionBehind', { revision, count: behind ?? 0 });
}

/** Returns counts by state in words, leaving out those with nobody. */
export function countWords(counts: ReachCounts): string {
  const parts = STATE_ORDER.filter((s) => counts[s]).map((s) => t(COUNT_MESSAGES[s], { count: counts[s] }));
  return parts.join(', ') || t('nobodyFollowsKey');
}
