import {
  EMPTY_CONTENT,
  checkRecurrence,
  contentOf,
  fitKind,
  instantOfWhen,
  sameWhen,
  wallOf,
  whenLike,
  zoneOfWhen,
  type Override,
  type Recurrence,
  type When,
} from '../../entries';
import { Problem } from '../../problems';
import { DAY, timeOfWall, wallAt, type ZoneName } from '../../zones';
import { all, componentsOf, first, parameter, type Component } from './components';
import { contentOfFile } from './contentOfFile';
import { decodeFile } from './decode';
import type { DraftEntry, Outcome, ReadItem, ReadResult } from './report';
import { WhenReader, durationFromText, later } from './whenOfFile';
import { zoneReader, type FileZone } from './zoneOfFile';

/** A VEVENT as far as it was read by itself, before masters and overrides are put together. */
interface Piece {
  readonly event: Component;
  readonly uid: string;
  readonly slot: When | null;
  readonly draft: DraftEntry;
  readonly notes: Set<string>;
}

/**
 * Returns the entries of an iCalendar file (RFC 5545) and a report with one line per component.
 *
 * Any line ends, folding, byte-order mark, UTF-8, UTF-16 and Latin-1 are taken; zones are matched to the IANA
 * database, with `home` preferred where several fit. Throws `file-empty`, `file-not-calendar` or `file-malformed`
 * with the line; then nothing of the file is to be used.
 */
export function readCalendar(
  bytes: Uint8Array,
  home: ZoneName,
  /** Is told now and then which share (0 to 1) is read. */
  tell: (share: number) => void = () => undefined,
): ReadResult {
  const { text, notes } = decodeFile(bytes);
  const calendars = componentsOf(text);
  if (calendars.length > 1)
    notes.push(`The file holds ${calendars.length} calendars; all were read into one.`);
  const entries = new Map<string, DraftEntry>();
  const items: ReadItem[] = [];
  for (const calendar of calendars) readOne(calendar, home, entries, items, tell);
  return {
    names: calendars.flatMap((c) => first(c, 'name')?.text ?? first(c, 'x-wr-calname')?.text ?? []),
    entries: [...entries.values()],
    items: items.sort((a, b) => a.line - b.line),
    notes,
  };
}

function readOne(
  calendar: Component,
  home: ZoneName,
  entries: Map<string, DraftEntry>,
  items: ReadItem[],
  tell: (share: number) => void,
): void {
  const zoneOf = zoneReader(calendar, home);
  const groups = new Map<string, Piece[]>();
  for (const [i, child] of calendar.children.entries()) {
    if (i % 500 === 0) tell(i / calendar.children.length);
    if (child.name === 'VTIMEZONE') continue;
    if (child.name !== 'VEVENT' && !isDatedTask(child)) {
      items.push(itemOf(child, 'left-out', [leftOutReason(child.name)]));
      continue;
    }
    try {
      const piece = readEvent(child, zoneOf);
      groups.set(piece.uid, [...(groups.get(piece.uid) ?? []), piece]);
    } catch (error) {
      if (!(error instanceof Problem)) throw error;
      items.push(itemOf(child, 'left-out', [error.message]));
    }
  }
  for (const [uid, pieces] of groups) {
    if (!entries.has(uid)) assemble(pieces, home, entries, items);
    else
      for (const p of pieces)
        items.push(
          itemOf(p.event, 'left-out', [`An entry with the identifier ${uid} stands earlier in the file.`]),
        );
  }
}

function leftOutReason(name: string): string {
  const known: Record<string, string> = {
    VTODO: 'It is a task with no due date; calendars here hold entries with a time.',
    VJOURNAL: 'It is a journal note; calendars here hold entries with a time.',
    VFREEBUSY: 'It is a busy-time statement, not an entry.',
  };
  return known[name] ?? `${name} is not an entry.`;
}

/** A task with a due date, or one that recurs from a start, is a due item. */
function isDatedTask(child: Component): boolean {
  return child.name === 'VTODO' && Boolean(first(child, 'due') ?? first(child, 'dtstart'));
}

