import {
  checkedEntry,
  contentOf,
  fitKind,
  instantOfWhen,
  sameWhen,
  slotsOf,
  wallOf,
  whenLike,
  zoneOfWhen,
  type Override,
  type When,
} from '../../entries';
import { Problem } from '../../problems';
import { DAY, clockChanges, timeOfWall, wallAt, type Instant, type ZoneName } from '../../zones';
import { first, type Component } from './components';
import { fileTexts } from './fileTexts';
import type { Piece, ReadSetting } from './readEvent';
import type { DraftEntry, Outcome, ReadItem } from './report';
import { after } from './whenOfFile';

/** Returns the line of the report for a component. */
export function itemOf(event: Component, outcome: Outcome, notes: Iterable<string>): ReadItem {
  return {
    line: event.line,
    uid: first(event, 'uid')?.text ?? '',
    title: String(first(event, 'summary')?.values[0] ?? ''),
    outcome,
    notes: [...notes],
  };
}

/** Puts a master and its overrides together; overrides with no master become entries of their own. */
export function assemble(
  given: readonly Piece[],
  { home, now, language }: ReadSetting,
  entries: Map<string, DraftEntry>,
  items: ReadItem[],
): void {
  const t = fileTexts(language);
  const pieces = withMaster(given);
  const masters = pieces.filter((p) => !p.slot);
  const master = newest(masters);
  for (const older of masters) {
    if (older !== master) items.push(itemOf(older.event, 'left-out', [t('newerEntry')]));
  }
  const overrides = new Map<number, { override: Override; piece: Piece }>();
  for (const piece of pieces) {
    if (!piece.slot) continue;
    if (!master?.draft.recurrence) {
      store(aloneEntry(piece, master), piece, home, entries, items);
      continue;
    }
    const slot = slotOn(master.draft.start, piece.slot, home, master.shift);
    if (!master.shift && !sameWhen(slot, piece.slot)) piece.notes.add('slotFitted');
    const before = overrides.get(wallOf(slot));
    const kept = before ? newest([before.piece, piece])! : piece;
    const dropped = before && (kept === piece ? before.piece : piece);
    if (dropped) items.push(itemOf(dropped.event, 'left-out', [t('newerDate')]));
    if (kept === piece) {
      const { start, end } = piece.draft;
      overrides.set(wallOf(slot), { piece, override: { slot, start, end, content: contentOf(piece.draft) } });
    }
  }
  if (!master) return;
  for (const { piece } of overrides.values())
    items.push(itemOf(piece.event, piece.notes.size ? 'changed' : 'read', piece.notes));
  const own = [...periodDates(master, overrides, home), ...[...overrides.values()].map((o) => o.override)];
  const exact = exactDates(master, new Set(own.map((o) => wallOf(o.slot))), home, now);
  // In the order of their slots, as the editor keeps them.
  const changed = [...own, ...exact].sort((a, b) => wallOf(a.slot) - wallOf(b.slot));
  store(fitKind({ ...master.draft, overrides: changed }), master, home, entries, items);
}

/** Takes an entry in when all that will be computed with it can be; else it is left out, and said why. */
function store(
  draft: DraftEntry,
  { event, notes }: Piece,
  home: ZoneName,
  entries: Map<string, DraftEntry>,
  items: ReadItem[],
): void {
  try {
    entries.set(draft.uid, checkedEntry(draft, home));
    items.push(itemOf(event, notes.size ? 'changed' : 'read', notes));
  } catch (error) {
    if (!(error instanceof Problem)) throw error;
    notes.addProblem(error);
    items.push(itemOf(event, 'left-out', notes));
  }
}

function aloneEntry(piece: Piece, master: Piece | undefined): DraftEntry {
  piece.notes.add(master ? 'noSeries' : 'seriesMissing');
  const uid = `${piece.uid}/${first(piece.event, 'recurrence-id')!.text}`;
  const slot = piece.slot!;
  return {
    ...piece.draft,
    uid,
    recurrence: null,
    ...(master ? {} : { detachedFrom: { uid: piece.uid, slot } }),
  };
}

