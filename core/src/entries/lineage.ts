import { compareText } from './find';
import { DAY, instantOf, type ZoneName } from '../zones';
import type { Entry } from './entry';
import { canonical } from './fingerprintEntry';
import { slotsOf } from './occurrences';
import { sameWhen, wallOf, zoneOfWhen } from './when';

/**
 * Returns what an entry is known by outside, before it is made a pseudonym: all pieces that a series was cut into, and
 * whatever was written in its place, are of one lineage.
 */
export function lineageOf({ id, lineage }: Pick<Entry, 'id' | 'lineage'>): string {
  return lineage ?? id;
}

/** An entry before and after an edit; null where it was not there, or is no longer. */
export interface Step {
  readonly before: Entry | null;
  readonly after: Entry | null;
}

/**
 * Returns the lineages of the entries that an edit writes anew, by id: of what the same edit takes away or changes in
 * the same calendar and which had a date at the very time at which the new one starts. Cutting a series, joining its
 * pieces or deleting and writing it anew in one edit is then no change of identity. Entries without one begin with
 * themselves.
 *
 * Readers see identities, and every reader who does sees times as well: so only times decide. An entry that is held, by
 * itself or by a label, passes no identity on.
 */
export function continuedLineages(
  steps: readonly Step[],
  zone: ZoneName,
  isHeld: (entry: Entry) => boolean,
): Map<string, string> {
  const given = steps.flatMap(({ before, after }) =>
    before && leaves(before, after) && !isHeld(before) ? [before] : [],
  );
  const pairs: { fresh: Entry; old: Entry; apart: number }[] = [];
  for (const { before, after: fresh } of steps) {
    if (before || !fresh) continue;
    for (const old of given)
      if (old.calendarId === fresh.calendarId && hadDateAt(old, fresh, zone))
        pairs.push({ fresh, old, apart: canonical(timesOf(old)) === canonical(timesOf(fresh)) ? 0 : 1 });
  }
  // Those that take place at the same times find each other first.
  pairs.sort(
    (a, b) => a.apart - b.apart || compareText(a.fresh.id, b.fresh.id) || compareText(a.old.id, b.old.id),
  );
  const out = new Map<string, string>();
  const taken = new Set<string>();
  for (const once of [true, false])
    for (const { fresh, old } of pairs) {
      if (out.has(fresh.id) || (once && taken.has(old.id))) continue;
      out.set(fresh.id, lineageOf(old));
      taken.add(old.id);
    }
  return out;
}

function timesOf({ start, end, recurrence, overrides }: Entry) {
  return [start, end, recurrence, overrides.map((o) => o.slot)];
}

/** Whether an edit takes times of an entry away, or may do so. */
function leaves(before: Entry, after: Entry | null): boolean {
  return !after || canonical(timesOf(before)) !== canonical(timesOf(after));
}

function hadDateAt(old: Entry, { start }: Entry, zone: ZoneName): boolean {
  if (old.start.kind !== start.kind) return false;
  if (!old.recurrence) return sameWhen(old.start, start);
  if (old.start.kind === 'zoned' && zoneOfWhen(old.start, '') !== zoneOfWhen(start, '')) return false;
  const at = instantOf(zoneOfWhen(start, zone), wallOf(start));
  return slotsOf(old, { from: at - 2 * DAY, to: at + 2 * DAY }, zone).includes(wallOf(start));
}
