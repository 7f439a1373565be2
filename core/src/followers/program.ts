import {
  DAY,
  HOUR,
  MINUTE,
  dayAt,
  dayOfWall,
  instantOf,
  wallAt,
  weekdayOf,
  type Instant,
  type ZoneName,
} from '../zones';

/** When a program runs at all: some hours of some days, by the clocks of its reader. */
export interface Hours {
  readonly zone: ZoneName;
  /** Hours of the day, 0 to 24; it starts at the first and ends at the second. */
  readonly from: number;
  readonly to: number;
  /** Whether it rests on Saturdays and Sundays. */
  readonly workdays: boolean;
}

/** How a program outside looks for what is new. Lengths in milliseconds. */
export interface Program {
  readonly name: string;
  /** From one look to the next; with `at` it looks once a day at a time of the clock instead. */
  readonly every: number;
  /** How much a look is off, at most, as a share of `every`. */
  readonly jitter: number;
  /** Null for one that runs all the time. */
  readonly hours: Hours | null;
  /** The time of the day, in milliseconds, at which it looks, by the clocks of a zone. */
  readonly at: { readonly zone: ZoneName; readonly time: number } | null;
  /** The chance that it misses a look, as its network is away. */
  readonly misses: number;
  /** The chance that it asks again and again after a look, as what came was cut off. */
  readonly retries: number;
  /** How often a day it is started anew, and looks at once. */
  readonly restarts: number;
  /** By how much of itself its interval grows in a day. */
  readonly drift: number;
  /** Whether it reads the address once, as a file, and never again. */
  readonly once: boolean;
}

/** A program with nothing odd: it looks every hour. */
export const PLAIN: Program = {
  name: 'hourly',
  every: HOUR,
  jitter: 0.02,
  hours: null,
  at: null,
  misses: 0,
  retries: 0,
  restarts: 0,
  drift: 0,
  once: false,
};

/** Returns when a program that looked at an instant means to look next: as its schedule has it, with nothing in the way. */
export function dueNext({ every, at, hours }: Program, looked: Instant): Instant {
  if (at) {
    const day = dayOfWall(wallAt(at.zone, looked));
    const same = instantOf(at.zone, day * DAY + at.time);
    // Shortly before its time it has looked for that day already.
    return same > looked + HOUR ? same : instantOf(at.zone, (day + 1) * DAY + at.time);
  }
  const next = looked + every;
  return hours ? awakeFrom(hours, next) : next;
}

/** Returns the first instant from one on at which a program runs. */
function awakeFrom({ zone, from, to, workdays }: Hours, instant: Instant): Instant {
  let day = dayAt(zone, instant);
  const time = wallAt(zone, instant) - day * DAY;
  const runs = (on: number) => !workdays || weekdayOf(on) < 5;
  if (runs(day) && time >= from * HOUR && time < to * HOUR) return instant;
  if (!runs(day) || time >= to * HOUR)
    do day += 1;
    while (!runs(day));
  return instantOf(zone, day * DAY + from * HOUR);
}

/** Returns when a program that looked at an instant looks next: with its jitter, and where it is started anew before. */
export function nextLook(program: Program, looked: Instant, random: () => number): Instant {
  const off = (random() * 2 - 1) * program.jitter * program.every;
  const next = Math.max(dueNext(program, looked) + off, looked + MINUTE / 2);
  const restarts = program.restarts * ((next - looked) / DAY);
  return Math.round(random() < restarts ? looked + random() * (next - looked) : next);
}

/** Returns when a program asks, from one instant to before another, in their order. */
export function looksOf(program: Program, from: Instant, to: Instant, random: () => number): Instant[] {
  const looks: Instant[] = [];
  const ask = (at: Instant) => {
    looks.push(at);
    if (random() >= program.retries) return;
    // Again after a moment, and then after longer and longer ones.
    const times = 1 + Math.floor(random() * 4);
    for (let i = 0, wait = 2_000 + random() * 20_000; i < times; i++, wait *= 2)
      looks.push(looks.at(-1)! + wait);
  };
  if (program.once) {
    ask(from);
    return looks.filter((at) => at < to);
  }
  let now = program.at || program.hours ? dueNext(program, from - program.every) : from;
  if (now < from) now = dueNext(program, from);
  while (now < to) {
    if (random() >= program.misses) ask(now);
    const every = program.every * (1 + (program.drift * (now - from)) / DAY);
    now = nextLook({ ...program, every }, now, random);
  }
  return looks.filter((at) => at < to).sort((a, b) => a - b);
}
