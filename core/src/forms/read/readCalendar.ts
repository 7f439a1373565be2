import { changeDate, contentOf, usualAt, wallOf, whenLike } from '../../entries';
import { Problem } from '../../problems';
import type { Instant, ZoneName } from '../../zones';
import { assemble, itemOf, slotOn } from './assemble';
import { componentsOf, first, type Component } from './components';
import { decodeFile } from './decode';
import type { InsideLanguage } from '../../texts/languages';
import { fileTexts } from './fileTexts';
import { readEvent, type Piece } from './readEvent';
import type { Cancelled, DraftEntry, ReadItem, ReadResult } from './report';
import { zoneReader } from './zoneOfFile';

export interface ReadOptions {
  /** Dates that have to be written one by one are written up to ten years after this. */
  readonly now: Instant;
  /** Called now and then with the share (0 to 1) that is read (default: nothing). */
  readonly tell?: (share: number) => void;
  /** Of the report (default: English). */
  readonly language?: InsideLanguage;
}

/**
 * Returns the entries of an iCalendar file (RFC 5545), what it takes back, and a report with one line per component.
 *
 * Any line ends, folding, byte-order mark, UTF-8, UTF-16 and Latin-1 are taken; zones are matched to the IANA
 * database, with those of `homes` preferred where several fit: the calendar's own first. Throws `file-empty`,
 * `file-not-calendar`, `file-version-old` or `file-malformed` with the line; then nothing of the file is to be used.
 */
export function readCalendar(
  bytes: Uint8Array,
  homes: ZoneName | readonly ZoneName[],
  { now, tell = () => undefined, language = 'en' }: ReadOptions,
): ReadResult {
  const { text, notes } = decodeFile(bytes, language);
  const calendars = componentsOf(text, language);
  if (calendars.length > 1) notes.add('severalCalendars', { count: calendars.length });
  const likely = typeof homes === 'string' ? [homes] : homes;
  const home = likely[0]!;
  const items: ReadItem[] = [];
  const groups = new Map<string, Piece[]>();
  const taken: Piece[] = [];
  for (const calendar of calendars) {
    checkVersion(calendar);
    for (const note of calendar.notes) notes.addText(note);
    const cancels = first(calendar, 'method')?.text.trim().toUpperCase() === 'CANCEL';
    for (const piece of piecesOf(calendar, likely, items, { now, tell, language })) {
      if (cancels) taken.push(piece);
      else if (groups.has(piece.uid)) groups.get(piece.uid)!.push(piece);
      else groups.set(piece.uid, [piece]);
    }
  }
  const entries = new Map<string, DraftEntry>();
  for (const pieces of groups.values()) assemble(pieces, { home, now, language }, entries, items);
  const cancelled = taken.map((piece) => takenBack(piece, home, entries, items));
  return {
    names: calendars.flatMap((c) => first(c, 'name')?.text ?? first(c, 'x-wr-calname')?.text ?? []),
    entries: [...entries.values()],
    cancelled: cancelled.filter((c) => c !== null),
    items: items.sort((a, b) => a.line - b.line),
    notes: [...notes],
  };
}

function checkVersion(calendar: Component): void {
  const version = first(calendar, 'version');
  if (version?.text.trim() === '1.0')
    throw new Problem('file-version-old', { line: version.line, version: '1.0' });
}

function piecesOf(
  calendar: Component,
  homes: readonly ZoneName[],
  items: ReadItem[],
  { now, tell, language }: Required<ReadOptions>,
): Piece[] {
  const zoneOf = zoneReader(calendar, homes, now, language);
  const pieces: Piece[] = [];
  for (const [i, child] of calendar.children.entries()) {
    if (i % 500 === 0) tell(i / calendar.children.length);
    if (child.name === 'VTIMEZONE') continue;
    if (child.name !== 'VEVENT' && !isDatedTask(child)) {
      items.push(itemOf(child, 'left-out', [leftOutReason(child.name, language)]));
      continue;
    }
    try {
      pieces.push(readEvent(child, zoneOf, { home: homes[0]!, now, language }));
    } catch (error) {
      if (!(error instanceof Problem)) throw error;
      child.notes.addProblem(error);
      items.push(itemOf(child, 'left-out', child.notes));
    }
  }
  return pieces;
}

/** Why a component of a name is never an entry. */
const NO_ENTRY = { VTODO: 'noDueDate', VJOURNAL: 'isJournal', VFREEBUSY: 'isFreeBusy' } as const;

function leftOutReason(name: string, language: InsideLanguage): string {
  const t = fileTexts(language);
  return Object.hasOwn(NO_ENTRY, name)
    ? t(NO_ENTRY[name as keyof typeof NO_ENTRY])
    : t('isNoEntry', { name });
}

/** A task with a due date, or one that has a start, is a due item. */
function isDatedTask(child: Component): boolean {
  return child.name === 'VTODO' && Boolean(first(child, 'due') ?? first(child, 'dtstart'));
}

/**
 * What METHOD:CANCEL takes back (RFC 5546 section 3.2.5): an entry of the same file is marked as cancelled at once, one
 * of the calendar when the file is brought in.
 */
function takenBack(
  piece: Piece,
  home: ZoneName,
  entries: Map<string, DraftEntry>,
  items: ReadItem[],
): Cancelled | null {
  const { uid, slot, event, draft } = piece;
  const own = entries.get(uid);
  const note = (key: 'cancelsEntry' | 'cancelsDate' | 'takesDateBack' | 'takesEntryBack') => {
    piece.notes.add(key);
    items.push(itemOf(event, 'changed', piece.notes));
  };
  if (own && !slot) {
    entries.set(uid, { ...own, status: 'cancelled' });
    note('cancelsEntry');
    return null;
  }
  if (own?.recurrence && slot) {
    const wall = wallOf(slotOn(own.start, slot, home));
    const at = own.overrides.find((o) => wallOf(o.slot) === wall) ?? usualAt(own, whenLike(own.start, wall));
    const content = { ...contentOf(at.content), status: 'cancelled' as const };
    entries.set(uid, changeDate(own, whenLike(own.start, wall), { ...at, content }));
    note('cancelsDate');
    return null;
  }
  note(slot ? 'takesDateBack' : 'takesEntryBack');
  return { uid, slot, title: draft.title, start: slot ?? draft.start, line: event.line };
}
