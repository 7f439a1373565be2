import { DAY, HOUR, MINUTE, type Instant } from '../zones';
import { PLAIN, dueNext, type Program } from './program';
import { pick } from './random';

/** What has become of a follower, for one who knows its program. */
export type Truth = 'following' | 'late' | 'silent' | 'once';

/** One follower outside: what its program is, and when it asked. */
export interface Follower {
  readonly program: Program;
  readonly looks: readonly Instant[];
}

const ZONES = [
  'America/Halifax',
  'Europe/Lisbon',
  'Europe/Berlin',
  'Asia/Kolkata',
  'Pacific/Auckland',
  'America/Los_Angeles',
];

/** Returns a program as they are met outside: of many kinds, some with troubles. */
export function someProgram(random: () => number): Program {
  const zone = pick(random, ZONES);
  const between = (least: number, most: number) => least + random() * (most - least);
  const kind = random();
  const trouble = {
    jitter: pick(random, [0.002, 0.01, 0.03, 0.1]),
    misses: pick(random, [0, 0, 0, 0.02, 0.1]),
    retries: pick(random, [0, 0, 0, 0.03, 0.1]),
    restarts: pick(random, [0, 0, 0.1, 0.5]),
    drift: pick(random, [0, 0, 0, 0.005, -0.003]),
  };
  const base = { ...PLAIN, ...trouble };
  if (kind < 0.12) return { ...base, name: 'prompt', every: pick(random, [5, 10, 15, 20]) * MINUTE };
  if (kind < 0.34) return { ...base, name: 'hourly', every: pick(random, [1, 1, 1, 2]) * HOUR };
  if (kind < 0.5) return { ...base, name: 'few a day', every: pick(random, [4, 6, 8, 12]) * HOUR };
  if (kind < 0.66)
    return {
      ...base,
      name: 'daily',
      every: DAY,
      jitter: base.jitter / 10,
      at: { zone, time: Math.round(between(0, 24) * 60) * MINUTE },
    };
  if (kind < 0.74) return { ...base, name: 'daily, drifting', every: 24 * HOUR + between(0, 20) * MINUTE };
  if (kind < 0.88)
    return {
      ...base,
      name: 'by day only',
      every: pick(random, [15, 30, 60, 120]) * MINUTE,
      hours: { zone, from: Math.round(between(6, 9)), to: Math.round(between(17, 23)), workdays: false },
    };
  return {
    ...base,
    name: 'at work only',
    every: pick(random, [15, 30, 60]) * MINUTE,
    hours: { zone, from: Math.round(between(7, 9)), to: Math.round(between(16, 18)), workdays: true },
  };
}

/** Intervals, and the time at least, by which one is behind that is silent. */
const SILENT_AFTER = { intervals: 5, least: 3 * DAY } as const;
/** Intervals by which one is behind that is late: more than one look is missing. */
const LATE_AFTER = 1.5;

/** Returns what one who knows a follower's program says of it at an instant. */
export function truthOf({ program, looks }: Follower, now: Instant): Truth {
  if (program.once) return 'once';
  const behind = now - dueNext(program, looks.at(-1)!);
  const late = LATE_AFTER * program.every + program.jitter * program.every;
  if (behind > late + Math.max(SILENT_AFTER.intervals * program.every, SILENT_AFTER.least)) return 'silent';
  return behind > late ? 'late' : 'following';
}
