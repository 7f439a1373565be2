import { DAY, HOUR, type Instant } from '../zones';
import { hourOf, intervalOf, type Habit } from './habit';
import { waitingOf, type Prior } from './waiting';

/** What becomes of a subscriber, with the rule of each in words. The first that fits is it. */
export const SUBSCRIBER_STATES = {
  once: 'Polled at most three times, all within an hour, and not again for two days: like the import of a file.',
  silent:
    'Has not polled for five of its intervals, and at least three days, longer than it takes to be late: it has probably stopped.',
  late: 'Has not polled for one and a half of its intervals longer than usual at this time of the week, pauses included.',
  due: 'Does not have the latest revision yet, and should poll within its usual time.',
  'in-step': 'Has the latest revision and polls as usual.',
} as const;

export type SubscriberState = keyof typeof SUBSCRIBER_STATES;

const ONCE = { looks: 3, within: HOUR, silence: 2 * DAY };
/** Longer than this share of its lengths it usually does not wait. */
const USUALLY = 0.97;
const LATE_INTERVALS = 1.5;
const SILENT = { intervals: 5, least: 3 * DAY };
/** Of one look alone no interval is known. */
const UNKNOWN_INTERVAL = DAY;

/** Until when a subscriber is not late, and until when it is not silent. */
export interface Deadlines {
  readonly late: Instant;
  readonly silent: Instant;
}

/** Returns from when on a subscriber is late, and silent, if it does not look before. */
export function deadlinesOf(habit: Habit, prior?: Prior): Deadlines {
  const interval = intervalOf(habit) ?? UNKNOWN_INTERVAL;
  const usual = habit.last + waitingOf(habit, prior).within(USUALLY) + LATE_INTERVALS * interval;
  const late = Math.max(usual, awakeFor(habit, interval));
  return { late, silent: late + Math.max(SILENT.intervals * interval, SILENT.least) };
}

/** Of longer intervals the hours at which somebody looks say nothing. */
const SHORT = 4 * HOUR;
/** A night, or what lies between two weeks of work with some hours to spare. */
const LONGEST_PAUSE = 80 * HOUR;
/** One that has begun within an hour may end within it. */
const WITHIN_HOUR = HOUR / 2;

/**
 * Returns when a subscriber has been awake for some time since its last look: time counts in those hours of the week in
 * which it was met before. One that was met around the clock is always awake.
 */
function awakeFor({ met, last }: Habit, interval: number): Instant {
  if (interval > SHORT) return last;
  // Between two looks every hour counts.
  const reach = Math.ceil(interval / HOUR);
  const awake = new Set<number>();
  for (const hour of Object.keys(met))
    for (let by = 0; by < reach; by++)
      awake.add(24 * Math.floor(Number(hour) / 24) + ((Number(hour) + by) % 24));
  if (new Set([...awake].map((hour) => hour % 24)).size === 24) return last;
  let [at, left, paused] = [last, (1 + LATE_INTERVALS) * interval + WITHIN_HOUR, 0];
  while (left > 0) {
    const end = (Math.floor(at / HOUR) + 1) * HOUR;
    if (awake.has(hourOf(at)) || paused >= LONGEST_PAUSE) {
      const spent = Math.min(left, end - at);
      left -= spent;
      at += spent;
    } else {
      paused += end - at;
      at = end;
    }
  }
  return at;
}

/** Returns the state of a subscriber at an instant; `holds` says whether it has the newest revision. */
export function stateOf(habit: Habit, holds: boolean, now: Instant, prior?: Prior): SubscriberState {
  const { looks, first, last } = habit;
  if (looks <= ONCE.looks && last - first <= ONCE.within && now - last >= ONCE.silence) return 'once';
  const { late, silent } = deadlinesOf(habit, prior);
  if (now >= silent) return 'silent';
  if (now >= late) return 'late';
  return holds ? 'in-step' : 'due';
}
