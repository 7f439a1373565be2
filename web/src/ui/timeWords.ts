import { LOCALE } from '../texts/language';
import { t } from '../texts/times';
const [MINUTE, HOUR, DAY] = [60_000, 3_600_000, 86_400_000];

/** Returns a length of time in words, to two figures. */
export function lengthWords(length: number): string {
  if (length < 90_000) return t('seconds', { count: Math.max(1, Math.round(length / 1000)) });
  if (length < 59.5 * MINUTE) return t('minutes', { count: Math.round(length / MINUTE) });
  if (length < 36 * HOUR) return t('hours', { count: rounded(length / HOUR) });
  return t('days', { count: rounded(length / DAY) });
}

/** Rounds to halves below ten, and to whole numbers above. */
function rounded(value: number): number {
  return value < 10 ? Math.round(value * 2) / 2 : Math.round(value);
}

/** Returns a moment of today as its time, and of another day with its day. */
export function momentWords(at: string, now: number): string {
  const moment = new Date(at);
  const same = moment.toDateString() === new Date(now).toDateString();
  return moment.toLocaleString(
    LOCALE,
    same
      ? { timeStyle: 'short' }
      : { weekday: 'short', day: 'numeric', month: 'short', hour: '2-digit', minute: '2-digit' },
  );
}

/** Returns when something is expected, in words; what is past already has happened. */
export function byWords(at: string | null, now: number): string {
  if (at === null) return t('never');
  return Date.parse(at) <= now ? t('now') : t('by', { time: momentWords(at, now) });
}

export const percent = (share: number) => t('percent', { share: Math.round(share * 100) });

export const readersWords = (n: number) => t('readers', { count: n });
