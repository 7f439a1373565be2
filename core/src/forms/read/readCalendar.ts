import { changeDate, contentOf, usualAt, wallOf, whenLike } from '../../entries';
import { Problem } from '../../problems';
import type { Instant, ZoneName } from '../../zones';
import { assemble, itemOf, slotOn } from './assemble';
import { componentsOf, first, type Component } from './components';
import { decodeFile } from './decode';
import { readEvent, type Piece } from './readEvent';
import type { Cancelled, DraftEntry, ReadItem, ReadResult } from './report';
import { zoneReader } from './zoneOfFile';

export interface ReadOptions {
  /** Dates that have to be written one by one are written up to ten years after this. */
  readonly now: Instant;
  /** Called now and then with the share (0 to 1) that is read (default: nothing). */
  readonly tell?: (share: number) => void;
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
  { now, tell = () => undefined }: ReadOptions,
): ReadResult {
  const { text, notes } = decodeFile(bytes);
  const calendars = componentsOf(text);
  if (calendars.length > 1)
    notes.push(`The file holds ${calendars.length} calendars; all were read into one.`);
  const likely = typeof homes === 'string' ? [homes] : homes;
  const home = likely[0]!;
  const items: ReadItem[] = [];
  const groups = new Map<string, Piece[]>();
  const taken: Piece[] = [];
  for (const calendar of calendars) {
    checkVersion(calendar);
    notes.push(...calendar.notes);
    const cancels = first(calendar, 'method')?.text.trim().toUpperCase() === 'CANCEL';
    for (const piece of piecesOf(calendar, likely, items, now, tell)) {
      if (cancels) taken.push(piece);
      else if (groups.has(piece.uid)) groups.get(piece.uid)!.push(piece);
      else groups.set(piece.uid, [piece]);
    }
  }
  const entries = new Map<string, DraftEntry>();
  for (const pieces of groups.values()) assemble(pieces, { home, now }, entries, items);
  const cancelled = taken.map((piece) => takenBack(piece, home, entries, items));
  return {
    names: calendars.flatMap((c) => first(c, 'name')?.text ?? first(c, 'x-wr-calname')?.text ?? []),
    entries: [...entries.values()],
    cancelled: cancelled.filter((c) => c !== null),
    items: items.sort((a, b) => a.line - b.line),
    notes,
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
  now: Instant,
  tell: (share: number) => void,
): Piece[] {
  const zoneOf = zoneReader(calendar, homes, now);
  const pieces: Piece[] = [];
  for (const [i, child] of calendar.children.entries()) {
    if (i % 500 === 0) tell(i / calendar.children.length);
    if (child.name === 'VTIMEZONE') continue;
    if (child.name !== 'VEVENT' && !isDatedTask(child)) {
      items.push(itemOf(child, 'left-out', [leftOutReason(child.name)]));
      continue;
    }
    try {
      pieces.push(readEvent(child, zoneOf, { home: homes[0]!, now }));
    } catch (error) {
      if (!(error instanceof Problem)) throw error;
      items.push(itemOf(child, 'left-out', [...child.notes, error.message]));
    }
  }
  return pieces;
}

function leftOutReason(name: string): string {
  const known: Record<string, string> = {
    VTODO: 'It is a task with no due date; calendars here hold entries with a time.',
    VJOURNAL: 'It is a journal note; calendars here hold entries with a time.',
    VFREEBUSY: 'It is a busy-time statement, not an entry.',
  };
  return known[name] ?? `${name} is not an entry.`;
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
  const note = (text: string) => items.push(itemOf(event, 'changed', [...piece.notes, text]));
  if (own && !slot) {
    entries.set(uid, { ...own, status: 'cancelled' });
    note('It takes an entry of the file back; that was read as cancelled.');
    return null;
  }
  if (own?.recurrence && slot) {
    const wall = wallOf(slotOn(own.start, slot, home));
    const at = own.overrides.find((o) => wallOf(o.slot) === wall) ?? usualAt(own, whenLike(own.start, wall));
    const content = { ...contentOf(at.content), status: 'cancelled' as const };
    entries.set(uid, changeDate(own, whenLike(own.start, wall), { ...at, content }));
    note('It takes one date of an entry of the file back; that was read as cancelled.');
    return null;
  }
  note(slot ? 'It takes one date back (METHOD:CANCEL).' : 'It takes an entry back (METHOD:CANCEL).');
  return { uid, slot, title: draft.title, start: slot ?? draft.start, line: event.line };
}
