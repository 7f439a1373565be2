import type { WindowKey } from '@zonal/core/api';
import { keyState, type Glass } from '@zonal/core/glass';
import { isPassedOn } from '@zonal/core/reach';
import { DAY, dayAt, dayFromText, dayToText, instantOf, type ZoneName } from '@zonal/core/zones';
import { t } from '../texts/glass';
import { dayText } from '../texts/formWords';
import { AUDIENCE_WORDS, GLASS_WORDS } from '../texts/glassWords';

/** Returns the last day on which a key opens, on the host's clocks, as text; empty for no end. */
export function lastDayOf({ expiresAt }: Pick<WindowKey, 'expiresAt'>, hostZone: ZoneName): string {
  return expiresAt ? dayToText(dayAt(hostZone, Date.parse(expiresAt) - 1)) : '';
}

/** Returns the end of a day on the host's clocks, as the API takes it; null for no day. */
export function endOfDay(day: string, hostZone: ZoneName): string | null {
  return day ? new Date(instantOf(hostZone, (dayFromText(day) + 1) * DAY)).toISOString() : null;
}

/** Returns what a cap comes to in words. */
export function capWords(cap: Glass | null): string {
  return cap ? t('atMost', { glass: GLASS_WORDS[cap].word }) : t('asWindowShows');
}

/** Returns how many readers come with a key in a week, and whether that is far more than it was made out for. */
function readerWords({ readers, meantFor }: Pick<WindowKey, 'readers' | 'meantFor'>): string {
  const count = readers === 1 ? t('oneReaderWeek') : readers ? t('readersWeek', { count: readers }) : '';
  if (meantFor === null || !isPassedOn(readers, meantFor)) return count;
  return t('probablyShared', { readers: count, expected: meantFor });
}

/** Returns how a key stands, in words: for whom, how clearly, until when, and which addresses lead to it besides. */
export function keyWords(key: WindowKey, hostZone: ZoneName, now: number): string[] {
  const day = (at: string, back = 0) => dayText(dayAt(hostZone, Date.parse(at) - back));
  const { audience, cap, withdrawnAt, expiresAt, turned, fetchedAt } = key;
  const state = keyState(key, now);
  return [
    AUDIENCE_WORDS[audience].word,
    cap === 'shut' ? t('showsNothingColleague') : cap ? capWords(cap) : '',
    withdrawnAt
      ? t('withdrawnOn', { day: day(withdrawnAt) })
      : expiresAt
        ? t(state === 'ended' ? 'endedWith' : 'validToEnd', { day: day(expiresAt, 1) })
        : '',
    ...turned.slice(0, 1).map(({ until }) => t('formerAddressUntil', { day: day(until) })),
    fetchedAt ? t('lastUsed', { day: day(fetchedAt) }) : t('notUsedYet'),
    readerWords(key),
  ].filter(Boolean);
}
