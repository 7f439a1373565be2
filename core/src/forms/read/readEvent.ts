import {
  EMPTY_CONTENT,
  checkRecurrence,
  expandRule,
  fitKind,
  instantOfWhen,
  localRule,
  moveSeries,
  ruleFromText,
  slotsOf,
  wallOf,
  whenLike,
  type Recurrence,
  type When,
  utcWhen,
} from '../../entries';
import { Problem } from '../../problems';
import {
  DAY,
  dayOfWall,
  instantBy,
  offsetBy,
  type Clocks,
  type Instant,
  type ZoneName,
  instantOfUtc,
} from '../../zones';
import { all, first, parameter, type Component } from './components';
import type { InsideLanguage } from '../../texts/languages';
import { contentOfFile } from './contentOfFile';
import type { FileNotes } from './fileNotes';
import type { DraftEntry } from './report';
import { WhenReader, after, durationFromText, fitted, type Duration } from './whenOfFile';
import type { FileZone } from './zoneOfFile';

/** A further date with a length of its own. */
export interface Period {
  readonly start: When;
  readonly end: When;
}

/** A VEVENT or VTODO as far as it was read by itself, before masters and overrides are put together. */
export interface Piece {
  readonly event: Component;
  readonly uid: string;
  readonly slot: When | null;
  readonly draft: DraftEntry;
  /** The rule of a piece that changes one date: not of use unless it is the series itself. */
  readonly ownRecurrence: Recurrence | null;
  /** Further dates that the file gives lengths of their own. */
  readonly periods: readonly Period[];
  /** Its DURATION, where it has one with an exact time: it holds for every date. */
  readonly duration: Duration | null;
  /** By how much a due moment lies after the start that its rule is told by. */
  readonly shift: number;
  readonly notes: FileNotes;
}

/** How a file is read. */
export interface ReadSetting {
  /** The zone of the calendar that it is read into. */
  readonly home: ZoneName;
  readonly now: Instant;
  /** Of the notes. */
  readonly language: InsideLanguage;
}

/** So far ahead of now, and so many dates, a rule is written out whose clocks no zone has, or that cannot be moved. */
const AHEAD = 10 * 366 * DAY;
const MOST_DATES = 1000;

/** Returns what a component says. Throws a {@link Problem} that costs this component alone. */
export function readEvent(event: Component, zoneOf: (tzid: string) => FileZone, setting: ReadSetting): Piece {
  const whens = new WhenReader(zoneOf, setting.language);
  const { notes } = whens;
  for (const note of event.notes) notes.addText(note);
  const task = event.name === 'VTODO';
  const content = contentOfFile(
    event,
    task ? { ...EMPTY_CONTENT, kind: 'due', shows: 'free' } : EMPTY_CONTENT,
    notes,
  );
  const times = task ? readTask(event, whens, setting) : readTimes(event, whens, setting);
  let uid = first(event, 'uid')?.text.trim() ?? '';
  if (!uid) {
    uid = `line-${event.line}-${wallOf(times.start)}`;
    notes.add('noIdentifier');
  }
  const slotProperty = first(event, 'recurrence-id');
  if (slotProperty && parameter(slotProperty, 'range')) notes.add('onlyThisDate');
  const recurrence = slotProperty ? null : times.recurrence;
  const recurs = content.kind === 'milestone' && times.recurrence !== null;
  if (recurs) notes.add('milestoneOnce');
  const kind = recurs ? 'event' : content.kind;
  const plannedProperty = first(event, 'x-zonal-planned');
  const planned = plannedProperty ? whens.whens(plannedProperty)[0]! : null;
  const { start, end } = times;
  return {
    event,
    uid,
    slot: slotProperty ? whens.whens(slotProperty)[0]! : null,
    notes,
    duration: times.duration,
    shift: times.shift,
    periods: times.periods,
    ownRecurrence: slotProperty ? times.recurrence : null,
    draft: fitKind({ ...content, uid, start, end, recurrence, overrides: [], kind, planned }),
  };
}

type Times = Pick<DraftEntry, 'start' | 'end' | 'recurrence'> & Pick<Piece, 'duration' | 'shift' | 'periods'>;

function unreadable(line: number, reason: string): Problem {
  return new Problem('component-unreadable', { line, reason });
}

function readTimes(event: Component, whens: WhenReader, { home, now }: ReadSetting): Times {
  const property = first(event, 'dtstart');
  if (!property) throw unreadable(event.line, 'it has no start (DTSTART)');
  const start = whens.whens(property)[0]!;
  const duration = first(event, 'dtend') ? null : readDuration(event, whens);
  const periods = readPeriods(event, whens, home);
  const recurrence = readRecurrence(event, start, whens, whens.clocksOf(property), now);
  const end = readEnd(event, start, duration, whens, home, recurrence !== null);
  return { start, end, recurrence, duration: duration?.exact ? duration : null, shift: 0, periods };
}

