import type { EntryChange } from '@zonal/core/api';
import { changeDate, moveSeries, skipDate, type Content, type Entry, type When } from '@zonal/core/entries';
import { Problem } from '@zonal/core/problems';
import type { ZoneName } from '@zonal/core/zones';
import { adding, alone, atDate, both, deleting, inputOfEntry, replacing, shiftedDate } from './changes';
import type { DeskItem } from './deskDays';

/** What is done to several entries at once. */
export type BulkAction =
  | { readonly kind: 'shift'; readonly days: number }
  | { readonly kind: 'move'; readonly calendarId: string }
  | { readonly kind: 'label'; readonly label: string }
  | { readonly kind: 'unlabel'; readonly label: string }
  | { readonly kind: 'hold'; readonly hold: Content['hold'] }
  | { readonly kind: 'duplicate'; readonly days: number }
  | { readonly kind: 'delete' };

/** Whether the selected dates of a series are changed alone, or the whole series. */
export type BulkScope = 'dates' | 'series';

/** Returns the content after an action that changes content, or null for the other actions. */
function changedContent<C extends Content>(content: C, action: BulkAction): C | null {
  const { labels } = content;
  if (action.kind === 'hold') return { ...content, hold: action.hold };
  if (action.kind === 'label')
    return labels.includes(action.label) ? content : { ...content, labels: [...labels, action.label] };
  if (action.kind === 'unlabel')
    return { ...content, labels: labels.filter((label) => label !== action.label) };
  return null;
}

/** Returns the changes for an entry as a whole, with all its dates. */
function changesOfWhole(entry: Entry, action: BulkAction): EntryChange[] {
  const shifted = (days: number) => {
    const { start, end } = shiftedDate({ ...entry, content: entry }, both(days));
    return moveSeries(entry, start, end);
  };
  switch (action.kind) {
    case 'shift':
      return [replacing(shifted(action.days))];
    case 'move':
      return entry.calendarId === action.calendarId ? [] : [replacing(entry, action.calendarId)];
    case 'duplicate':
      return [adding(entry.calendarId, inputOfEntry(shifted(action.days)))];
    case 'delete':
      return [deleting(entry)];
    default: {
      const overrides = entry.overrides.map((o) => ({ ...o, content: changedContent(o.content, action)! }));
      return [replacing({ ...changedContent(entry, action)!, overrides })];
    }
  }
}

/** Returns the changes for some dates of a series: one that stores the series, and those that store what leaves it. */
function changesOfDates(
  entry: Entry,
  slots: readonly When[],
  action: BulkAction,
  home: ZoneName,
): EntryChange[] {
  const own = (slot: When, days: number) => {
    const input = alone({ entry, slot });
    const { start, end } = shiftedDate({ ...input, content: input }, both(days));
    return { ...input, start, end };
  };
  if (action.kind === 'duplicate')
    return slots.map((slot) => adding(entry.calendarId, own(slot, action.days)));
  if (action.kind === 'move' && entry.calendarId === action.calendarId) return [];
  const leaving =
    action.kind === 'move' ? slots.map((slot) => adding(action.calendarId, own(slot, 0), entry.id)) : [];
  let series = entry;
  for (const slot of slots) {
    if (action.kind === 'move' || action.kind === 'delete') {
      const left = withoutDate(series, slot, home);
      // Its last date goes, and with it the series.
      if (!left) return [...leaving, deleting(entry)];
      series = left;
      continue;
    }
    const at = atDate(series, slot);
    const changed =
      action.kind === 'shift'
        ? shiftedDate(at, both(action.days))
        : { ...at, content: changedContent(at.content, action)! };
    series = changeDate(series, slot, changed);
  }
  return [replacing(series), ...leaving];
}

/** Returns a series without one of its dates, or null if no date would be left. */
function withoutDate(series: Entry, slot: When, home: ZoneName): Entry | null {
  try {
    return skipDate(series, slot, home);
  } catch (error) {
    if (error instanceof Problem && error.code === 'rule-invalid') return null;
    throw error;
  }
}

/**
 * Returns the changes that do something to all selected items, each entry in one change. `homeOf` returns the zone of a calendar.
 * Throws a Problem if a series cannot be changed so.
 */
export function bulkChanges(
  items: readonly DeskItem[],
  action: BulkAction,
  scope: BulkScope,
  homeOf: (calendarId: string) => ZoneName,
): EntryChange[] {
  const byEntry = new Map<string, { entry: Entry; slots: When[] }>();
  for (const { entry, one } of items) {
    const group = byEntry.get(entry.id) ?? { entry, slots: [] };
    if (one.slot && scope === 'dates') group.slots.push(one.slot);
    byEntry.set(entry.id, group);
  }
  return [...byEntry.values()].flatMap(({ entry, slots }) =>
    slots.length
      ? changesOfDates(entry, slots, action, homeOf(entry.calendarId))
      : changesOfWhole(entry, action),
  );
}
