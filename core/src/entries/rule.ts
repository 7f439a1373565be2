import { Problem } from '../problems';
import { DAY, HOUR, MINUTE, SECOND, dayFromText, type Wall } from '../zones';

export const FREQUENCIES = [
  'YEARLY',
  'MONTHLY',
  'WEEKLY',
  'DAILY',
  'HOURLY',
  'MINUTELY',
  'SECONDLY',
] as const;
export type Frequency = (typeof FREQUENCIES)[number];

/** A weekday of BYDAY: `weekday` is 0 for Monday; `nth` is 0 for every one, else counted from the start or end. */
export interface WeekdayPart {
  readonly weekday: number;
  readonly nth: number;
}

/** An RRULE (RFC 5545 section 3.3.10) taken apart. Absent parts are empty lists. */
export interface Rule {
  readonly freq: Frequency;
  readonly interval: number;
  readonly count: number | null;
  /** The last clock reading allowed, or an instant when `untilIsUtc`. */
  readonly until: Wall | null;
  readonly untilIsUtc: boolean;
  readonly bySecond: readonly number[];
  readonly byMinute: readonly number[];
  readonly byHour: readonly number[];
  readonly byDay: readonly WeekdayPart[];
  readonly byMonthDay: readonly number[];
  readonly byYearDay: readonly number[];
  readonly byWeekNo: readonly number[];
  readonly byMonth: readonly number[];
  readonly bySetPos: readonly number[];
  /** First day of the week, 0 for Monday. */
  readonly weekStart: number;
}

export const WEEKDAY_CODES = ['MO', 'TU', 'WE', 'TH', 'FR', 'SA', 'SU'] as const;

type ListPart =
  'bySecond' | 'byMinute' | 'byHour' | 'byMonthDay' | 'byYearDay' | 'byWeekNo' | 'byMonth' | 'bySetPos';

/** List parts: their name in the text, least and greatest size, and whether they may count from the end. */
const LISTS: Record<ListPart, { name: string; low: number; high: number; signed: boolean }> = {
  bySecond: { name: 'BYSECOND', low: 0, high: 60, signed: false },
  byMinute: { name: 'BYMINUTE', low: 0, high: 59, signed: false },
  byHour: { name: 'BYHOUR', low: 0, high: 23, signed: false },
  byMonthDay: { name: 'BYMONTHDAY', low: 1, high: 31, signed: true },
  byYearDay: { name: 'BYYEARDAY', low: 1, high: 366, signed: true },
  byWeekNo: { name: 'BYWEEKNO', low: 1, high: 53, signed: true },
  byMonth: { name: 'BYMONTH', low: 1, high: 12, signed: false },
  bySetPos: { name: 'BYSETPOS', low: 1, high: 366, signed: true },
};

const parsed = new Map<string, Rule>();

/** Returns the rule that an RRULE value says. Throws `rule-invalid` with the reason. */
export function ruleFromText(text: string): Rule {
  const known = parsed.get(text);
  if (known) return known;
  const rule = parse(text);
  if (parsed.size > 5000) parsed.clear();
  parsed.set(text, rule);
  return rule;
}

/** Everything that a rule can be written with, X-parts included: never a space or a line end. */
const WRITABLE = /^[!-~]*$/;

