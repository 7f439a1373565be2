import { lineageOf, type Entry } from '@zonal/core/entries';
import type { EntryChange } from '@zonal/core/api';

/** Entries by calendar. */
export type EntriesOf = ReadonlyMap<string, readonly Entry[]>;

/** Returns the entries of calendars as they would be after changes; calendars that are not in the map stay out. */
export function afterChanges(entries: EntriesOf, changes: readonly EntryChange[]): EntriesOf {
  if (!changes.length) return entries;
  const gone = new Set(changes.map((c) => c.id));
  const out = new Map([...entries].map(([id, list]) => [id, list.filter((e) => !gone.has(e.id))]));
  const before = new Map([...entries.values()].flatMap((list) => list.map((e) => [e.id, e])));
  changes.forEach(({ id, uid, version, calendarId, entry, continues }, i) => {
    const list = out.get(calendarId);
    if (!entry || !list) return;
    const own = id ?? `new-${i}`;
    const old = before.get(id ?? continues ?? '');
    const lineage = old ? lineageOf(old) : null;
    list.push({ ...entry, id: own, uid: uid ?? own, version, calendarId, lineage });
  });
  return out;
}
