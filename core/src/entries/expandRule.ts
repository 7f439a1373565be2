import {
  DAY,
  HOUR,
  MINUTE,
  SECOND,
  dayFromParts,
  dayOfWall,
  daysInMonth,
  partsOfDay,
  timeOfWall,
  weekdayOf,
  type Day,
  type Wall,
} from '../zones';
import { Budget } from '../work';
import type { Rule } from './rule';

/** The rule finds nothing more: years without a match after which the search gives up. */
const BARREN_YEARS = 400;

/**
 * Steps that the expansion of a rule over the longest range may take: a few times what checkRecurrence lets pass, so
 * that what was taken when it was written can always be worked out.
 */
const MOST_STEPS = 2_000_000;

/** Returns the budget of one expansion. */
export function expansionBudget(most = MOST_STEPS): Budget {
  return new Budget(most, 'the recurrence rule');
}

/**
 * Returns the clock readings of a rule (RFC 5545 section 3.3.10) that start at `start`, in order, with
 * `from <= reading < to`. `until` of the rule must have been turned into a clock reading already.
 * The start itself is returned only where the rule meets it. At most `most` readings are returned. Throws
 * `too-much-work` when the budget does not suffice.
 */
export function expandRule(
  rule: Rule,
  start: Wall,
  from: Wall,
  to: Wall,
  most = Infinity,
  budget = expansionBudget(),
): Wall[] {
  const last = rule.until === null ? to : Math.min(to, rule.until + 1);
  if (last <= start || last <= from) return [];
  switch (rule.freq) {
    case 'YEARLY':
    case 'MONTHLY':
    case 'WEEKLY':
    case 'DAILY':
      return collect(rule, start, from, last, most, byDays(rule, start, from, last, budget));
    default:
      return collect(rule, start, from, last, most, byClock(rule, start, from, last, budget));
  }
}

/** Takes what the periods offer, in order, and applies start, count and range. */
function collect(
  rule: Rule,
  start: Wall,
  from: Wall,
  last: Wall,
  most: number,
  periods: Iterable<Wall[]>,
): Wall[] {
  const out: Wall[] = [];
  let left = rule.count ?? Infinity;
  for (const walls of periods) {
    for (const wall of walls) {
      if (wall < start) continue;
      if (wall >= last || left <= 0) return out;
      left--;
      if (wall >= from && out.push(wall) >= most) return out;
    }
    if (left <= 0) break;
  }
  return out;
}

/** Yields the readings of each year, month, week or day of the rule. */
function* byDays(rule: Rule, start: Wall, from: Wall, last: Wall, budget: Budget): Iterable<Wall[]> {
  budget.spend(timeCount(rule));
  const cost = costOfPeriod(rule);
  const times = timesOfDay(rule, start);
  const period = PERIODS[rule.freq as keyof typeof PERIODS];
  const startDay = dayOfWall(start);
  const daysIn = period.days(rule, startDay);
  const first = period.index(startDay, rule);
  // Without a count the periods before the range need not be looked at.
  const skip =
    rule.count === null ? Math.floor((period.index(dayOfWall(from), rule) - first - 1) / rule.interval) : 0;
  const end = period.index(dayOfWall(last - 1), rule);
  const barren = Math.ceil((BARREN_YEARS * 366) / period.least);
  for (
    let i = first + Math.max(0, skip) * rule.interval, dry = 0;
    i <= end && dry <= barren;
    i += rule.interval
  ) {
    budget.spend(cost);
    const days = daysIn(i);
    dry = days.length ? 0 : dry + rule.interval;
    if (!days.length) continue;
    budget.spend(days.length * times.length);
    const walls: Wall[] = [];
    for (const day of days) for (const time of times) walls.push(day * DAY + time);
    yield positions(rule, walls);
  }
}

/** Yields the readings of each hour, minute or second of the rule; BY parts only limit (or widen downwards). */
function* byClock(rule: Rule, start: Wall, from: Wall, last: Wall, budget: Budget): Iterable<Wall[]> {
  const unit = { HOURLY: HOUR, MINUTELY: MINUTE, SECONDLY: SECOND }[
    rule.freq as 'HOURLY' | 'MINUTELY' | 'SECONDLY'
  ];
  const step = unit * rule.interval;
  const origin = Math.floor(start / unit) * unit;
  const minutes = rule.freq !== 'HOURLY' ? [0] : orElse(rule.byMinute, Math.floor((start % HOUR) / MINUTE));
  const seconds =
    rule.freq === 'SECONDLY' ? [0] : orElse(rule.bySecond, Math.floor((start % MINUTE) / SECOND));
  const inside: number[] = [];
  for (const m of minutes) for (const s of seconds) inside.push(m * MINUTE + s * SECOND);
  const skip = rule.count === null && from > origin ? Math.floor((from - unit - origin) / step) : 0;
  let wall = origin + Math.max(0, skip) * step;
  while (wall < last) {
    budget.spend();
    const day = dayOfWall(wall);
    if (!dayAllowed(rule, day)) {
      wall = alignUp((day + 1) * DAY, origin, step);
      continue;
    }
    const time = timeOfWall(wall);
    if (!among(rule.byHour, Math.floor(time / HOUR))) {
      wall = alignUp(Math.floor(wall / HOUR + 1) * HOUR, origin, step);
      continue;
    }
    if (rule.freq !== 'HOURLY' && !among(rule.byMinute, Math.floor((time % HOUR) / MINUTE))) {
      wall = alignUp(Math.floor(wall / MINUTE + 1) * MINUTE, origin, step);
      continue;
    }
    if (rule.freq !== 'SECONDLY' || among(rule.bySecond, Math.floor((time % MINUTE) / SECOND))) {
      const base = wall;
      budget.spend(inside.length);
      yield positions(
        rule,
        inside.map((t) => base + t),
      );
    }
    wall += step;
  }
}

