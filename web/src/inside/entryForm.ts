import {
  EMPTY_CONTENT,
  contentOf,
  fitKind,
  moveSeries,
  simpleRuleOf,
  textOfSimpleRule,
  wallOf,
  type Entry,
  type SimpleRule,
  type When,
} from '@zonal/core/entries';
import { Problem } from '@zonal/core/problems';
import { DAY, dayFromText, dayToText, type Day, type ZoneName } from '@zonal/core/zones';
import type { EntryInput } from '@zonal/core/api';
import { formContent, saidContent, type FormContent } from './formContent';
import { t } from '../texts/inside';
import { ruleWords } from '../texts/entryWords';
import { problemText } from '../texts/problemText';

export const CLOCKS = ['zoned', 'floating', 'date'] as const;
/** Whether an entry has times in a zone, floating times, or whole days. */
export type Clock = (typeof CLOCKS)[number];

/** An entry as its form holds it: dates, times and lists as text. For whole days `endDate` is the last day. */
export interface EntryForm extends FormContent {
  /** When a milestone was planned for; no time for a whole day, no date for none. */
  plannedDate: string;
  plannedTime: string;
  clock: Clock;
  zone: string;
  startDate: string;
  startTime: string;
  endDate: string;
  endTime: string;
  recurs: SimpleRule['kind'] | 'once' | 'kept';
  interval: string;
  weekdays: number[];
  end: SimpleRule['end']['kind'];
  until: string;
  count: string;
}

/** Returns the form of a new entry on a day, on the clocks of a zone. */
export function blankForm(zone: ZoneName, day: Day): EntryForm {
  const date = dayToText(day);
  return {
    ...formContent(EMPTY_CONTENT),
    plannedDate: '',
    plannedTime: '',
    clock: 'zoned',
    zone,
    startDate: date,
    startTime: '09:00',
    endDate: date,
    endTime: '10:00',
    recurs: 'once',
    interval: '1',
    weekdays: [],
    end: 'never',
    until: date,
    count: '10',
  };
}

/** Returns the form of an entry. A rule of no common shape is `kept`. */
export function formOf(entry: Entry, zone: ZoneName): EntryForm {
  const split = (when: When) => {
    const [date, time] = when.kind === 'date' ? [when.date, '09:00'] : when.at.split('T');
    return { date: date!, time: time!.slice(0, 5) };
  };
  const [start, end] = [split(entry.start), split(entry.end)];
  const rule = entry.recurrence?.rule;
  const simple = rule ? simpleRuleOf(rule, entry.start) : null;
  const blank = blankForm(zone, dayFromText(start.date));
  return {
    ...blank,
    ...formContent(entry),
    plannedDate: entry.planned ? split(entry.planned).date : '',
    plannedTime: entry.planned && entry.planned.kind !== 'date' ? split(entry.planned).time : '',
    clock: entry.start.kind,
    zone: entry.start.kind === 'zoned' ? entry.start.zone : zone,
    startDate: start.date,
    startTime: start.time,
    endDate: entry.end.kind === 'date' ? dayToText(dayFromText(end.date) - 1) : end.date,
    endTime: end.time,
    recurs: simple ? simple.kind : entry.recurrence ? 'kept' : 'once',
    interval: String(simple?.interval ?? 1),
    weekdays: [...(simple?.weekdays ?? [])],
    end: simple?.end.kind ?? 'never',
    until: simple?.end.kind === 'until' ? simple.end.last : dayToText(dayFromText(start.date) + 84),
    count: simple?.end.kind === 'count' ? String(simple.end.count) : '10',
  };
}

/** Returns the start and end that a form says. Throws what is wrong with them. */
export function spanOf(form: EntryForm): { start: When; end: When } {
  const { clock, zone } = form;
  // Milestones and due items have no length.
  if (form.kind !== 'event') return momentOf(form);
  if (clock === 'date') {
    const end = dayToText(dayFromText(form.endDate) + 1);
    return { start: { kind: 'date', date: form.startDate }, end: { kind: 'date', date: end } };
  }
  const at = (date: string, time: string): When =>
    clock === 'zoned'
      ? { kind: 'zoned', at: `${date}T${time}:00`, zone }
      : { kind: 'floating', at: `${date}T${time}:00` };
  const span = { start: at(form.startDate, form.startTime), end: at(form.endDate, form.endTime) };
  wallOf(span.start);
  wallOf(span.end);
  return span;
}

function momentOf(form: EntryForm): { start: When; end: When } {
  const { clock, zone, startDate } = form;
  if (clock === 'date') {
    const end = dayToText(dayFromText(startDate) + 1);
    return { start: { kind: 'date', date: startDate }, end: { kind: 'date', date: end } };
  }
  const at = `${startDate}T${form.startTime}:00`;
  const start: When = clock === 'zoned' ? { kind: 'zoned', at, zone } : { kind: 'floating', at };
  wallOf(start);
  return { start, end: start };
}

