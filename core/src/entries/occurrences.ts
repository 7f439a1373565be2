import { Problem } from '../problems';
import {
  DAY,
  SECOND,
  dayFromParts,
  dayOfWall,
  instantOf,
  wallAt,
  type Instant,
  type Wall,
  type ZoneName,
  instantOfUtc,
} from '../zones';
import type { Content, Entry, Override } from './entry';
import { expandRule, expansionBudget } from './expandRule';
import { ruleFromText, type Rule } from './rule';
import { instantOfWhen, wallOf, whenLike, zoneOfWhen, type When } from './when';

/** A stretch of time: `from` is included, `to` is not. */
export interface Range {
  readonly from: Instant;
  readonly to: Instant;
}

/** One time that an entry takes place. */
export interface Occurrence {
  readonly start: When;
  readonly end: When;
  /** Start and end as instants; dates and floating times by the clocks of the host zone. */
  readonly from: Instant;
  readonly to: Instant;
  /** Where the rule or a date had put it (RECURRENCE-ID); null for an entry that does not recur. */
  readonly slot: When | null;
  /** The entry itself, or what an override says in its place. */
  readonly content: Content;
  /** Whether an override stands in the place of what the rule says. */
  readonly overridden: boolean;
}

/** The last clock reading that can be written; dates that would end after it are not there. */
const LAST_WALL = dayFromParts(9999, 12, 31) * DAY - SECOND;

/** An entry may recur this often in a year and no more: see {@link checkRecurrence}. */
export const MOST_A_YEAR = 10_000;

/**
 * Returns the occurrences of an entry that overlap a range, in order of start.
 *
 * The end of an occurrence keeps its clock time, as its start does: a watch from 22:00 to 06:00 ends at 06:00 in
 * the night of a clock change too. RFC 5545 section 3.8.5.3 would keep the exact length; the iCalendar writer
 * spells such nights out, so that every reader gets the same.
 */
export function occurrencesOf(entry: Entry, range: Range, hostZone: ZoneName): Occurrence[] {
  if (!entry.recurrence) {
    const only = occurrence(entry.start, entry.end, null, entry, false, hostZone);
    return overlaps(only, range) ? [only] : [];
  }
  const span = wallOf(entry.end) - wallOf(entry.start);
  const overrides = new Map(entry.overrides.map((o) => [wallOf(o.slot), o]));
  const out: Occurrence[] = [];
  for (const slot of slotsOf(
    entry,
    { from: range.from - Math.abs(span) - 2 * DAY, to: range.to + 2 * DAY },
    hostZone,
  )) {
    if (overrides.has(slot)) continue;
    const one = fromSlot(entry, slot, span, hostZone);
    if (overlaps(one, range)) out.push(one);
  }
  for (const o of entry.overrides) {
    const one = fromOverride(o, hostZone);
    if (overlaps(one, range)) out.push(one);
  }
  return out.sort((a, b) => a.from - b.from || a.to - b.to);
}

/**
 * Returns the clock readings at which an entry recurs: start, rule and dates, without the excepted dates.
 * The range is of instants; readings up to a day outside it may be among them.
 */
export function slotsOf(
  entry: Pick<Entry, 'start' | 'end' | 'recurrence'>,
  range: Range,
  hostZone: ZoneName,
): Wall[] {
  const start = wallOf(entry.start);
  const zone = zoneOfWhen(entry.start, hostZone);
  const span = Math.max(0, wallOf(entry.end) - start);
  const [from, to] = [wallAt(zone, range.from), Math.min(wallAt(zone, range.to), LAST_WALL - span)];
  const { rule, dates, exceptDates } = entry.recurrence!;
  const slots = new Set<Wall>();
  if (start >= from && start < to) slots.add(start);
  if (rule) for (const wall of expandRule(localRule(rule, entry.start), start, from, to)) slots.add(wall);
  for (const when of dates) {
    const wall = wallIn(entry.start, when, hostZone);
    if (wall >= from && wall < to) slots.add(wall);
  }
  // Some programs except a whole day of a timed entry.
  const days = new Set<number>();
  for (const when of exceptDates) {
    if (when.kind === 'date' && entry.start.kind !== 'date') days.add(dayOfWall(wallOf(when)));
    else slots.delete(wallIn(entry.start, when, hostZone));
  }
  if (days.size) for (const wall of slots) if (days.has(dayOfWall(wall))) slots.delete(wall);
  return [...slots].sort((a, b) => a - b);
}

/** Returns the rule with UNTIL as a clock reading of the start's zone. */
export function localRule(text: string, start: When): Rule {
  const rule = ruleFromText(text);
  if (rule.until === null || !rule.untilIsUtc || start.kind !== 'zoned') return rule;
  return { ...rule, until: wallAt(start.zone, instantOfUtc(rule.until)), untilIsUtc: false };
}

/** Steps that checking a rule may take: some milliseconds. What passes stays far below what its expansion may take. */
const CHECK_STEPS = 60_000;
/** It is worked out over two of its periods, and for two years at least. */
const [LEAST_YEARS, MOST_YEARS] = [2, 11];
/** A rule whose first date is further away than this has none. */
const REACH_YEARS = 100;