function alignUp(wall: Wall, origin: Wall, step: number): Wall {
  return origin + Math.ceil((wall - origin) / step) * step;
}

function dayAllowed(rule: Rule, day: Day): boolean {
  if (!rule.byMonth.length && !rule.byMonthDay.length && !rule.byYearDay.length && !rule.byDay.length)
    return true;
  const { year, month, date } = partsOfDay(day);
  return (
    among(rule.byMonth, month) &&
    amongSigned(rule.byMonthDay, date, daysInMonth(year, month)) &&
    amongSigned(rule.byYearDay, day - dayFromParts(year, 1, 1) + 1, daysInYear(year)) &&
    (!rule.byDay.length || rule.byDay.some((d) => d.weekday === weekdayOf(day)))
  );
}

interface Period {
  /** The number of the period that a day lies in. */
  index(day: Day, rule: Rule): number;
  /** Returns a function from a period's number to its days that the rule meets, in order. */
  days(rule: Rule, start: Day): (index: number) => Day[];
  /** Least number of days in a period. */
  least: number;
}

const PERIODS: Record<'YEARLY' | 'MONTHLY' | 'WEEKLY' | 'DAILY', Period> = {
  YEARLY: {
    least: 365,
    index: (day, rule) => (rule.byWeekNo.length ? weekYear(day, rule.weekStart) : partsOfDay(day).year),
    days: yearDays,
  },
  MONTHLY: {
    least: 28,
    index: (day) => monthIndex(day),
    days: monthDays,
  },
  WEEKLY: {
    least: 7,
    index: (day, rule) => Math.floor((day + 3 - rule.weekStart) / 7),
    days: (rule, start) => {
      const weekdays = rule.byDay.length ? rule.byDay.map((d) => d.weekday) : [weekdayOf(start)];
      const offsets = [...new Set(weekdays)].map((w) => (w - rule.weekStart + 7) % 7).sort((a, b) => a - b);
      return (index) => {
        const monday = index * 7 - 3 + rule.weekStart;
        const days = offsets.map((o) => monday + o);
        return rule.byMonth.length ? days.filter((d) => rule.byMonth.includes(partsOfDay(d).month)) : days;
      };
    },
  },
  DAILY: {
    least: 1,
    index: (day) => day,
    days: (rule) => (day) => (dayAllowed(rule, day) ? [day] : []),
  },
};

function monthIndex(day: Day): number {
  const { year, month } = partsOfDay(day);
  return year * 12 + month - 1;
}

function monthDays(rule: Rule, start: Day): (index: number) => Day[] {
  const ownDate = partsOfDay(start).date;
  return (index) => {
    const [year, month] = [Math.floor(index / 12), (index % 12) + 1];
    return among(rule.byMonth, month) ? daysOfMonth(rule, year, month, ownDate) : [];
  };
}

/** The days of one month by BYMONTHDAY and BYDAY; with neither, the start's day of the month. */
function daysOfMonth(rule: Rule, year: number, month: number, ownDate: number): Day[] {
  const first = dayFromParts(year, month, 1);
  const length = daysInMonth(year, month);
  if (!rule.byMonthDay.length && !rule.byDay.length) return ownDate <= length ? [first + ownDate - 1] : [];
  if (!rule.byMonthDay.length) return weekdaysWithin(rule, first, length);
  const dates = rule.byMonthDay.map((d) => (d > 0 ? d : length + 1 + d)).filter((d) => d >= 1 && d <= length);
  const days = unique(dates.map((d) => first + d - 1));
  if (!rule.byDay.length) return days;
  const allowed = new Set(weekdaysWithin(rule, first, length));
  return days.filter((d) => allowed.has(d));
}

/** The weekdays of BYDAY in a stretch of days; numbered ones are counted within that stretch. */
function weekdaysWithin(rule: Rule, first: Day, length: number): Day[] {
  const days: Day[] = [];
  for (const { weekday, nth } of rule.byDay) {
    const head = first + ((weekday - weekdayOf(first) + 7) % 7);
    const total = Math.floor((first + length - 1 - head) / 7) + 1;
    if (nth === 0) for (let k = 0; k < total; k++) days.push(head + 7 * k);
    else if (nth > 0 && nth <= total) days.push(head + 7 * (nth - 1));
    else if (nth < 0 && -nth <= total) days.push(head + 7 * (total + nth));
  }
  return unique(days);
}

