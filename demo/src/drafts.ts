import { EMPTY_CONTENT, type Content, type Override, type When } from '@zonal/core/entries';
import type { DraftEntry } from '@zonal/core/forms';
import { DAY, MINUTE, dayToText, wallToText, type Day } from '@zonal/core/zones';

export const HOME = 'America/Halifax';

type Given = Partial<Content> & { title: string };

/** Returns a time of a day in the harbour's zone; `minutes` are counted from midnight. */
export function at(day: Day, minutes: number, zone = HOME): When {
  return { kind: 'zoned', at: wallToText(day * DAY + minutes * MINUTE), zone };
}

export function date(day: Day): When {
  return { kind: 'date', date: dayToText(day) };
}

/** Returns minutes since midnight of `14:30`. */
export function clock(text: string): number {
  const [hours, minutes] = text.split(':').map(Number);
  return hours! * 60 + minutes!;
}

export function content(given: Given): Content {
  return { ...EMPTY_CONTENT, ...given };
}

/** Returns an entry with a time of day; `minutes` is its length. */
export function timed(
  uid: string,
  day: Day,
  from: string | number,
  minutes: number,
  given: Given,
): DraftEntry {
  const start = typeof from === 'string' ? clock(from) : from;
  return {
    ...content(given),
    uid,
    start: at(day, start),
    end: at(day, start + minutes),
    recurrence: null,
    overrides: [],
  };
}

/** Returns an entry of whole days. */
export function allDay(uid: string, day: Day, days: number, given: Given): DraftEntry {
  return {
    ...content(given),
    uid,
    start: date(day),
    end: date(day + days),
    recurrence: null,
    overrides: [],
  };
}

/** Returns an entry made to recur; `skip` are days on which it does not take place. */
export function recurring(
  entry: DraftEntry,
  rule: string,
  skip: readonly Day[] = [],
  overrides: readonly Override[] = [],
): DraftEntry {
  const time = entry.start.kind === 'date' ? null : clock(entry.start.at.slice(11, 16));
  const exceptDates = skip.map((day) => (time === null ? date(day) : at(day, time)));
  return { ...entry, recurrence: { rule, dates: [], exceptDates }, overrides: [...overrides] };
}

/** Returns a change of one date of a recurring entry: moved by minutes, with some content of its own. */
export function changed(entry: DraftEntry, day: Day, byMinutes: number, given: Partial<Content>): Override {
  const [from, to] = [entry.start, entry.end].map((w) => (w.kind === 'date' ? 0 : clock(w.at.slice(11, 16))));
  const length = to! >= from! ? to! - from! : to! + 1440 - from!;
  const {
    uid: _uid,
    start: _start,
    end: _end,
    recurrence: _recurrence,
    overrides: _overrides,
    ...own
  } = entry;
  return {
    slot: at(day, from!),
    start: at(day, from! + byMinutes),
    end: at(day, from! + byMinutes + length),
    content: { ...own, ...given },
  };
}