/**
 * Throws `rule-invalid` when the recurrence cannot be read, recurs more than {@link MOST_A_YEAR} times a year, never
 * takes place, or takes too many steps to work out. What passes can be worked out in any range that is shown.
 */
export function checkRecurrence(entry: Pick<Entry, 'start' | 'recurrence'>): void {
  if (!entry.recurrence?.rule) return;
  const start = wallOf(entry.start);
  const rule = localRule(entry.recurrence.rule, entry.start);
  const budget = expansionBudget(CHECK_STEPS);
  const refuse = (reason: string) => {
    throw new Problem('rule-invalid', { reason });
  };
  try {
    const year = expandRule(rule, start, start, start + 366 * DAY, MOST_A_YEAR + 1, budget);
    if (year.length > MOST_A_YEAR) refuse(`it recurs more than ${MOST_A_YEAR} times a year`);
    if (rule.until === null && !expandRule(rule, start, start, reach(start, REACH_YEARS), 1, budget).length)
      refuse('it never takes place');
    expandRule(rule, start, start, reach(start, yearsToCheck(rule)), Infinity, budget);
    if (rule.count !== null) expandRule(rule, start, start, LAST_WALL, Infinity, budget);
  } catch (error) {
    if (!(error instanceof Problem) || error.code !== 'too-much-work') throw error;
    refuse('working out its dates takes too many steps. Say it in fewer parts, or with fewer dates');
  }
}

function yearsToCheck({ freq, interval }: Rule): number {
  const years = { YEARLY: 1, MONTHLY: 1 / 12, WEEKLY: 7 / 366 }[freq as string] ?? 0;
  return Math.min(MOST_YEARS, Math.max(LEAST_YEARS, Math.ceil(2 * years * interval) + 1));
}

function reach(start: Wall, years: number): Wall {
  return Math.min(start + years * 366 * DAY, LAST_WALL);
}

/** Returns the clock reading of a moment by the clocks of another one. */
function wallIn(like: When, when: When, hostZone: ZoneName): Wall {
  const same = like.kind !== 'zoned' || when.kind !== 'zoned' || like.zone === when.zone;
  return same ? wallOf(when) : wallAt(like.zone, instantOfWhen(when, hostZone));
}

function fromSlot(entry: Entry, slot: Wall, span: number, hostZone: ZoneName): Occurrence {
  const start = whenLike(entry.start, slot);
  return occurrence(start, whenLike(entry.end, slot + span), start, entry, false, hostZone);
}

function fromOverride(o: Override, hostZone: ZoneName): Occurrence {
  return occurrence(o.start, o.end, o.slot, o.content, true, hostZone);
}

function occurrence(
  start: When,
  end: When,
  slot: When | null,
  content: Content,
  overridden: boolean,
  hostZone: ZoneName,
): Occurrence {
  const startWall = wallOf(start);
  const endWall = wallOf(end);
  const from = instantOf(zoneOfWhen(start, hostZone), startWall);
  let to = instantOf(zoneOfWhen(end, hostZone), endWall);
  const length = endWall - startWall;
  if (to < from || (to === from && length > 0)) {
    // The clocks jumped over the start: keep the length instead of the end's clock time.
    to = from + Math.max(0, length);
    if (end.kind === 'zoned') end = whenLike(end, wallAt(end.zone, to));
  }
  return { start, end, from, to, slot, content, overridden };
}

/** An occurrence with no length overlaps a range that it lies in. */
function overlaps(one: Occurrence, range: Range): boolean {
  return one.from < range.to && (one.to > range.from || (one.to === one.from && one.from >= range.from));
}

/** Returns the stretch in which an entry can take place at all; an endless rule gives `to: Infinity`. */
export function extentOf(entry: Entry, hostZone: ZoneName): Range {
  const alone = { from: instantOfWhen(entry.start, hostZone), to: instantOfWhen(entry.end, hostZone) };
  if (!entry.recurrence) return alone;
  const zone = zoneOfWhen(entry.start, hostZone);
  const span = wallOf(entry.end) - wallOf(entry.start);
  const ends = [
    alone,
    ...entry.overrides.map((o) => ({
      from: instantOfWhen(o.start, hostZone),
      to: instantOfWhen(o.end, hostZone),
    })),
    ...entry.recurrence.dates.map((d) => {
      const wall = wallIn(entry.start, d, hostZone);
      return { from: instantOf(zone, wall), to: instantOf(zone, wall + span) };
    }),
  ];
  if (entry.recurrence.rule) {
    const rule = localRule(entry.recurrence.rule, entry.start);
    const lastWall = rule.until ?? (rule.count === null ? Infinity : lastOf(rule, wallOf(entry.start)));
    const endless = lastWall + span > LAST_WALL;
    ends.push({ from: alone.from, to: endless ? Infinity : instantOf(zone, lastWall + span) });
  }
  return { from: Math.min(...ends.map((e) => e.from)), to: Math.max(...ends.map((e) => e.to)) };
}

function lastOf(rule: Rule, start: Wall): Wall {
  return expandRule(rule, start, start, LAST_WALL).at(-1) ?? start;
}
