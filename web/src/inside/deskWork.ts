import type { Calendar } from '@zonal/core/api';
import type { Entry } from '@zonal/core/entries';
import { may } from '@zonal/core/rights';
import { dayAt } from '@zonal/core/zones';
import type { Editing } from './entryDraft';

/** What is open beside the views. */
export type Work =
  | { readonly kind: 'entry'; readonly editing: Editing }
  | { readonly kind: 'calendar'; readonly calendar: Calendar | null }
  | { readonly kind: 'import' | 'export' | 'bulk' };

/** Returns the work of writing a new entry today, in the calendar written last or the first in which one may write; null for none. */
export function firstEntry(calendars: readonly Calendar[], lastCalendarId: string, now: number): Work | null {
  const writable = calendars.filter((c) => !c.archivedAt && c.onDesk && may('write', c.who));
  const calendar = writable.find((c) => c.id === lastCalendarId) ?? writable[0];
  if (!calendar) return null;
  return { kind: 'entry', editing: { calendarId: calendar.id, day: dayAt(calendar.zone, now) } };
}

/** Returns the entry that is being edited as it is saved now, as far as the days in sight show it. */
export function currentOf(editing: Editing, entries: ReadonlyMap<string, readonly Entry[]>): Entry | null {
  if (!('entry' in editing)) return null;
  const { id, calendarId } = editing.entry;
  return entries.get(calendarId)?.find((entry) => entry.id === id) ?? null;
}

/** Returns what is only looked at: an entry of a calendar in which one may not write. */
export function glanceOf(editing: Editing, calendars: readonly Calendar[]) {
  if (!('entry' in editing)) return null;
  const calendar = calendars.find((c) => c.id === editing.entry.calendarId)!;
  return may('write', calendar.who) ? null : { entry: editing.entry, date: editing.date, calendar };
}
