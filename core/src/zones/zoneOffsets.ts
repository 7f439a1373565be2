import { Temporal } from 'temporal-polyfill';
import {
  DAY,
  dayFromParts,
  dayOfWall,
  instantOfUtc,
  partsOfDay,
  weekdayOf,
  type Day,
  type Instant,
  type Wall,
} from './wall';
import type { ZoneName } from './zoneNames';

/** One clock change: from `at` (an instant) on, clocks show UTC plus `offset` milliseconds. */
export interface ClockChange {
  readonly at: Instant;
  readonly before: number;
  readonly offset: number;
}

/** The part of a zone's history that was looked up so far; it grows at both ends when asked. */
interface Known {
  from: Instant;
  to: Instant;
  /** Offset in force at `from`. */
  first: number;
  changes: ClockChange[];
  /** Index of the change found last: neighbouring questions are the usual ones. */
  hint: number;
}

const STEP = 3653 * DAY;
/** One table a zone; zones have one name each, so there are some hundreds at most. */
const tables = new Map<ZoneName, Known>();

/** Before this no zone's clocks changed; asking for more would only take time. */
const EARLIEST = dayFromParts(1800, 1, 1) * DAY;
/** From here on clocks go by rules that depend on nothing but the calendar of the year. */
const FAR_YEAR = 2132;
const FAR = dayFromParts(FAR_YEAR, 1, 1) * DAY;
/** The 28 years before hold every calendar that a year can have. */
const NEAR_YEAR = FAR_YEAR - 28;

/**
 * Returns by how much an instant or a clock reading of a far year has to be moved back to stand in a near year of the
 * same calendar: the same weekdays, the same length. Tables so never reach beyond, whatever is asked.
 */
function backFrom(ms: number): number {
  if (ms < FAR) return 0;
  const { year } = partsOfDay(Math.floor(ms / DAY));
  const first = dayFromParts(year, 1, 1);
  const [weekday, length] = [weekdayOf(first), dayFromParts(year + 1, 1, 1) - first];
  for (let near = NEAR_YEAR; near < FAR_YEAR; near++) {
    const day = dayFromParts(near, 1, 1);
    if (weekdayOf(day) === weekday && dayFromParts(near + 1, 1, 1) - day === length)
      return (first - day) * DAY;
  }
  return 0;
}

/** Returns the milliseconds that clocks in the zone are ahead of UTC at an instant. */
export function offsetAt(zone: ZoneName, instant: Instant): number {
  if (zone === 'UTC') return 0;
  if (instant >= FAR) return offsetAt(zone, instant - backFrom(instant));
  const known = tableFor(zone, instant, instant);
  const i = indexBefore(known, instant);
  return i < 0 ? known.first : known.changes[i]!.offset;
}

/** Returns the day that clocks in a zone show at an instant. */
export function dayAt(zone: ZoneName, instant: Instant): Day {
  return dayOfWall(wallAt(zone, instant));
}

/** Returns what clocks in the zone show at an instant. */
export function wallAt(zone: ZoneName, instant: Instant): Wall {
  return instant + offsetAt(zone, instant);
}

/** How a clock reading meets a zone: once, never (clocks jumped over it) or twice (clocks went back). */
export type Meeting = 'once' | 'never' | 'twice';

/**
 * Returns the instant at which clocks in the zone show a reading, as RFC 5545 section 3.3.5 says:
 * a reading that is jumped over is taken with the offset before the jump; of two, the first counts.
 */
export function instantOf(zone: ZoneName, wall: Wall): Instant {
  if (zone === 'UTC') return instantOfUtc(wall);
  if (wall >= FAR + DAY) {
    const back = backFrom(wall);
    return instantOf(zone, wall - back) + back;
  }
  const known = tableFor(zone, wall - DAY, wall + DAY);
  return instantBy(known, wall, indexBefore(known, wall - DAY));
}

/** Clocks as they go over some time: the offset at its beginning, and each change in order. */
export interface Clocks {
  readonly first: number;
  readonly changes: readonly ClockChange[];
}

/** Returns the offset that clocks show at an instant. */
export function offsetBy({ first, changes }: Clocks, instant: Instant): number {
  return changes.findLast((c) => c.at <= instant)?.offset ?? first;
}

/** Returns the same as {@link instantOf} for clocks that are told; changes up to index `from` lie well before. */
export function instantBy({ first, changes }: Clocks, wall: Wall, from = -1): Instant {
  let offset = from < 0 ? first : changes[from]!.offset;
  for (let k = from + 1; k < changes.length; k++) {
    const change = changes[k]!;
    // Still the old offset when the reading comes before the change by the old clock,
    // or lies in the jump that the change makes.
    if (wall < change.at + Math.max(change.before, change.offset)) break;
    offset = change.offset;
  }
  return wall - offset;
}