function itemOf(event: Component, outcome: Outcome, notes: Iterable<string>): ReadItem {
  return {
    line: event.line,
    uid: first(event, 'uid')?.text ?? '',
    title: String(first(event, 'summary')?.values[0] ?? ''),
    outcome,
    notes: [...notes],
  };
}

function readEvent(event: Component, zoneOf: (tzid: string) => FileZone): Piece {
  const whens = new WhenReader(zoneOf);
  const { notes } = whens;
  const task = event.name === 'VTODO';
  const recurs = RECURS.some((name) => first(event, name));
  const startProperty =
    task && !recurs ? (first(event, 'due') ?? first(event, 'dtstart')) : first(event, 'dtstart');
  if (!startProperty)
    throw new Problem('file-malformed', { line: event.line, reason: 'it has no start (DTSTART)' });
  const start = whens.whens(startProperty)[0]!;
  let uid = first(event, 'uid')?.text.trim() ?? '';
  if (!uid) {
    uid = `line-${event.line}-${wallOf(start)}`;
    notes.add('It has no identifier (UID); it was given one.');
  }
  const slotProperty = first(event, 'recurrence-id');
  if (slotProperty && parameter(slotProperty, 'range')) {
    notes.add('The file changes this and all later dates (RANGE=THISANDFUTURE); only this date was changed.');
  }
  const content = contentOfFile(
    event,
    task ? { ...EMPTY_CONTENT, kind: 'due', shows: 'free' } : EMPTY_CONTENT,
    notes,
  );
  const plannedProperty = first(event, 'x-zonal-planned');
  const draft: DraftEntry = {
    ...content,
    uid,
    start,
    end: task ? start : readEnd(event, start, whens),
    recurrence: readRecurrence(event, start, whens),
    overrides: [],
  };
  if (content.kind === 'milestone' && draft.recurrence) {
    notes.add('A milestone takes place once; as it recurs, it was read as an event.');
  }
  const kind = content.kind === 'milestone' && draft.recurrence ? 'event' : content.kind;
  const planned = plannedProperty ? whens.whens(plannedProperty)[0]! : null;
  return {
    event,
    uid,
    slot: slotProperty ? whens.whens(slotProperty)[0]! : null,
    notes,
    draft: fitKind({ ...draft, kind, planned }),
  };
}

const RECURS = ['rrule', 'rdate', 'recurrence-id'];

/** The end by DTEND, by DURATION, or by RFC 5545 section 3.6.1: one day for a date, no length for a time. */
function readEnd(event: Component, start: When, whens: WhenReader): When {
  const least = start.kind === 'date' ? later(start, DAY) : start;
  const property = first(event, 'dtend');
  const duration = first(event, 'duration');
  let end = least;
  if (property) end = whens.whens(property)[0]!;
  else if (duration) {
    const length = durationFromText(duration.text);
    if (length === null)
      whens.notes.add(`Its duration “${duration.text}” cannot be read; it was given no length.`);
    end = length === null ? least : later(start, length);
  }
  if (end.kind !== start.kind) {
    if (end.kind === 'date' || start.kind === 'date')
      whens.notes.add('Start and end are of different kinds; the end was fitted to the start.');
    end = start.kind === 'zoned' && end.kind === 'zoned' ? end : whenLike(start, wallOf(end));
  }
  const length = instantOfWhen(end, 'UTC') - instantOfWhen(start, 'UTC');
  if (length < 0 || (length === 0 && start.kind === 'date')) {
    // Some programs write a one-day entry with its own day as end.
    if (length < 0) whens.notes.add('Its end is before its start; it was given the least length.');
    end = least;
  }
  return end;
}

function readRecurrence(event: Component, start: When, whens: WhenReader): Recurrence | null {
  const rules = all(event, 'rrule');
  const dates = all(event, 'rdate').flatMap((p) => {
    if (p.text.includes('/'))
      whens.notes.add('Further dates with lengths of their own were given the length of the first.');
    return whens.whens(p);
  });
  if (!rules.length && !dates.length) return null;
  if (rules.length > 1) whens.notes.add('It has several rules; only the first was read.');
  if (all(event, 'exrule').length)
    whens.notes.add('It has a rule of exceptions (EXRULE), which was left out: there may be too many dates.');
  const recurrence: Recurrence = {
    rule: rules[0]?.text.trim() ?? '',
    dates,
    exceptDates: all(event, 'exdate').flatMap((p) => whens.whens(p)),
  };
  try {
    checkRecurrence({ start, recurrence });
    return recurrence;
  } catch (error) {
    if (!(error instanceof Problem)) throw error;
    whens.notes.add(`${error.message} Only its first date and dates given one by one were read.`);
    return dates.length ? { ...recurrence, rule: '' } : null;
  }
}

