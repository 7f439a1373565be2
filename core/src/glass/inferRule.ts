import { WEEKDAY_CODES, expandRule, ruleFromText } from '../entries';
import { dayOfWall, daysInMonth, partsOfDay, timeOfWall, weekdayOf, type Wall } from '../zones';

/** A rule (without its end) that gives the readings, with what it gives too many and too few. */
export interface InferredRule {
  readonly rule: string;
  readonly except: readonly Wall[];
  readonly extra: readonly Wall[];
}

/**
 * Returns the plainest rule that gives the clock readings (two or more, in order), or null when none fits well.
 *
 * The rule of the entry itself is not looked at: it may tell of dates outside the horizon or of dates held back.
 * What goes out is a function of the readings that the reader sees anyway.
 */
export function inferRule(walls: readonly Wall[]): InferredRule | null {
  const first = walls[0]!;
  if (walls.some((w) => timeOfWall(w) !== timeOfWall(first))) return null;
  let best: InferredRule | null = null;
  for (const rule of candidates(walls)) {
    const found = measure(rule, walls);
    if (found && (!best || cost(found) < cost(best))) best = found;
    // None can be better, and those that follow are less plain.
    if (best && cost(best) === 0) break;
  }
  return best && cost(best) * 2 <= walls.length ? best : null;
}

function cost(rule: InferredRule): number {
  return rule.except.length + rule.extra.length;
}

function measure(text: string, walls: readonly Wall[]): InferredRule | null {
  const [first, last] = [walls[0]!, walls.at(-1)!];
  const given = expandRule(ruleFromText(text), first, first, last + 1, walls.length * 3);
  // The start must be the rule's own first: programs disagree on a start that the rule does not meet.
  if (given[0] !== first) return null;
  const [wanted, got] = [new Set(walls), new Set(given)];
  return {
    rule: text,
    except: given.filter((w) => !wanted.has(w)),
    extra: walls.filter((w) => !got.has(w)),
  };
}

/** Rules of the common shapes that the readings suggest, plainest first. */
function* candidates(walls: readonly Wall[]): Iterable<string> {
  const days = walls.map(dayOfWall);
  const gap = Math.min(...days.slice(1).map((d, i) => d - days[i]!));
  if (gap > 0 && gap < 7) yield `FREQ=DAILY${interval(gap)}`;

  const weeks = days.map((d) => Math.floor((d + 3) / 7));
  const weekdays = common(days.map(weekdayOf));
  const byDay = weekdays.map((d) => WEEKDAY_CODES[d]).join(',');
  yield `FREQ=WEEKLY${interval(commonStep(weeks))};BYDAY=${byDay}`;
  yield `FREQ=WEEKLY;BYDAY=${byDay}`;

  const parts = days.map(partsOfDay);
  const months = parts.map((p) => p.year * 12 + p.month);
  const every = `FREQ=MONTHLY${interval(commonStep(months))}`;
  const date = parts[0]!.date;
  yield `${every};BYMONTHDAY=${date}`;
  if (date === daysInMonth(parts[0]!.year, parts[0]!.month)) yield `${every};BYMONTHDAY=-1`;
  const code = WEEKDAY_CODES[weekdayOf(days[0]!)]!;
  const nth = Math.ceil(date / 7);
  if (nth < 5) yield `${every};BYDAY=${nth}${code}`;
  const isLast = date + 7 > daysInMonth(parts[0]!.year, parts[0]!.month);
  if (isLast) yield `${every};BYDAY=-1${code}`;

  const years = parts.map((p) => p.year);
  const { month } = parts[0]!;
  // A 29 February is read in different ways by different programs; such dates are listed.
  if (!(month === 2 && date === 29))
    yield `FREQ=YEARLY${interval(commonStep(years))};BYMONTH=${month};BYMONTHDAY=${date}`;
  if (nth < 5) yield `FREQ=YEARLY${interval(commonStep(years))};BYMONTH=${month};BYDAY=${nth}${code}`;
}

function interval(n: number): string {
  return n > 1 ? `;INTERVAL=${n}` : '';
}

/** Returns the values that occur at least half as often as the most frequent one, in order of size. */
function common(values: readonly number[]): number[] {
  const counts = new Map<number, number>();
  for (const v of values) counts.set(v, (counts.get(v) ?? 0) + 1);
  const most = Math.max(...counts.values());
  return [...counts]
    .filter(([, n]) => n * 2 >= most)
    .map(([v]) => v)
    .sort((a, b) => a - b);
}

/** Returns the greatest step by which all values lie apart, at least 1. */
function commonStep(values: readonly number[]): number {
  const step = values.reduce((found, v) => gcd(found, v - values[0]!), 0);
  return Math.max(1, step);
}

function gcd(a: number, b: number): number {
  return b === 0 ? a : gcd(b, a % b);
}