function parse(text: string): Rule {
  if (!WRITABLE.test(text)) fail('it holds a space, a line end or a letter that no rule has');
  const parts = new Map<string, string>();
  for (const piece of text.split(';').filter(Boolean)) {
    const [name, value, ...more] = piece.split('=');
    if (!name || value === undefined || more.length > 0) fail(`“${piece}” is not NAME=VALUE`);
    const key = name.toUpperCase();
    if (parts.has(key)) fail(`${key} stands twice`);
    parts.set(key, value.toUpperCase());
  }
  const take = (name: string) => {
    const value = parts.get(name);
    parts.delete(name);
    return value;
  };
  const freq = take('FREQ') as Frequency | undefined;
  if (!freq || !FREQUENCIES.includes(freq)) fail('FREQ is missing or not a known frequency');
  const interval = whole(take('INTERVAL') ?? '1', 'INTERVAL', 1, 1_000_000);
  const countText = take('COUNT');
  const untilText = take('UNTIL');
  if (countText !== undefined && untilText !== undefined) fail('COUNT and UNTIL exclude each other');
  const weekStart = WEEKDAY_CODES.indexOf((take('WKST') ?? 'MO') as 'MO');
  if (weekStart < 0) fail('WKST is not a weekday');
  const byDay = (take('BYDAY')?.split(',') ?? []).map(weekdayPart);
  const lists = Object.fromEntries(
    (Object.keys(LISTS) as ListPart[]).map((part) => [part, numbers(take(LISTS[part].name), LISTS[part])]),
  ) as Record<ListPart, number[]>;
  for (const name of parts.keys()) if (!name.startsWith('X-')) fail(`${name} is not a part of a rule`);
  const rule: Rule = {
    freq,
    interval,
    count: countText === undefined ? null : whole(countText, 'COUNT', 1, 1_000_000),
    ...untilOf(untilText),
    ...lists,
    byDay,
    weekStart,
  };
  if (rule.byWeekNo.length && freq !== 'YEARLY') fail('BYWEEKNO goes with YEARLY only');
  if (rule.byYearDay.length && ['DAILY', 'WEEKLY', 'MONTHLY'].includes(freq))
    fail(`BYYEARDAY does not go with ${freq}`);
  if (rule.byMonthDay.length && freq === 'WEEKLY') fail('BYMONTHDAY does not go with WEEKLY');
  if (byDay.some((d) => d.nth !== 0) && (!['MONTHLY', 'YEARLY'].includes(freq) || rule.byWeekNo.length)) {
    fail('a numbered weekday goes with MONTHLY and YEARLY only');
  }
  if (
    rule.bySetPos.length &&
    !byDay.length &&
    Object.entries(lists).every(([k, v]) => k === 'bySetPos' || !v.length)
  ) {
    fail('BYSETPOS needs another BY part');
  }
  return rule;
}

function fail(reason: string): never {
  throw new Problem('rule-invalid', { reason });
}

function whole(text: string, name: string, low: number, high: number): number {
  const n = Number(text);
  if (!/^[+-]?\d+$/.test(text) || n < low || n > high)
    fail(`${name}=${text} is not a number from ${low} to ${high}`);
  return n;
}

function numbers(text: string | undefined, part: (typeof LISTS)[ListPart]): number[] {
  if (text === undefined) return [];
  const all = text.split(',').map((t) => {
    const n = whole(t, part.name, part.signed ? -part.high : part.low, part.high);
    if (Math.abs(n) < part.low) fail(`${part.name}=${t} is not allowed`);
    return n;
  });
  return [...new Set(all)].sort((a, b) => a - b);
}

function weekdayPart(text: string): WeekdayPart {
  const m = /^([+-]?\d{1,2})?(MO|TU|WE|TH|FR|SA|SU)$/.exec(text);
  const nth = m?.[1] === undefined ? 0 : Number(m[1]);
  if (!m || (m[1] !== undefined && nth === 0) || Math.abs(nth) > 53) fail(`BYDAY=${text} is not a weekday`);
  return { weekday: WEEKDAY_CODES.indexOf(m[2] as 'MO'), nth };
}

function untilOf(text: string | undefined): Pick<Rule, 'until' | 'untilIsUtc'> {
  if (text === undefined) return { until: null, untilIsUtc: false };
  const m = /^(\d{4})(\d{2})(\d{2})(?:T(\d{2})(\d{2})(\d{2})(Z)?)?$/.exec(text);
  if (!m) fail(`UNTIL=${text} is not a date or a time`);
  let day;
  try {
    day = dayFromText(`${m[1]}-${m[2]}-${m[3]}`);
  } catch {
    fail(`UNTIL=${text} is not a date or a time`);
  }
  // A date includes the whole of its day.
  const time = m[4] === undefined ? DAY - SECOND : +m[4] * HOUR + +m[5]! * MINUTE + +m[6]! * SECOND;
  return { until: day * DAY + time, untilIsUtc: m[7] === 'Z' };
}