/** Puts a master and its overrides together; overrides with no master become entries of their own. */
function assemble(
  pieces: readonly Piece[],
  home: ZoneName,
  entries: Map<string, DraftEntry>,
  items: ReadItem[],
): void {
  const masters = pieces.filter((p) => !p.slot);
  const master = newest(masters);
  for (const older of masters) {
    if (older !== master)
      items.push(itemOf(older.event, 'left-out', ['A newer version of this entry stands in the file.']));
  }
  const overrides = new Map<number, { override: Override; piece: Piece }>();
  for (const piece of pieces) {
    if (!piece.slot) continue;
    if (!master?.draft.recurrence) {
      aloneEntry(piece, master, entries);
      items.push(itemOf(piece.event, 'changed', piece.notes));
      continue;
    }
    const slot = slotOn(master.draft.start, piece.slot, home);
    if (!sameWhen(slot, piece.slot))
      piece.notes.add('The date that it replaces was fitted to the clock of its series.');
    const before = overrides.get(wallOf(slot));
    const kept = before ? newest([before.piece, piece])! : piece;
    const dropped = before && (kept === piece ? before.piece : piece);
    if (dropped)
      items.push(itemOf(dropped.event, 'left-out', ['A newer version of this date stands in the file.']));
    if (kept === piece) {
      const { start, end } = piece.draft;
      overrides.set(wallOf(slot), { piece, override: { slot, start, end, content: contentOf(piece.draft) } });
    }
  }
  for (const { piece } of overrides.values())
    items.push(itemOf(piece.event, piece.notes.size ? 'changed' : 'read', piece.notes));
  if (!master) return;
  // In the order of their slots, as the editor keeps them.
  const changed = [...overrides].sort(([a], [b]) => a - b).map(([, o]) => o.override);
  entries.set(master.uid, fitKind({ ...master.draft, overrides: changed }));
  items.push(itemOf(master.event, master.notes.size ? 'changed' : 'read', master.notes));
}

function aloneEntry(piece: Piece, master: Piece | undefined, entries: Map<string, DraftEntry>): void {
  piece.notes.add(
    master
      ? 'It changes one date of an entry that does not recur; it was read as an entry of its own.'
      : 'The series that it belongs to is not in the file; it was read as an entry of its own.',
  );
  const uid = `${piece.uid}/${first(piece.event, 'recurrence-id')!.text}`;
  const slot = piece.slot!;
  entries.set(uid, {
    ...piece.draft,
    uid,
    recurrence: null,
    ...(master ? {} : { detachedFrom: { uid: piece.uid, slot } }),
  });
}

/** Returns the piece with the highest SEQUENCE; of equals the last in the file. */
function newest(pieces: readonly Piece[]): Piece | undefined {
  const sequence = (p: Piece) => Number(first(p.event, 'sequence')?.text ?? 0) || 0;
  return pieces.reduce<Piece | undefined>(
    (best, p) => (!best || sequence(p) >= sequence(best) ? p : best),
    undefined,
  );
}

/** Returns a RECURRENCE-ID on the clock of the series; a date stands for the time of day at which the series is. */
function slotOn(start: When, slot: When, home: ZoneName): When {
  if (slot.kind === start.kind && (slot.kind !== 'zoned' || slot.zone === (start as typeof slot).zone))
    return slot;
  if (start.kind === 'date') return whenLike(start, wallOf(slot));
  if (slot.kind === 'date') return whenLike(start, wallOf(slot) + timeOfWall(wallOf(start)));
  return whenLike(start, wallAt(zoneOfWhen(start, home), instantOfWhen(slot, home)));
}