function yearDays(rule: Rule, start: Day): (index: number) => Day[] {
  const own = partsOfDay(start);
  return (year) => {
    if (rule.byYearDay.length) return yearDaysByNumber(rule, year);
    if (rule.byWeekNo.length) return yearDaysByWeek(rule, year, start);
    if (rule.byMonth.length) return rule.byMonth.flatMap((m) => daysOfMonth(rule, year, m, own.date));
    if (rule.byMonthDay.length) return MONTHS.flatMap((m) => daysOfMonth(rule, year, m, own.date));
    if (rule.byDay.length) return weekdaysWithin(rule, dayFromParts(year, 1, 1), daysInYear(year));
    return own.date <= daysInMonth(year, own.month) ? [dayFromParts(year, own.month, own.date)] : [];
  };
}

const MONTHS = [1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12];

function yearDaysByNumber(rule: Rule, year: number): Day[] {
  const first = dayFromParts(year, 1, 1);
  const length = daysInYear(year);
  const days = rule.byYearDay.map((d) => (d > 0 ? d : length + 1 + d)).filter((d) => d >= 1 && d <= length);
  return unique(days.map((d) => first + d - 1)).filter((day) => dayAllowed({ ...rule, byYearDay: [] }, day));
}

function yearDaysByWeek(rule: Rule, year: number, start: Day): Day[] {
  const first = firstWeekOf(year, rule.weekStart);
  const weeks = (firstWeekOf(year + 1, rule.weekStart) - first) / 7;
  const weekdays = rule.byDay.length ? rule.byDay.map((d) => d.weekday) : [weekdayOf(start)];
  const days = rule.byWeekNo
    .map((w) => (w > 0 ? w : weeks + 1 + w))
    .filter((w) => w >= 1 && w <= weeks)
    .flatMap((w) => weekdays.map((d) => first + (w - 1) * 7 + ((d - rule.weekStart + 7) % 7)));
  return unique(days).filter((day) => dayAllowed({ ...rule, byDay: [] }, day));
}

/** The first day of week 1: the week, starting on `weekStart`, that has at least four days in the year. */
function firstWeekOf(year: number, weekStart: number): Day {
  const fourth = dayFromParts(year, 1, 4);
  return fourth - ((weekdayOf(fourth) - weekStart + 7) % 7);
}

function weekYear(day: Day, weekStart: number): number {
  const { year } = partsOfDay(day);
  if (day >= firstWeekOf(year + 1, weekStart)) return year + 1;
  return day < firstWeekOf(year, weekStart) ? year - 1 : year;
}

function daysInYear(year: number): number {
  return dayFromParts(year + 1, 1, 1) - dayFromParts(year, 1, 1);
}

/** How many times a day a rule may name. */
function timeCount({ byHour, byMinute, bySecond }: Rule): number {
  return [byHour, byMinute, bySecond].reduce((count, list) => count * Math.max(1, list.length), 1);
}

/** Steps that it takes to find the days of one period. */
function costOfPeriod({ freq, byDay, byMonthDay, byYearDay, byWeekNo }: Rule): number {
  const lists =
    byDay.length + byMonthDay.length + byYearDay.length + byWeekNo.length * Math.max(1, byDay.length);
  return 1 + lists * (freq === 'YEARLY' ? 13 : 1);
}

function timesOfDay(rule: Rule, start: Wall): number[] {
  const t = timeOfWall(start);
  const times: number[] = [];
  for (const h of orElse(rule.byHour, Math.floor(t / HOUR))) {
    for (const m of orElse(rule.byMinute, Math.floor((t % HOUR) / MINUTE))) {
      for (const s of orElse(rule.bySecond, Math.floor((t % MINUTE) / SECOND))) {
        times.push(h * HOUR + m * MINUTE + s * SECOND);
      }
    }
  }
  return times;
}

/** Keeps the readings that BYSETPOS names within one period. */
function positions(rule: Rule, walls: Wall[]): Wall[] {
  if (!rule.bySetPos.length) return walls;
  const kept = rule.bySetPos.map((p) => (p > 0 ? walls[p - 1] : walls[walls.length + p]));
  return unique(kept.filter((w) => w !== undefined));
}

function among(list: readonly number[], n: number): boolean {
  return list.length === 0 || list.includes(n);
}

function amongSigned(list: readonly number[], n: number, total: number): boolean {
  return list.length === 0 || list.includes(n) || list.includes(n - total - 1);
}

function orElse(list: readonly number[], fallback: number): readonly number[] {
  return list.length ? list : [fallback];
}

function unique(days: number[]): number[] {
  return [...new Set(days)].sort((a, b) => a - b);
}