/** Returns the piece with the highest SEQUENCE (RFC 5545 section 3.8.7.4); of equals the last in the file. */
function newest(pieces: readonly Piece[]): Piece | undefined {
  const sequence = (p: Piece) => Number(first(p.event, 'sequence')?.text ?? 0) || 0;
  return pieces.reduce<Piece | undefined>(
    (best, p) => (!best || sequence(p) >= sequence(best) ? p : best),
    undefined,
  );
}

/**
 * Returns a RECURRENCE-ID on the clock of the series; a date stands for the time of day at which the series is. `shift`
 * is by how much the series was moved from the start that its file tells it by.
 */
export function slotOn(start: When, slot: When, home: ZoneName, shift = 0): When {
  const wall = wallOn(start, slot, home, timeOfWall(wallOf(start) - shift));
  const same = slot.kind === start.kind && zoneOfWhen(slot, '') === zoneOfWhen(start, '');
  return same && !shift && wall === wallOf(slot) ? slot : whenLike(start, wall + shift);
}

function wallOn(start: When, slot: When, home: ZoneName, time: number): number {
  if (slot.kind === 'date') return wallOf(slot) + (start.kind === 'date' ? 0 : time);
  if (start.kind === 'date' || zoneOfWhen(slot, '') === zoneOfWhen(start, '')) return wallOf(slot);
  return wallAt(zoneOfWhen(start, home), instantOfWhen(slot, home));
}

/** Some programs mark the series itself as one of its dates: if there is no other master, what has a rule is it. */
function withMaster(pieces: readonly Piece[]): readonly Piece[] {
  const master = pieces.some((p) => !p.slot) ? undefined : newest(pieces.filter((p) => p.ownRecurrence));
  for (const piece of pieces) if (piece.ownRecurrence && piece !== master) piece.notes.add('ruleOfDate');
  if (!master) return pieces;
  master.notes.add('seriesAsDate');
  const series = {
    ...master,
    slot: null,
    draft: fitKind({ ...master.draft, recurrence: master.ownRecurrence }),
  };
  return pieces.map((p) => (p === master ? series : p));
}

/** Returns overrides for further dates with lengths of their own (RFC 5545 section 3.8.5.2), unless the file changes them. */
function periodDates(
  { draft, periods, shift }: Piece,
  taken: ReadonlyMap<number, unknown>,
  home: ZoneName,
): Override[] {
  const { start, end } = draft;
  const span = wallOf(end) - wallOf(start);
  return periods.flatMap((period) => {
    const slot = slotOn(start, period.start, home, shift);
    if (taken.has(wallOf(slot)) || sameWhen(period.end, whenLike(end, wallOf(slot) + span))) return [];
    return [{ slot, start: slot, end: period.end, content: contentOf(draft) }];
  });
}

/** So far ahead of now the dates of a series are looked at whose exact length a clock change would alter. */
const AHEAD = 10 * 366 * DAY;
const MOST_EXACT = 200;

/**
 * Returns overrides for the dates of a series with an exact duration (RFC 5545 section 3.3.6) that meet a clock change:
 * an entry here ends by the clock, so those dates say their end by themselves.
 */
function exactDates(
  { draft, duration, notes }: Piece,
  taken: ReadonlySet<number>,
  home: ZoneName,
  now: Instant,
): Override[] {
  if (!duration || !draft.recurrence || draft.start.kind !== 'zoned') return [];
  const { start, end } = draft;
  const span = wallOf(end) - wallOf(start);
  const from = instantOfWhen(start, home);
  const out: Override[] = [];
  for (const { at } of clockChanges(start.zone, from, Math.max(from, now) + AHEAD)) {
    for (const wall of slotsOf(draft, { from: at - span - DAY, to: at + DAY }, home)) {
      const slot = whenLike(start, wall);
      const exact = after(slot, duration, home);
      if (taken.has(wall) || sameWhen(exact, whenLike(end, wall + span)) || out.length >= MOST_EXACT)
        continue;
      out.push({ slot, start: slot, end: exact, content: contentOf(draft) });
    }
  }
  if (out.length) notes.add('exactLength', { count: out.length });
  return out;
}
