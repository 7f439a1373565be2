import {
  changeDate,
  fieldsApart,
  printOfEntry,
  sequenceOf,
  slotsOf,
  usualAt,
  wallOf,
  whenLike,
  contentOf,
  type Entry,
  type Imported,
  type SaidField,
  type When,
} from '../entries';
import { DAY, instantOf, type ZoneName } from '../zones';
import type { InsideLanguage } from '../texts/languages';
import { slotOn } from './read/assemble';
import { fileTexts } from './read/fileTexts';
import type { Cancelled, DraftEntry, ReadResult } from './read/report';

export const MERGE_KINDS = ['new', 'changed', 'conflict', 'same', 'left-out'] as const;
/** What bringing in one entry of a file would do. */
export type MergeKind = (typeof MERGE_KINDS)[number];

/** One line of the preview of an import. */
export interface MergeItem {
  readonly kind: MergeKind;
  readonly title: string;
  /** Null for what has no time, such as a component that is no entry. */
  readonly start: When | null;
  readonly reason: string;
  /** Names of the fields in which file and calendar differ. */
  readonly fields: readonly SaidField[];
  /** The entry in the calendar, where there is one. */
  readonly existing: Entry | null;
  /** What would be stored; null for what is the same or left out. */
  readonly draft: DraftEntry | null;
  readonly imported: Imported | null;
}

/**
 * Returns what bringing a file into a calendar would do, entry by entry. Entries are matched by their UID, single
 * changed dates besides by their RECURRENCE-ID (RFC 5545 section 3.8.4.4). An entry that was changed here *and* in
 * the file since it was last brought in is in conflict; one that the file holds in an older version is left out.
 */
export function mergePlan(
  file: ReadResult,
  existing: readonly Entry[],
  home: ZoneName,
  /** Is told now and then which share (0 to 1) is compared. */
  tell: (share: number) => void = () => undefined,
  language: InsideLanguage = 'en',
): MergeItem[] {
  const t = fileTexts(language);
  const known = new Map(existing.map((e) => [e.uid, e]));
  const notes = new Map(
    file.items.filter((i) => i.outcome !== 'left-out').map((i) => [`${i.uid}`, i.notes.join(' ')]),
  );
  const items = file.entries.map((draft, i) => {
    if (i % 500 === 0) tell(i / file.entries.length);
    const item = itemOf(draft, known, home, t);
    const note = notes.get(draft.uid);
    return note ? { ...item, reason: `${item.reason} ${note}`.trim() } : item;
  });
  const left = file.items
    .filter((i) => i.outcome === 'left-out')
    .map((i): MergeItem => ({
      ...NOTHING,
      kind: 'left-out',
      title: i.title || i.uid || t('line', { line: i.line }),
      start: null,
      reason: t('lineSays', { line: i.line, reason: i.notes.join(' ') }),
    }));
  return [...items, ...file.cancelled.map((c) => takenBack(c, known, home, t)), ...left];
}

/** What a file takes back stays, marked as cancelled. */
function takenBack(
  { uid, slot, title, start, line }: Cancelled,
  known: ReadonlyMap<string, Entry>,
  home: ZoneName,
  t: FileText,
): MergeItem {
  const mine = known.get(uid);
  const base = { ...NOTHING, title: mine?.title ?? (title || uid), start };
  const wall = mine && slot && wallOf(slotOn(mine.start, slot, home));
  if (!mine || (slot && (!mine.recurrence || !hasSlot(mine, whenLike(mine.start, wall!), home)))) {
    return { ...base, kind: 'left-out', reason: t(mine ? 'noDateToCancel' : 'nothingToCancel', { line }) };
  }
  const after = slot
    ? cancelledAt(mine, whenLike(mine.start, wall!))
    : { ...mine, status: 'cancelled' as const };
  const same = printOfEntry(after) === printOfEntry(mine);
  const { id: _id, calendarId: _calendar, version: _version, imported, ...draft } = after;
  return {
    ...base,
    kind: same ? 'same' : 'changed',
    reason: t(slot ? 'dateCancelled' : 'entryCancelled'),
    fields: same ? [] : [slot ? 'overrides' : 'status'],
    existing: mine,
    draft: same ? null : draft,
    imported: imported ?? null,
  };
}

function cancelledAt(entry: Entry, slot: When): Entry {
  const at = entry.overrides.find((o) => wallOf(o.slot) === wallOf(slot)) ?? usualAt(entry, slot);
  return changeDate(entry, slot, { ...at, content: { ...contentOf(at.content), status: 'cancelled' } });
}

type FileText = ReturnType<typeof fileTexts>;

const NOTHING = { fields: [], existing: null, draft: null, imported: null } as const;

function itemOf(
  draft: DraftEntry,
  known: ReadonlyMap<string, Entry>,
  home: ZoneName,
  t: FileText,
): MergeItem {
  const series = draft.detachedFrom && known.get(draft.detachedFrom.uid);
  if (series?.recurrence && hasSlot(series, draft.detachedFrom!.slot, home)) {
    return dateOf(draft, series, draft.detachedFrom!.slot, t);
  }
  const imported = { print: printOfEntry(draft), sequence: sequenceOf(draft) };
  const mine = known.get(draft.uid) ?? null;
  const base = { title: draft.title, start: draft.start, existing: mine, draft, imported, fields: [] };
  if (!mine) return { ...base, kind: 'new', reason: '' };
  const ours = printOfEntry(mine);
  if (ours === imported.print) return { ...base, kind: 'same', draft: null, reason: '' };
  const fields = fieldsApart(mine, draft);
  const last = mine.imported;
  if (last && imported.sequence < last.sequence) {
    return {
      ...base,
      kind: 'left-out',
      draft: null,
      reason: t('olderVersion', { sent: imported.sequence, stored: last.sequence }),
    };
  }
  if (last?.print === imported.print) {
    return {
      ...base,
      kind: 'same',
      draft: null,
      fields,
      reason: t('changedHere'),
    };
  }
  if (last?.print === ours) return { ...base, kind: 'changed', fields, reason: '' };
  return {
    ...base,
    kind: 'conflict',
    fields,
    reason: t(last ? 'changedBoth' : 'writtenHere'),
  };
}

/** One changed date of a series that stands in the calendar. */
function dateOf(draft: DraftEntry, series: Entry, slot: When, t: FileText): MergeItem {
  const own = series.overrides.find((o) => wallOf(o.slot) === wallOf(slot));
  const content = { ...contentOf(draft), kind: series.kind, planned: null };
  const after = changeDate(series, own?.slot ?? slot, { start: draft.start, end: draft.end, content });
  const same = printOfEntry(after) === printOfEntry(series);
  const { id: _id, calendarId: _calendar, version: _version, imported, ...rest } = after;
  return {
    kind: same ? 'same' : 'changed',
    title: draft.title,
    start: draft.start,
    reason: same ? '' : t('dateOfSeries'),
    fields: same ? [] : ['overrides'],
    existing: series,
    draft: same ? null : rest,
    imported: imported ?? null,
  };
}

function hasSlot(series: Entry, slot: When, home: ZoneName): boolean {
  const at = instantOf(home, wallOf(slot));
  return slotsOf(series, { from: at - 2 * DAY, to: at + 2 * DAY }, home).includes(wallOf(slot));
}
