import { LOCALES, type InsideLanguage } from '../texts/languages';
import { weekdayNames } from '../texts/weekdays';
import { insideTexts } from '../words/texts';
import { dayOfWall, dayToText } from '../zones';
import { ruleFromText, type WeekdayPart } from './rule';

/**
 * Returns a rule in words, such as `every 2 weeks on Monday and Friday, 10 times`. It names every part of the rule (RFC 5545
 * section 3.3.10).
 */
export function ruleWords(text: string, language: InsideLanguage = 'en'): string {
  const rule = ruleFromText(text);
  const t = insideTexts(language);
  const months = new Intl.DateTimeFormat(LOCALES[language], { month: 'long', timeZone: 'UTC' });
  const monthName = (month: number) => months.format(Date.UTC(2026, month - 1));
  const weekdays = weekdayNames(language, 'long');
  const join = (words: readonly string[]): string =>
    words.length < 2
      ? words.join('')
      : t('and', { first: words.slice(0, -1).join(', '), last: words.at(-1)! });
  const counted = (n: number) => (n > 0 ? String(n) : t('fromTheEnd', { number: -n }));
  const ordinal = (n: number): string => {
    if (n === -1) return t('last');
    return n < 0 ? t('nthLast', { number: -n }) : t('nth', { number: n });
  };
  const weekdayWords = ({ weekday: day, nth }: WeekdayPart) =>
    nth === 0 ? weekdays[day]! : t('nthWeekday', { nth: ordinal(nth), weekday: weekdays[day]! });

  const words = [t(`every${rule.freq}`, { interval: rule.interval })];
  if (rule.byMonth.length) words.push(t('inMonths', { months: join(rule.byMonth.map(monthName)) }));
  if (rule.byWeekNo.length) words.push(t('inWeeks', { weeks: join(rule.byWeekNo.map(counted)) }));
  if (rule.byYearDay.length) words.push(t('onYearDays', { days: join(rule.byYearDay.map(counted)) }));
  if (rule.byMonthDay.length) words.push(t('onMonthDays', { days: join(rule.byMonthDay.map(counted)) }));
  if (rule.byDay.length) words.push(t('onWeekdays', { days: join(rule.byDay.map(weekdayWords)) }));
  if (rule.byHour.length) words.push(t('atHours', { hours: join(rule.byHour.map(String)) }));
  if (rule.byMinute.length) words.push(t('atMinutes', { minutes: join(rule.byMinute.map(String)) }));
  if (rule.bySecond.length) words.push(t('atSeconds', { seconds: join(rule.bySecond.map(String)) }));
  if (rule.bySetPos.length)
    words.push(t(`only${rule.freq}`, { positions: join(rule.bySetPos.map(ordinal)) }));
  if (rule.weekStart !== 0) words.push(t('weeksStart', { weekday: weekdays[rule.weekStart]! }));
  const count = rule.count === null ? '' : t('timesInAll', { count: rule.count });
  const until = rule.until === null ? '' : t('until', { day: dayToText(dayOfWall(rule.until)) });
  return words.join(' ') + count + until;
}
