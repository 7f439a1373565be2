import {
  clockChanges,
  dayOfWall,
  instantOf,
  meetingOf,
  timeOfWall,
  wallAt,
  type Day,
  type Instant,
  type Meeting,
  type Wall,
  type ZoneName,
} from '../zones';
import { occurrencesOf, type Occurrence, type Range } from './occurrences';
import type { Entry } from './entry';
import { wallOf, type When } from './when';

/** A clock reading of an entry that does not occur, or occurs twice, and what is made of it. */
export interface OddTime {
  readonly end: 'start' | 'end';
  readonly meeting: Exclude<Meeting, 'once'>;
  readonly when: When;
  /** The instant that counts, and what clocks show at it. */
  readonly instant: Instant;
  readonly shown: Wall;
}

/** Returns the ends of an occurrence that fall into a clock change of their zone (RFC 5545 section 3.3.5). */
export function oddTimesOf({ start, end }: Pick<Occurrence, 'start' | 'end'>): OddTime[] {
  const out: OddTime[] = [];
  for (const [name, when] of [
    ['start', start],
    ['end', end],
  ] as const) {
    if (when.kind !== 'zoned') continue;
    const wall = wallOf(when);
    const meeting = meetingOf(when.zone, wall);
    if (meeting === 'once') continue;
    const instant = instantOf(when.zone, wall);
    out.push({ end: name, meeting, when, instant, shown: wallAt(when.zone, instant) });
  }
  return out;
}

/** A stretch in which a series keeps one time of day on a reader's clocks. */
export interface Phase {
  /** Days on the reader's clocks: first and last date of the stretch. */
  readonly first: Day;
  readonly last: Day;
  /** Time of day on the reader's clocks, in milliseconds. */
  readonly time: number;
}

/**
 * Returns when a series takes place on a reader's clocks within a range, as stretches of one time of day each: a new
 * one begins where the clocks of either zone change. Dates that were changed by themselves are left out, as are
 * whole days, floating times and further times of the same day; what is left empty has nothing to tell.
 */
export function phasesFor(entry: Entry, range: Range, reader: ZoneName, hostZone: ZoneName): Phase[] {
  if (entry.start.kind !== 'zoned' || !entry.recurrence) return [];
  const usual = timeOfWall(wallOf(entry.start));
  const out: { first: Day; last: Day; time: number }[] = [];
  for (const one of occurrencesOf(entry, range, hostZone)) {
    if (one.overridden || timeOfWall(wallOf(one.start)) !== usual) continue;
    const wall = wallAt(reader, one.from);
    const [day, time] = [dayOfWall(wall), timeOfWall(wall)];
    const open = out.at(-1);
    if (open?.time === time) open.last = day;
    else out.push({ first: day, last: day, time });
  }
  return out;
}

/** Returns the clock changes of two zones in a range at which the distance between them becomes another. */
export function driftsBetween(
  a: ZoneName,
  b: ZoneName,
  range: Range,
): { at: Instant; zone: ZoneName; distance: number }[] {
  const distance = (at: Instant) => wallAt(b, at) - wallAt(a, at);
  const changes = [a, b].flatMap((zone) =>
    clockChanges(zone, range.from, range.to).map(({ at }) => ({ at, zone })),
  );
  return changes
    .sort((x, y) => x.at - y.at)
    .filter(({ at }, i, all) => all.findIndex((c) => c.at === at) === i && distance(at) !== distance(at - 1))
    .map(({ at, zone }) => ({ at, zone, distance: distance(at) }));
}