/** The due moment of a task: DUE, or DTSTART with DURATION (RFC 5545 section 3.8.2.3); a rule is told by DTSTART. */
function readTask(event: Component, whens: WhenReader, { home, now }: ReadSetting): Times {
  const [due, begins] = [first(event, 'due'), first(event, 'dtstart')];
  const duration = due ? null : readDuration(event, whens);
  const base = begins ? whens.whens(begins)[0]! : null;
  const end = due ? whens.whens(due)[0]! : duration && base ? after(base, duration, home) : base;
  if (!end || !(base ?? due)) throw unreadable(event.line, 'it has no due date (DUE or DTSTART)');
  const own = base ?? end;
  const recurrence = readRecurrence(event, own, whens, whens.clocksOf((begins ?? due)!), now);
  if (base && wallOf(base) !== wallOf(end) && !first(event, 'recurrence-id')) whens.notes.add('noStartOfDue');
  const start = fitted(end, own);
  const shift = wallOf(start) - wallOf(own);
  // What is due has no length.
  const times = { start, end: start, duration: null, shift, periods: [] };
  return { ...times, recurrence: recurrence && shifted(recurrence, own, start, whens, now) };
}

/** A rule that is told by the start, told by the due moment: it stays a rule where the day and the clock let it. */
function shifted(
  recurrence: Recurrence,
  base: When,
  due: When,
  { notes }: WhenReader,
  now: Instant,
): Recurrence {
  if (wallOf(base) === wallOf(due)) return recurrence;
  const rule = recurrence.rule ? ruleFromText(recurrence.rule) : null;
  const clocked = rule && (rule.byHour.length || rule.byMinute.length || rule.bySecond.length);
  const daily = !rule || ['YEARLY', 'MONTHLY', 'WEEKLY', 'DAILY'].includes(rule.freq);
  if (daily && !clocked && (!rule || dayOfWall(wallOf(base)) === dayOfWall(wallOf(due))))
    return moveSeries({ start: base, end: base, recurrence, overrides: [] }, due, due).recurrence!;
  notes.add('ruleByStart');
  const from = instantOfWhen(base, 'UTC');
  const to = Math.max(from, now) + AHEAD;
  const slotsFrom = (first: Instant) =>
    slotsOf({ start: base, end: base, recurrence }, { from: first, to }, 'UTC');
  const slots = mostUseful(slotsFrom, from - DAY, now, notes);
  const shift = wallOf(due) - wallOf(base);
  return { rule: '', dates: slots.map((wall) => whenLike(due, wall + shift)), exceptDates: [] };
}

function readDuration(event: Component, { notes }: WhenReader): Duration | null {
  const property = first(event, 'duration');
  if (!property) return null;
  const duration = durationFromText(property.text);
  if (!duration) notes.add('durationUnreadable', { text: property.text });
  return duration;
}

/** The end by DTEND, by DURATION, or by RFC 5545 section 3.6.1: one day for a date, no length for a time. */
function readEnd(
  event: Component,
  start: When,
  duration: Duration | null,
  whens: WhenReader,
  home: ZoneName,
  recurs: boolean,
): When {
  const least = start.kind === 'date' ? whenLike(start, wallOf(start) + DAY) : start;
  const property = first(event, 'dtend');
  // A series lasts as on an ordinary day; its dates that meet a clock change get an end of their own.
  const lasting = (duration: Duration) =>
    recurs && duration.exact && start.kind !== 'date'
      ? whenLike(start, wallOf(start) + duration.days * DAY + duration.exact)
      : after(start, duration, home);
  let end = property ? whens.whens(property)[0]! : duration ? lasting(duration) : least;
  if (end.kind !== start.kind) {
    if (end.kind === 'date' || start.kind === 'date') whens.notes.add('endFitted');
    end = whenLike(start, wallOf(end));
  }
  const length = instantOfWhen(end, 'UTC') - instantOfWhen(start, 'UTC');
  if (length < 0 || (length === 0 && start.kind === 'date')) {
    // Some programs write a one-day entry with its own day as end.
    if (length < 0) whens.notes.add('endBeforeStart');
    end = least;
  }
  return end;
}

/** Returns the periods among the further dates (RFC 5545 section 3.3.9): a start with an end, or with a duration. */
function readPeriods(event: Component, whens: WhenReader, home: ZoneName): Period[] {
  return all(event, 'rdate').flatMap((property) =>
    property.text
      .split(',')
      .filter((text) => text.includes('/'))
      .flatMap((text) => {
        const [from = '', to = ''] = text.trim().split('/');
        const at = (moment: string) => whens.whens({ ...property, text: moment })[0]!;
        const start = at(from);
        const duration = durationFromText(to);
        const end = duration ? after(start, duration, home) : at(to);
        if (instantOfWhen(end, home) >= instantOfWhen(start, home)) return [{ start, end }];
        whens.notes.add('periodBackwards');
        return [];
      }),
  );
}

