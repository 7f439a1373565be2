import { Problem } from '../problems';
import { DAY, dayOfWall, instantOf, partsOfDay, requireZone, type ZoneName } from '../zones';
import type { Content, Entry } from './entry';
import { fitKind } from './kind';
import { ENTRY_LIMITS } from './limits';
import { checkRecurrence } from './occurrences';
import { wallOf, zoneOfWhen, type When } from './when';

type Draft = Omit<Entry, 'id' | 'calendarId' | 'version' | 'uid'>;

/**
 * Returns an entry as it is stored: checked for everything that will be computed with it, zones in their one spelling,
 * and with what its kind asks for (see fitKind). Throws the problem that says what is wrong: with its times, their
 * span, its recurrence, or how much it holds. `zone` is the one whose clocks floating times and dates are compared by.
 */
export function checkedEntry<T extends Draft>(entry: T, zone: ZoneName): T {
  const fitted = fitKind({ ...entry, ...spelled(entry) });
  const { start, end, recurrence, overrides } = fitted;
  most('dates given one by one', recurrence?.dates.length ?? 0, ENTRY_LIMITS.dates);
  most('excepted dates', recurrence?.exceptDates.length ?? 0, ENTRY_LIMITS.dates);
  most('dates changed by themselves', overrides.length, ENTRY_LIMITS.overrides);
  checkTimes(start, end, zone, recurrence !== null);
  checkContent(fitted);
  for (const o of overrides) {
    checkTimes(o.start, o.end, zone, true);
    checkContent(o.content);
  }
  checkRecurrence(fitted);
  return fitted;
}

/** Every moment of an entry with its zone in the usual spelling. */
function spelled({ start, end, planned, recurrence, overrides }: Draft) {
  return {
    start: checkedWhen(start),
    end: checkedWhen(end),
    planned: planned && checkedWhen(planned),
    recurrence: recurrence && {
      rule: recurrence.rule,
      dates: recurrence.dates.map(checkedWhen),
      exceptDates: recurrence.exceptDates.map(checkedWhen),
    },
    overrides: overrides.map((o) => ({
      slot: checkedWhen(o.slot),
      start: checkedWhen(o.start),
      end: checkedWhen(o.end),
      content: o.content.planned ? { ...o.content, planned: checkedWhen(o.content.planned) } : o.content,
    })),
  };
}

/**
 * Returns a moment with its zone in the usual spelling. Throws `date-invalid`, `time-invalid`, `year-out-of-reach` or
 * `zone-unknown` unless it can be computed with.
 */
export function checkedWhen(when: When): When {
  const { year } = partsOfDay(dayOfWall(wallOf(when)));
  const { firstYear, lastYear } = ENTRY_LIMITS;
  if (year < firstYear || year > lastYear) {
    const text = when.kind === 'date' ? when.date : when.at;
    throw new Problem('year-out-of-reach', { text, first: firstYear, last: lastYear });
  }
  if (when.kind !== 'zoned') return when;
  const zone = requireZone(when.zone);
  return zone === when.zone ? when : { ...when, zone };
}

function checkTimes(start: When, end: When, zone: ZoneName, recurs: boolean): void {
  if (start.kind !== end.kind) throw new Problem('start-end-differ');
  const at = (when: When) => instantOf(zoneOfWhen(when, zone), wallOf(when));
  const length = at(end) - at(start);
  if (length < 0 || (length === 0 && start.kind === 'date')) throw new Problem('end-before-start');
  const limit = recurs ? ENTRY_LIMITS.recurringSpan : ENTRY_LIMITS.span;
  if (length > limit)
    throw new Problem('span-too-long', {
      which: recurs ? 'A date of an entry that recurs' : 'An entry',
      days: Math.floor(limit / DAY),
    });
}

function checkContent(content: Content): void {
  const { people, attachments, labels, properties, kept, description, image } = content;
  most('people', people.length, ENTRY_LIMITS.people);
  most('attachments', attachments.length, ENTRY_LIMITS.attachments);
  most('labels', labels.length, ENTRY_LIMITS.labels);
  most('properties', properties.length, ENTRY_LIMITS.properties);
  most('properties kept from a file', kept.length, ENTRY_LIMITS.kept);
  most('letters in its description', description.length, ENTRY_LIMITS.letters);
  if (image && !image.alt.trim()) throw new Problem('image-text-missing');
}

function most(what: string, count: number, limit: number): void {
  if (count > limit) throw new Problem('entry-too-large', { what, count, limit });
}
