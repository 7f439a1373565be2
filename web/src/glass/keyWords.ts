import type { WindowKey } from '@zonal/core/api';
import { AUDIENCE_WORDS, GLASS_WORDS, keyState, type Glass } from '@zonal/core/glass';
import { isPassedOn } from '@zonal/core/reach';
import { dayText } from '@zonal/core/forms';
import { DAY, dayAt, dayFromText, dayToText, instantOf, type ZoneName } from '@zonal/core/zones';

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
  return cap ? `at most ${GLASS_WORDS[cap].word}` : 'as the window shows it';
}

/** Returns how many readers come with a key in a week, and whether that is far more than it was made out for. */
function readerWords({ readers, meantFor }: Pick<WindowKey, 'readers' | 'meantFor'>): string {
  const count = readers === 1 ? 'one reader in a week' : readers ? `${readers} readers in a week` : '';
  if (!isPassedOn(readers, meantFor)) return count;
  return `${count}, made out for ${meantFor}: it was probably passed on`;
}

/** Returns how a key stands, in words: for whom, how clearly, until when, and which addresses lead to it besides. */
export function keyWords(key: WindowKey, hostZone: ZoneName, now: number): string[] {
  const day = (at: string, back = 0) => dayText(dayAt(hostZone, Date.parse(at) - back));
  const { audience, cap, withdrawnAt, expiresAt, turned, fetchedAt } = key;
  const state = keyState(key, now);
  return [
    AUDIENCE_WORDS[audience].word,
    cap === 'shut' ? 'shows nothing, as its colleague may see nothing of it' : cap ? capWords(cap) : '',
    withdrawnAt
      ? `withdrawn on ${day(withdrawnAt)}`
      : expiresAt
        ? `${state === 'ended' ? 'ended with' : 'open to the end of'} ${day(expiresAt, 1)}`
        : '',
    ...turned.slice(0, 1).map(({ until }) => `the address before leads here until ${day(until)}`),
    fetchedAt ? `last used ${day(fetchedAt)}` : 'not used yet',
    readerWords(key),
  ].filter(Boolean);
}
