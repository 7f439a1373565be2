import {
  DAY,
  SECOND,
  dayFromText,
  dayOfWall,
  dayToText,
  daysInMonth,
  partsOfDay,
  wallAt,
  weekdayOf,
  instantOfUtc,
} from '../zones';
import { WEEKDAY_CODES, ruleFromText, type Rule } from './rule';
import { untilText } from './until';
import { wallOf, type When } from './when';

export const SIMPLE_KINDS = [
  'daily',
  'weekly',
  'monthly-date',
  'monthly-weekday',
  'monthly-last',
  'yearly',
] as const;
export type SimpleKind = (typeof SIMPLE_KINDS)[number];

/** A rule of one of the common shapes, as an editor shows it. */
export interface SimpleRule {
  readonly kind: SimpleKind;
  readonly interval: number;
  /** For `weekly`: 0 for Monday to 6 for Sunday, in order. */
  readonly weekdays: readonly number[];
  readonly end: RuleEnd;
}

/** How a rule ends; `last` is a day written `2026-05-31` on the clocks of the start. */
export type RuleEnd =
  | { readonly kind: 'never' }
  | { readonly kind: 'until'; readonly last: string }
  | { readonly kind: 'count'; readonly count: number };

/** Returns the common shape of a rule that starts at `start`, or null when it says more than a shape can. */
export function simpleRuleOf(text: string, start: When): SimpleRule | null {
  const rule = ruleFromText(text);
  const kind = kindOf(rule, start);
  if (!kind) return null;
  return {
    kind,
    interval: rule.interval,
    weekdays: kind === 'weekly' ? weekdaysOf(rule, start) : [],
    end: endOf(rule, start),
  };
}

function kindOf(rule: Rule, start: When): SimpleKind | null {
  if (rule.bySecond.length || rule.byMinute.length || rule.byHour.length || rule.byYearDay.length)
    return null;
  if (rule.byWeekNo.length || rule.byMonth.length || rule.bySetPos.length) return null;
  const { freq, byDay, byMonthDay } = rule;
  const { date } = partsOfDay(dayOfWall(wallOf(start)));
  const bare = !byDay.length && !byMonthDay.length;
  if (freq === 'DAILY' && bare) return 'daily';
  if (freq === 'YEARLY' && bare) return 'yearly';
  if (freq === 'WEEKLY' && !byMonthDay.length && (rule.interval === 1 || rule.weekStart === 0))
    return 'weekly';
  if (freq !== 'MONTHLY') return null;
  if (bare || (!byDay.length && byMonthDay.length === 1 && byMonthDay[0] === date)) return 'monthly-date';
  const [only, ...more] = byDay;
  if (!only || more.length || byMonthDay.length) return null;
  if (`${only.nth}${only.weekday}` === ordinalOf(start)) return 'monthly-weekday';
  return only.nth === -1 && only.weekday === weekdayOf(dayOfWall(wallOf(start))) && isInLastWeek(start)
    ? 'monthly-last'
    : null;
}

/** Returns whether a moment stands on the last of its weekdays in its month. */
export function isInLastWeek(start: When): boolean {
  const { year, month, date } = partsOfDay(dayOfWall(wallOf(start)));
  return date > daysInMonth(year, month) - 7;
}

function ordinalOf(start: When): string {
  const day = dayOfWall(wallOf(start));
  return `${Math.ceil(partsOfDay(day).date / 7)}${weekdayOf(day)}`;
}

function weekdaysOf(rule: Rule, start: When): number[] {
  if (!rule.byDay.length) return [weekdayOf(dayOfWall(wallOf(start)))];
  return [...new Set(rule.byDay.map((d) => d.weekday))].sort((a, b) => a - b);
}

function endOf(rule: Rule, start: When): RuleEnd {
  if (rule.count !== null) return { kind: 'count', count: rule.count };
  if (rule.until === null) return { kind: 'never' };
  const wall =
    rule.untilIsUtc && start.kind === 'zoned' ? wallAt(start.zone, instantOfUtc(rule.until)) : rule.until;
  return { kind: 'until', last: dayToText(dayOfWall(wall)) };
}

/** Returns the RRULE value of a common shape for an entry that starts at `start`. */
export function textOfSimpleRule({ kind, interval, weekdays, end }: SimpleRule, start: When): string {
  const ordinal = ordinalOf(start);
  const shapes: Record<SimpleKind, string> = {
    daily: 'FREQ=DAILY',
    weekly: 'FREQ=WEEKLY',
    'monthly-date': 'FREQ=MONTHLY',
    'monthly-weekday': 'FREQ=MONTHLY',
    'monthly-last': 'FREQ=MONTHLY',
    yearly: 'FREQ=YEARLY',
  };
  const parts = [shapes[kind]];
  if (interval > 1) parts.push(`INTERVAL=${interval}`);
  if (kind === 'weekly' && weekdays.length)
    parts.push(`BYDAY=${weekdays.map((d) => WEEKDAY_CODES[d]).join(',')}`);
  if (kind === 'monthly-weekday') parts.push(`BYDAY=${ordinal[0]}${WEEKDAY_CODES[Number(ordinal[1])]}`);
  if (kind === 'monthly-last') parts.push(`BYDAY=-1${WEEKDAY_CODES[Number(ordinal[1])]}`);
  if (end.kind === 'count') parts.push(`COUNT=${end.count}`);
  if (end.kind === 'until') {
    // The whole of the last day is taken in.
    parts.push(`UNTIL=${untilText(start, (dayFromText(end.last) + 1) * DAY - SECOND)}`);
  }
  return parts.join(';');
}
