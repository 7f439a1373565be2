import {
  changeDate,
  changeOnward,
  contentOf,
  cutSeries,
  moveSeries,
  skipDate,
  usualAt,
  wallOf,
  whenLike,
  type AtDate,
  type Entry,
  type Scope,
  type When,
} from '@zonal/core/entries';
import { DAY, type Wall, type ZoneName } from '@zonal/core/zones';
import type { EntryChange, EntryInput } from '@zonal/core/api';
import type { Edit } from './useEdits';
import { t } from '../texts/inside';

/** An entry with the date of it that is meant; no slot for one that does not recur. */
export interface Target {
  readonly entry: Entry;
  readonly slot: When | null;
}

/** By how much the ends of an entry are moved, in milliseconds of clock time. */
export interface Shift {
  readonly start: number;
  readonly end: number;
}

/** Returns an entry as it is sent. */
export function inputOfEntry(entry: Omit<EntryInput, 'version'>): EntryInput {
  const { start, end, recurrence, overrides } = entry;
  return { ...contentOf(entry), start, end, recurrence, overrides };
}

/** Returns the change that stores an entry in place of itself. */
export function replacing(entry: Entry, calendarId = entry.calendarId): EntryChange {
  const { id, uid, version, imported } = entry;
  return { id, uid, version, calendarId, imported: imported ?? null, entry: inputOfEntry(entry) };
}

/** Returns the change that writes a new entry; `continues` is the id of the one that it was a part of until now. */
export function adding(calendarId: string, entry: EntryInput, continues?: string): EntryChange {
  return { version: 0, calendarId, entry: inputOfEntry(entry), ...(continues ? { continues } : {}) };
}

/** Returns the change that deletes an entry. */
export function deleting({ id, version, calendarId }: Entry): EntryChange {
  return { id, version, calendarId, entry: null };
}

/** Returns what an entry says at one of its dates. */
export function atDate(entry: Entry, slot: When): AtDate {
  return entry.overrides.find((o) => wallOf(o.slot) === wallOf(slot)) ?? usualAt(entry, slot);
}

/** Returns one date moved by a shift; an end that would come before the start stays with it. */
export function shiftedDate({ start, end, content }: AtDate, shift: Shift): AtDate {
  const from = whenLike(start, wallOf(start) + shift.start);
  const to = whenLike(end, wallOf(end) + shift.end);
  return { start: from, end: wallOf(to) < wallOf(from) ? from : to, content };
}

/** Returns the changes that move the dates that are meant, or one of their ends, within their calendar. */
export function shifting({ entry, slot }: Target, shift: Shift, scope: Scope): EntryChange[] {
  if (!slot || scope === 'all') {
    const { start, end } = shiftedDate({ ...entry, content: entry }, shift);
    return [replacing(moveSeries(entry, start, end))];
  }
  const at = shiftedDate(scope === 'this' ? atDate(entry, slot) : usualAt(entry, slot), shift);
  if (scope === 'this') return [replacing(changeDate(entry, slot, at))];
  return splitting(entry, changeOnward(entry, slot, at));
}

/** Returns the changes that store a series cut in two; the later part becomes an entry of its own. */
export function splitting(
  entry: Entry,
  { before, from }: { before: Entry | null; from: Entry },
): EntryChange[] {
  if (!before) return [replacing(from)];
  return [replacing({ ...before, version: entry.version }), adding(entry.calendarId, from, entry.id)];
}

/** Returns an entry that is the date that is meant, by itself. */
export function alone({ entry, slot }: Target): EntryInput {
  if (!slot) return inputOfEntry(entry);
  const { start, end, content } = atDate(entry, slot);
  return { ...contentOf(content), start, end, recurrence: null, overrides: [] };
}

/** Returns the changes that take the dates that are meant to another calendar, moved by a shift. */
export function carrying(
  target: Target,
  to: string,
  shift: Shift,
  scope: Scope,
  home: ZoneName,
): EntryChange[] {
  const { entry, slot } = target;
  if (!slot || scope === 'all') {
    const [change] = shifting(target, shift, 'all');
    return [{ ...change!, calendarId: to }];
  }
  if (scope === 'this') {
    return [replacing(skipDate(entry, slot, home)), adding(to, shifted(alone(target), shift), entry.id)];
  }
  const { before, from } = cutSeries(entry, slot);
  if (!before) return carrying(target, to, shift, 'all', home);
  const { start, end } = shiftedDate({ ...from, content: from }, shift);
  return [
    replacing({ ...before, version: entry.version }),
    adding(to, moveSeries(from, start, end), entry.id),
  ];
}

function shifted(input: EntryInput, shift: Shift): EntryInput {
  const { start, end } = shiftedDate({ ...input, content: input }, shift);
  return { ...input, start, end };
}

/** Returns the change that writes a copy of the date that is meant, moved by a shift. */
export function copying(target: Target, to: string, shift: Shift): EntryChange[] {
  return [adding(to, shifted(alone(target), shift))];
}

/** Returns the changes that take the dates that are meant away. */
export function removing({ entry, slot }: Target, scope: Scope, home: ZoneName): EntryChange[] {
  if (!slot || scope === 'all') return [deleting(entry)];
  if (scope === 'this') return [replacing(skipDate(entry, slot, home))];
  const { before } = cutSeries(entry, slot);
  return [before ? replacing({ ...before, version: entry.version }) : deleting(entry)];
}

/** Returns a shift of both ends by whole days and milliseconds. */
export function both(days: number, ms: Wall = 0): Shift {
  return { start: days * DAY + ms, end: days * DAY + ms };
}

/** The messages that name an edit of one entry by its title. */
export type EditLabel =
  | 'labelWrote'
  | 'labelChanged'
  | 'labelRestored'
  | 'labelDeleted'
  | 'labelSkipped'
  | 'labelEnded'
  | 'labelMoved'
  | 'labelResized'
  | 'labelCopied';

/** Returns an edit named for what it does to an entry. */
export function named(label: EditLabel, entry: Pick<Entry, 'title'>, changes: readonly EntryChange[]): Edit {
  return { label: t(label, { title: entry.title || t('untitled') }).slice(0, 300), changes };
}