/** Returns when a milestone was planned for, or null. Throws `date-invalid` or `time-invalid`. */
export function plannedOf(form: EntryForm): When | null {
  const { kind, plannedDate, plannedTime, zone } = form;
  if (kind !== 'milestone' || !plannedDate) return null;
  const planned: When = plannedTime
    ? { kind: 'zoned', at: `${plannedDate}T${plannedTime}:00`, zone }
    : { kind: 'date', date: plannedDate };
  wallOf(planned);
  return planned;
}

/** Returns the entry that a form says, with everything kept that the form does not show. */
export function inputOf(form: EntryForm, before: Entry | null): EntryInput {
  const { start, end } = spanOf(form);
  const base: EntryInput = before
    ? { ...contentOf(before), ...before }
    : { ...EMPTY_CONTENT, start, end, recurrence: null, overrides: [] };
  const moved = moveSeries(base, start, end);
  const rule =
    form.kind === 'milestone'
      ? null
      : before && sameRecurrence(form, before)
        ? (moved.recurrence?.rule ?? null)
        : ruleOf(form, start, before);
  return fitKind({
    ...moved,
    ...saidContent(form),
    planned: plannedOf(form),
    recurrence: rule === null ? null : { ...(moved.recurrence ?? { dates: [], exceptDates: [] }), rule },
    overrides: rule === null ? [] : moved.overrides,
  });
}

const RECURRENCE_FIELDS = ['recurs', 'interval', 'weekdays', 'end', 'until', 'count'] as const;

/** Whether a form says of the recurrence what the entry says: then the rule stays as it was written. */
function sameRecurrence(form: EntryForm, before: Entry): boolean {
  const own = formOf(before, form.zone);
  return RECURRENCE_FIELDS.every((field) => String(form[field]) === String(own[field]));
}

function ruleOf(form: EntryForm, start: When, before: Entry | null): string | null {
  if (form.recurs === 'once') return null;
  if (form.recurs === 'kept') return before?.recurrence?.rule ?? null;
  const interval = Number(form.interval);
  if (!Number.isInteger(interval) || interval < 1) {
    throw new Problem('rule-invalid', {
      reason: t('intervalInvalid'),
    });
  }
  return textOfSimpleRule(
    {
      kind: form.recurs,
      interval,
      weekdays: form.weekdays,
      end:
        form.end === 'until'
          ? { kind: 'until', last: form.until }
          : form.end === 'count'
            ? { kind: 'count', count: Number(form.count) }
            : { kind: 'never' },
    },
    start,
  );
}

/** Returns in words how the entry recurs, or a sentence that says why it cannot. */
export function recurrenceWords(form: EntryForm, before: Entry | null): string {
  try {
    const rule = ruleOf(form, spanOf(form).start, before);
    if (rule === null) return '';
    return rule ? ruleWords(rule) : t('furtherDates', { count: before?.recurrence?.dates.length ?? 0 });
  } catch (error) {
    return problemText(error);
  }
}

const MINUTES_PER_DAY = 24 * 60;

function minutesOf(time: string): number {
  return Number(time.slice(0, 2)) * 60 + Number(time.slice(3, 5));
}

/**
 * Returns what changes in a form with another start: the end follows, so that the entry keeps its length on the clock. An end
 * before the start stays where it is.
 */
export function withStart(
  form: EntryForm,
  start: Partial<Pick<EntryForm, 'startDate' | 'startTime'>>,
): Partial<EntryForm> {
  const { startDate, startTime } = { ...form, ...start };
  const timed = form.clock !== 'date';
  const minutes = (time: string) => (timed ? minutesOf(time) : 0);
  const length =
    daysBetween(form.startDate, form.endDate) * MINUTES_PER_DAY +
    minutes(form.endTime) -
    minutes(form.startTime);
  if (length < 0) return start;
  const end = minutes(startTime) + length;
  const endDate = laterDate(startDate, Math.floor(end / MINUTES_PER_DAY));
  if (!timed) return { ...start, endDate };
  const rest = end % MINUTES_PER_DAY;
  const two = (n: number) => String(n).padStart(2, '0');
  return { ...start, endDate, endTime: `${two(Math.floor(rest / 60))}:${two(rest % 60)}` };
}

/** Returns by how many whole days two dates lie apart; 0 when one cannot be read. */
export function daysBetween(from: string, to: string): number {
  try {
    return dayFromText(to) - dayFromText(from);
  } catch {
    return 0;
  }
}

/** Returns a date later by some days, or the same text when it cannot be read. */
export function laterDate(date: string, days: number): string {
  try {
    return dayToText(Math.floor((dayFromText(date) * DAY + days * DAY) / DAY));
  } catch {
    return date;
  }
}
