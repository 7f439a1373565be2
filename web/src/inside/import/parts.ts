import type { MergeItem } from '@zonal/core/forms';
import type { EntryChange } from '@zonal/core/api';
import { inputOfEntry } from '../changes';

/** The server takes so many changes and so many letters at once. */
const MOST_CHANGES = 200;
const MOST_LETTERS = 1_000_000;

/** Returns the changes that store items of a plan, in parts of a size that the server takes. */
export function requestsOf(items: readonly MergeItem[], calendarId: string): EntryChange[][] {
  const parts: EntryChange[][] = [];
  let letters = Infinity;
  for (const { draft, existing, imported } of items) {
    if (!draft) continue;
    const change: EntryChange = {
      ...(existing ? { id: existing.id } : {}),
      uid: existing?.uid ?? draft.uid,
      version: existing?.version ?? 0,
      calendarId,
      entry: inputOfEntry(draft),
      imported,
    };
    const size = JSON.stringify(change).length;
    if (letters + size > MOST_LETTERS || parts.at(-1)!.length >= MOST_CHANGES) {
      parts.push([]);
      letters = 0;
    }
    parts.at(-1)!.push(change);
    letters += size;
  }
  return parts;
}