/** Returns whether a clock reading occurs once, never or twice in the zone. */
export function meetingOf(zone: ZoneName, wall: Wall): Meeting {
  if (zone === 'UTC') return 'once';
  if (wall >= FAR + 3 * DAY) return meetingOf(zone, wall - backFrom(wall));
  const known = tableFor(zone, wall - 2 * DAY, wall + 2 * DAY);
  for (let i = Math.max(0, indexBefore(known, wall - 2 * DAY)); i < known.changes.length; i++) {
    const change = known.changes[i]!;
    if (change.at >= wall + 2 * DAY) break;
    const low = change.at + Math.min(change.before, change.offset);
    const high = change.at + Math.max(change.before, change.offset);
    if (wall >= low && wall < high) return change.offset > change.before ? 'never' : 'twice';
  }
  return 'once';
}

/** Returns the clock changes of a zone with `from <= at < to`, in order of time. */
export function clockChanges(zone: ZoneName, from: Instant, to: Instant): ClockChange[] {
  if (zone === 'UTC' || from >= to) return [];
  const near = from < FAR ? tableFor(zone, from, Math.min(to, FAR)).changes : [];
  const out = near.filter((c) => c.at >= from && c.at < Math.min(to, FAR));
  if (to <= FAR) return out;
  const last = partsOfDay(Math.floor(to / DAY)).year;
  for (let { year } = partsOfDay(Math.floor(Math.max(from, FAR) / DAY)); year <= last; year++) {
    const start = dayFromParts(year, 1, 1) * DAY;
    const back = backFrom(start);
    const length = dayFromParts(year + 1, 1, 1) * DAY - start;
    for (const change of clockChanges(zone, start - back, start - back + length)) {
      const at = change.at + back;
      if (at >= from && at < to) out.push({ ...change, at });
    }
  }
  return out;
}

/** Returns the first clock change after an instant, or null when none is foreseen in ten years. */
export function nextClockChange(zone: ZoneName, instant: Instant): ClockChange | null {
  return clockChanges(zone, instant + 1, instant + STEP)[0] ?? null;
}

/** The table covers what is asked for, as far as it lies between {@link EARLIEST} and a little after {@link FAR}. */
function tableFor(zone: ZoneName, from: Instant, to: Instant): Known {
  let known = tables.get(zone);
  const [first, last] = [Math.max(from, EARLIEST), Math.min(to, FAR + 7 * DAY)];
  if (known && first >= known.from && last < known.to) return known;
  const low = Math.max(EARLIEST, Math.min(first - 366 * DAY, known?.from ?? Infinity));
  const high = Math.min(FAR + 8 * DAY, Math.max(last + STEP, known?.to ?? -Infinity));
  known = known ? widen(zone, known, low, high) : lookUp(zone, low, high);
  tables.set(zone, known);
  return known;
}

function widen(zone: ZoneName, known: Known, low: Instant, high: Instant): Known {
  const before = low < known.from ? lookUp(zone, low, known.from) : null;
  const after = high > known.to ? lookUp(zone, known.to, high) : null;
  return {
    from: before?.from ?? known.from,
    to: after?.to ?? known.to,
    first: before?.first ?? known.first,
    changes: [...(before?.changes ?? []), ...known.changes, ...(after?.changes ?? [])],
    hint: 0,
  };
}

function lookUp(zone: ZoneName, from: Instant, to: Instant): Known {
  let at = Temporal.Instant.fromEpochMilliseconds(Math.floor(from) - 1).toZonedDateTimeISO(zone);
  const changes: ClockChange[] = [];
  for (;;) {
    const next = at.getTimeZoneTransition('next');
    if (!next || next.epochMilliseconds >= to) break;
    const [before, offset] = [msOffset(at), msOffset(next)];
    if (next.epochMilliseconds >= from && before !== offset) {
      changes.push({ at: next.epochMilliseconds, before, offset });
    }
    at = next;
  }
  const start = Temporal.Instant.fromEpochMilliseconds(Math.floor(from) - 1).toZonedDateTimeISO(zone);
  return { from, to, first: msOffset(start), changes, hint: 0 };
}

function msOffset(at: Temporal.ZonedDateTime): number {
  return Math.round(at.offsetNanoseconds / 1e6);
}

/** Returns the index of the last change at or before an instant, or -1. */
function indexBefore(known: Known, instant: Instant): number {
  const { changes } = known;
  const { hint } = known;
  const near = changes[hint];
  if (near && near.at <= instant && (changes[hint + 1]?.at ?? Infinity) > instant) return hint;
  let low = 0;
  let high = changes.length;
  while (low < high) {
    const mid = (low + high) >> 1;
    if (changes[mid]!.at <= instant) low = mid + 1;
    else high = mid;
  }
  if (low > 0) known.hint = low - 1;
  return low - 1;
}
