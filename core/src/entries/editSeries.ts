import { Problem } from '../problems';
import { DAY, dayOfWall, instantOf, type Wall, type ZoneName } from '../zones';
import type { Content, Entry, Override } from './entry';
import { contentOf } from './entry';
import { moveSeries } from './moveSeries';
import { expandRule } from './expandRule';
import { localRule, occurrencesOf } from './occurrences';
import { simpleRuleOf, textOfSimpleRule } from './simpleRule';
import { untilText } from './until';
import { sameWhen, wallOf, whenLike, type When } from './when';

export const SCOPES = ['this', 'onward', 'all'] as const;
/** Which dates of a recurring entry an edit is meant for: one, one and all later, or all. */
export type Scope = (typeof SCOPES)[number];

/** What an entry says at one of its dates. */
export interface AtDate {
  readonly start: When;
  readonly end: When;
  readonly content: Content;
}

/** What of an entry its dates follow from. */
type Timed = Content & Pick<Entry, 'start' | 'end' | 'recurrence' | 'overrides'>;

/** A stretch wide enough for every date that a calendar can show. */
const EVER = 200 * 366 * DAY;

/** Returns the entry with one date changed by itself. An edit that changes nothing leaves no override behind. */
export function changeDate<T extends Timed>(entry: T, slot: When, { start, end, content }: AtDate): T {
  const others = entry.overrides.filter((o) => !sameWhen(o.slot, slot));
  const usual = usualAt(entry, slot);
  const same =
    sameWhen(start, usual.start) && sameWhen(end, usual.end) && sameContent(content, usual.content);
  const override: Override = { slot, start, end, content };
  return {
    ...entry,
    overrides: same ? others : [...others, override].sort((a, b) => wallOf(a.slot) - wallOf(b.slot)),
  };
}

/** Returns what the rule alone says of a date. */
export function usualAt(entry: Timed, slot: When): AtDate {
  const span = wallOf(entry.end) - wallOf(entry.start);
  return { start: slot, end: whenLike(entry.end, wallOf(slot) + span), content: contentOf(entry) };
}

function sameContent(a: Content, b: Content): boolean {
  return JSON.stringify(contentOf(a)) === JSON.stringify(contentOf(b));
}

/** Returns the entry without one of its dates. Throws `rule-invalid` when no date would be left. */
export function skipDate(entry: Entry, slot: When, hostZone: ZoneName): Entry {
  const { rule, dates, exceptDates } = entry.recurrence!;
  const skipped: Entry = {
    ...entry,
    recurrence: {
      rule,
      dates: dates.filter((d) => !sameWhen(d, slot)),
      exceptDates: [...exceptDates.filter((d) => !sameWhen(d, slot)), slot],
    },
    overrides: entry.overrides.filter((o) => !sameWhen(o.slot, slot)),
  };
  if (!hasDates(skipped, hostZone)) {
    throw new Problem('rule-invalid', { reason: 'no date would be left; delete the entry instead' });
  }
  return skipped;
}

/** Whether a series has any date at all. Most have one in their first year, so all of its dates are seldom computed. */
function hasDates(entry: Entry, hostZone: ZoneName): boolean {
  const start = instantOf(hostZone, wallOf(entry.start));
  for (let span = 366 * DAY; ; span = Math.min(span * 8, EVER)) {
    if (occurrencesOf(entry, { from: start - DAY, to: start + span }, hostZone).length) return true;
    if (span === EVER) return false;
  }
}

/** The two parts of a series that was cut at a date. `before` is null when the date was its first. */
export interface Cut {
  readonly before: Entry | null;
  /** What recurs from the date on, as the series says it; it has the identifiers of the whole still. */
  readonly from: Entry;
}

/**
 * Returns a series cut in two at a date: all its dates, overrides and exceptions go with the part that they lie in.
 * A count is shared out between the parts.
 */
export function cutSeries(entry: Entry, slot: When): Cut {
  const at = wallOf(slot);
  const { rule, dates, exceptDates } = entry.recurrence!;
  const start = wallOf(entry.start);
  if (at <= start) return { before: null, from: entry };
  const local = rule ? localRule(rule, entry.start) : null;
  const used = local ? expandRule(local, start, start, at) : [];
  const last = used.at(-1);
  const part = (keep: (wall: Wall) => boolean) => ({
    dates: dates.filter((d) => keep(wallOf(d))),
    exceptDates: exceptDates.filter((d) => keep(wallOf(d))),
    overrides: entry.overrides.filter((o) => keep(wallOf(o.slot))),
  });
  const late = part((w) => w >= at);
  // The later part starts where the rule does, so that what the rule takes from its start stays the same.
  const [next] = local ? expandRule(local, start, at, at + EVER, 1) : [];
  const first = next ?? Math.min(...late.dates.map(wallOf), ...late.overrides.map((o) => wallOf(o.slot)));
  const from = usualAt(entry, whenLike(entry.start, first));
  const later: Entry = {
    ...entry,
    start: from.start,
    end: from.end,
    recurrence: {
      rule: next === undefined ? '' : withCountLess(rule, used.length),
      dates: late.dates,
      exceptDates: late.exceptDates,
    },
    overrides: late.overrides,
  };
  const early = part((w) => w < at);
  const earlier: Entry = {
    ...entry,
    recurrence: {
      rule: last === undefined ? '' : endedAt(rule, entry.start, last),
      dates: early.dates,
      exceptDates: early.exceptDates,
    },
    overrides: early.overrides,
  };
  return { before: earlier, from: later };
}

/**
 * Returns a series with start, end and content changed from one date on: the part before stays as it was. Dates in
 * the later part that were changed by themselves keep what is their own and move along.
 */
export function changeOnward(entry: Entry, slot: When, { start, end, content }: AtDate): Cut {
  const { before, from } = cutSeries(entry, slot);
  const shift = wallOf(start) - wallOf(slot);
  const firstWall = wallOf(from.start) + shift;
  const [newStart, newEnd] = [
    whenLike(start, firstWall),
    whenLike(end, firstWall + wallOf(end) - wallOf(start)),
  ];
  const { rule } = from.recurrence!;
  const simple = rule ? simpleRuleOf(rule, from.start) : null;
  const moved = moveSeries({ ...from, ...content }, newStart, newEnd);
  // A rule of common shape follows the date to its new weekday; any other stays as it is.
  const days = dayOfWall(wallOf(start)) - dayOfWall(wallOf(slot));
  const weekdays = simple?.weekdays.map((d) => (((d + days) % 7) + 7) % 7).sort((a, b) => a - b) ?? [];
  const text = simple && days ? textOfSimpleRule({ ...simple, weekdays }, newStart) : rule;
  const overrides = moved.overrides.filter((o) => !sameWhen(o.slot, start));
  return { before, from: { ...moved, recurrence: { ...moved.recurrence!, rule: text }, overrides } };
}

function withCountLess(rule: string, used: number): string {
  return rule.replace(/COUNT=(\d+)/i, (_, n: string) => `COUNT=${Math.max(1, Number(n) - used)}`);
}

/** Returns the rule with a last date in place of its own end. */
function endedAt(rule: string, like: When, last: Wall): string {
  const kept = rule.split(';').filter((part) => !/^(COUNT|UNTIL)=/i.test(part));
  return [...kept, `UNTIL=${untilText(like, last)}`].join(';');
}
