import {
  DAY,
  MINUTE,
  HOUR,
  dayFromParts,
  dayFromText,
  daysInMonth,
  partsOfDay,
  wallToText,
  weekdayOf,
  type Day,
} from '../zones';

/** What a line such as `Fri 14:00-15:30 Lock inspection @ North gate #works` says. */
export interface QuickLine {
  readonly title: string;
  readonly place: string;
  readonly labels: readonly string[];
  readonly day: Day;
  /** The last day, for whole days; the same as `day` for times. */
  readonly lastDay: Day;
  /** Milliseconds after the day's midnight; null for whole days. `end` is past 24 h when it is on the next day. */
  readonly time: { readonly start: number; readonly end: number } | null;
}

const WEEKDAYS = ['mon', 'tue', 'wed', 'thu', 'fri', 'sat', 'sun'];
const MONTHS = ['jan', 'feb', 'mar', 'apr', 'may', 'jun', 'jul', 'aug', 'sep', 'oct', 'nov', 'dec'];
const FIRST_HOUR = 1;

/**
 * Returns what a line says, seen from a day: day, time, title, `@ place` and `#labels`, in this order or with the day
 * and time after the title. With no day it is today, with no end an hour, with no time a whole day. A weekday is the
 * next one, today included; a date with no year is the next one. Returns null when no title is left.
 */
export function readQuickLine(text: string, today: Day): QuickLine | null {
  let rest = ` ${text.trim().replace(/\s+/g, ' ')} `;
  // What looks like a day or a time and is none stays in the title: nothing that was typed is lost.
  const take: Take = (pattern, fits = () => true) => {
    const found = pattern.exec(rest);
    if (found && !fits(found)) return null;
    if (found) rest = `${rest.slice(0, found.index)} ${rest.slice(found.index + found[0].length)}`;
    return found;
  };
  const labels: string[] = [];
  for (let label = take(/ #([^\s#@]+)(?= )/); label; label = take(/ #([^\s#@]+)(?= )/))
    labels.push(label[1]!);
  const place = take(/ @(.+)$/)?.[1]!.trim() ?? '';
  const day = dayOf(take, today);
  const until = day.given ? untilDay(take, day.day) : null;
  const time = timeOf(take);
  const title = rest.trim().replace(/\s+/g, ' ');
  if (!title) return null;
  return { title, place, labels, day: day.day, lastDay: time ? day.day : (until ?? day.day), time };
}

type Take = (pattern: RegExp, fits?: (found: RegExpExecArray) => boolean) => RegExpExecArray | null;

function dayOf(take: Take, today: Day): { day: Day; given: boolean } {
  const iso = take(/ (\d{4}-\d{2}-\d{2})(?= )/, (found) => isDay(found[1]!));
  if (iso) return { day: dayFromText(iso[1]!), given: true };
  const word = take(/ (today|tomorrow)(?= )/i)?.[1]!.toLowerCase();
  if (word) return { day: today + (word === 'tomorrow' ? 1 : 0), given: true };
  const isDate = (found: RegExpExecArray) => dateOf(found.groups!, today) !== null;
  const names = MONTHS.join('|');
  const dated =
    take(
      new RegExp(` (?<date>\\d{1,2})\\.? (?<month>${names})[a-z]*\\.?(?: (?<year>\\d{4}))?(?= )`, 'i'),
      isDate,
    ) ??
    take(new RegExp(` (?<month>${names})[a-z]* (?<date>\\d{1,2})(?:,? (?<year>\\d{4}))?(?= )`, 'i'), isDate);
  if (dated) {
    // A weekday beside a date says nothing more.
    take(new RegExp(` (${WEEKDAYS.join('|')})[a-z]*,?(?= )`, 'i'));
    return { day: dateOf(dated.groups!, today)!, given: true };
  }
  const weekday = take(new RegExp(` (${WEEKDAYS.join('|')})(?:[a-z]*day)?(?= )`, 'i'));
  if (!weekday) return { day: today, given: false };
  return {
    day: today + ((WEEKDAYS.indexOf(weekday[1]!.toLowerCase()) - weekdayOf(today) + 7) % 7),
    given: true,
  };
}

function dateOf(groups: Record<string, string | undefined>, today: Day): Day | null {
  const month = MONTHS.indexOf(groups['month']!.slice(0, 3).toLowerCase()) + 1;
  const date = Number(groups['date']);
  const thisYear = partsOfDay(today).year;
  const year = groups['year'] ? Number(groups['year']) : thisYear;
  if (date < 1 || date > daysInMonth(year, month)) return null;
  const day = dayFromParts(year, month, date);
  return groups['year'] || day >= today ? day : dayFromParts(year + 1, month, date);
}

/** The last of several whole days: `12 Dec to 14 Dec` has left ` to 14 Dec` here. */
function untilDay(take: Take, day: Day): Day | null {
  const found = take(
    new RegExp(` (?:to|until|–|-) (?<date>\\d{1,2})\\.? (?<month>${MONTHS.join('|')})[a-z]*(?= )`, 'i'),
  );
  return found ? dateOf(found.groups!, day) : null;
}

function timeOf(take: Take): QuickLine['time'] {
  const found = take(
    / (\d{1,2}):(\d{2})(?: ?(?:-|–|to) ?(\d{1,2}):(\d{2}))?(?= )/,
    ([, h, m, h2, m2]) => isTime(h!, m!) && (h2 === undefined || isTime(h2, m2!)),
  );
  if (!found) return null;
  const at = (hours: string, minutes: string) => Number(hours) * HOUR + Number(minutes) * MINUTE;
  const start = at(found[1]!, found[2]!);
  const end = found[3] === undefined ? start + FIRST_HOUR * HOUR : at(found[3], found[4]!);
  // An end before the start is on the next day.
  return { start, end: end < start ? end + DAY : end };
}

function isTime(hours: string, minutes: string): boolean {
  return Number(hours) < 24 && Number(minutes) < 60;
}

function isDay(text: string): boolean {
  try {
    dayFromText(text);
    return true;
  } catch {
    return false;
  }
}

/** Returns date and clock time of a moment of a quick line, as `2026-05-31` and `14:30`. */
export function quickMoment(day: Day, time: number): { date: string; time: string } {
  const [date, clock] = wallToText(day * DAY + time).split('T') as [string, string];
  return { date, time: clock.slice(0, 5) };
}