function readRecurrence(
  event: Component,
  start: When,
  whens: WhenReader,
  clocks: Clocks | null,
  now: Instant,
): Recurrence | null {
  const rules = all(event, 'rrule');
  const further = all(event, 'rdate').flatMap((p) => whens.whens(p));
  const dates = further.map((when) => fitted(when, start));
  if (dates.some((when, i) => when !== further[i])) whens.notes.add('datesFitted');
  if (!rules.length && !dates.length) return null;
  if (rules.length > 1) whens.notes.add('severalRules');
  // An excepted day of a timed entry excepts whatever is on it, so only the other way is fitted.
  const exceptDates = all(event, 'exdate')
    .flatMap((p) => whens.whens(p))
    .map((when) => (start.kind === 'date' ? fitted(when, start) : when));
  const recurrence: Recurrence = { rule: (rules[0]?.text ?? '').replace(/\s+/g, ''), dates, exceptDates };
  try {
    checkRecurrence({ start, recurrence });
    const excepted = withoutRuled(event, start, recurrence, whens, now);
    return clocks && recurrence.rule ? writtenOut(excepted, start, clocks, whens, now) : excepted;
  } catch (error) {
    if (!(error instanceof Problem)) throw error;
    whens.notes.addProblem(error);
    whens.notes.add('onlyFirstDate');
    return dates.length ? { ...recurrence, rule: '' } : null;
  }
}

/** Returns a recurrence with the dates of its rules of exceptions (EXRULE, RFC 2445 section 4.8.5.2) excepted one by one. */
function withoutRuled(
  event: Component,
  start: When,
  recurrence: Recurrence,
  { notes }: WhenReader,
  now: Instant,
): Recurrence {
  const rules = all(event, 'exrule').map((p) => p.text.replace(/\s+/g, ''));
  if (!rules.length) return recurrence;
  const from = instantOfWhen(start, 'UTC') - DAY;
  const to = Math.max(from, now) + AHEAD;
  const at = wallOf(start);
  const shown = new Set(slotsOf({ start, end: start, recurrence }, { from, to }, 'UTC'));
  const excepted = rules.flatMap((rule) => {
    checkRecurrence({ start, recurrence: { rule, dates: [], exceptDates: [] } });
    // The first date is an exception only if the rule meets it.
    return expandRule(localRule(rule, start), at, at, to + DAY).filter((wall) => shown.has(wall));
  });
  notes.add('exceptionsWritten');
  const walls = mostUseful((first) => excepted.filter((wall) => wall >= first), from, now, notes);
  return { ...recurrence, exceptDates: [...recurrence.exceptDates, ...walls.map((w) => whenLike(start, w))] };
}

/**
 * Returns the dates that `datesFrom` gives from an instant on, as many as may be given one by one. If there are more, those long
 * past are left out first.
 */
function mostUseful<T>(
  datesFrom: (first: Instant) => readonly T[],
  first: Instant,
  now: Instant,
  notes: FileNotes,
): readonly T[] {
  const all = datesFrom(first);
  if (all.length <= MOST_DATES) return all;
  notes.add('tooManyDates', { count: MOST_DATES });
  return datesFrom(Math.max(first, now - 366 * DAY)).slice(0, MOST_DATES);
}

/** A rule on clocks that no zone has: each date by itself, worked out by those clocks, so that weekdays stay right. */
function writtenOut(
  { rule: text, dates, exceptDates }: Recurrence,
  start: When,
  clocks: Clocks,
  { notes }: WhenReader,
  now: Instant,
): Recurrence {
  const at = wallOf(start);
  const wall = at + offsetBy(clocks, instantOfUtc(at));
  const rule = ruleFromText(text);
  const until =
    rule.until !== null && rule.untilIsUtc
      ? rule.until + offsetBy(clocks, instantOfUtc(rule.until))
      : rule.until;
  const last = Math.max(wall, now) + AHEAD;
  const from = (first: number) =>
    expandRule({ ...rule, until, untilIsUtc: false }, wall, Math.max(wall, first), last, MOST_DATES + 1);
  if (rule.until === null && rule.count === null)
    notes.add('ruleWrittenYears', { years: Math.round(AHEAD / (366 * DAY)) });
  else notes.add('ruleWritten');
  const walls = mostUseful(from, wall, now, notes);
  return { rule: '', dates: [...walls.map((w) => utcWhen(instantBy(clocks, w))), ...dates], exceptDates };
}
