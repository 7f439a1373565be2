import { MONTH_NAMES, WEEKDAY_NAMES, dayOfWall, dayToText } from '../zones';
import { ruleFromText, type Rule, type WeekdayPart } from './rule';

const UNITS: Record<Rule['freq'], string> = {
  YEARLY: 'year',
  MONTHLY: 'month',
  WEEKLY: 'week',
  DAILY: 'day',
  HOURLY: 'hour',
  MINUTELY: 'minute',
  SECONDLY: 'second',
};

/** Returns a rule in words, such as `every 2 weeks on Monday and Friday, 10 times`. Every part of it is told. */
export function ruleWords(text: string): string {
  const rule = ruleFromText(text);
  const unit = UNITS[rule.freq];
  const words = [rule.interval === 1 ? `every ${unit}` : `every ${rule.interval} ${unit}s`];
  if (rule.byMonth.length) words.push(`in ${join(rule.byMonth.map((m) => MONTH_NAMES[m - 1]!))}`);
  if (rule.byWeekNo.length) words.push(`in week ${join(rule.byWeekNo.map(counted))}`);
  if (rule.byYearDay.length) words.push(`on day ${join(rule.byYearDay.map(counted))} of the year`);
  if (rule.byMonthDay.length) words.push(`on day ${join(rule.byMonthDay.map(counted))} of the month`);
  if (rule.byDay.length) words.push(`on ${join(rule.byDay.map(weekdayWords))}`);
  if (rule.byHour.length) words.push(`at hour ${join(rule.byHour.map(String))}`);
  if (rule.byMinute.length) words.push(`at minute ${join(rule.byMinute.map(String))}`);
  if (rule.bySecond.length) words.push(`at second ${join(rule.bySecond.map(String))}`);
  if (rule.bySetPos.length)
    words.push(`only the ${join(rule.bySetPos.map(ordinal))} of these in each ${unit}`);
  if (rule.weekStart !== 0) words.push(`(weeks start on ${WEEKDAY_NAMES[rule.weekStart]})`);
  const end = rule.count !== null ? `, ${rule.count} ${rule.count === 1 ? 'time' : 'times'}` : '';
  const until = rule.until !== null ? `, until ${dayToText(dayOfWall(rule.until))}` : '';
  return words.join(' ') + end + until;
}

function weekdayWords({ weekday, nth }: WeekdayPart): string {
  return nth === 0 ? WEEKDAY_NAMES[weekday]! : `the ${ordinal(nth)} ${WEEKDAY_NAMES[weekday]}`;
}

function counted(n: number): string {
  return n > 0 ? String(n) : `${-n} from the end`;
}

function ordinal(n: number): string {
  if (n < 0) return n === -1 ? 'last' : `${ordinal(-n)} last`;
  const teen = n % 100 > 10 && n % 100 < 14;
  const ending = teen ? 'th' : (['th', 'st', 'nd', 'rd'][n % 10] ?? 'th');
  return `${n}${ending}`;
}

function join(words: readonly string[]): string {
  return words.length < 2 ? words.join('') : `${words.slice(0, -1).join(', ')} and ${words.at(-1)}`;
}
