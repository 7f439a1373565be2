const [MINUTE, HOUR, DAY] = [60_000, 3_600_000, 86_400_000];

/** Returns a length of time in words, to two figures. */
export function lengthWords(length: number): string {
  if (length < 90_000) return `${Math.max(1, Math.round(length / 1000))} s`;
  if (length < 59.5 * MINUTE) return `${Math.round(length / MINUTE)} min`;
  if (length < 36 * HOUR) return `${figure(length / HOUR)} h`;
  const days = figure(length / DAY);
  return days === '1' ? '1 day' : `${days} days`;
}

function figure(value: number): string {
  return String(value < 10 ? Math.round(value * 2) / 2 : Math.round(value));
}

/** Returns a moment of today as its time, and of another day with its day. */
export function momentWords(at: string, now: number): string {
  const moment = new Date(at);
  const same = moment.toDateString() === new Date(now).toDateString();
  return moment.toLocaleString(
    'en-GB',
    same
      ? { timeStyle: 'short' }
      : { weekday: 'short', day: 'numeric', month: 'short', hour: '2-digit', minute: '2-digit' },
  );
}

/** Returns when something is expected, in words; what is past already has happened. */
export function byWords(at: string | null, now: number): string {
  if (at === null) return 'probably never';
  return Date.parse(at) <= now ? 'now' : `by ${momentWords(at, now)}`;
}

export const percent = (share: number) => `${Math.round(share * 100)} %`;

export const readersWords = (n: number) => `${n} ${n === 1 ? 'reader' : 'readers'}`;
