import { call } from '../api/client';
import type { Entry } from '@zonal/core/entries';
import type { Revision } from '@zonal/core/reach';

/** Entries by calendar, as fetched for one stamp of the data. */
const known = new Map<string, { stamp: string; entries: Promise<readonly Entry[]> }>();

/** Returns all entries of a calendar, fetched once a stamp. For workers. */
export function entriesOf(calendarId: string, stamp: string): Promise<readonly Entry[]> {
  const before = known.get(calendarId);
  if (before?.stamp === stamp) return before.entries;
  const entries = call('GET /calendars/:id/entries', { path: { id: calendarId }, query: {} });
  known.set(calendarId, { stamp, entries });
  entries.catch(() => known.delete(calendarId));
  return entries;
}

/** Returns the entries of several calendars. A calendar that is gone has none. */
export async function entriesOfAll(
  ids: Iterable<string>,
  stamp: string,
): Promise<Map<string, readonly Entry[]>> {
  const unique = [...new Set(ids)];
  const lists = await Promise.all(unique.map((id) => entriesOf(id, stamp)));
  return new Map(unique.map((id, i) => [id, lists[i]!]));
}

/** Returns the revision that readers with a key see now, or null. */
export function revisionOf(keyId: string): Promise<Revision | null> {
  return call('GET /keys/:id/revision', { path: { id: keyId } });
}
