import {
  checkedEntry,
  contentOf,
  extentOf,
  instantOfWhen,
  storedContent,
  type Entry,
} from '@zonal/core/entries';
import type { DraftEntry } from '@zonal/core/forms';
import type { ZoneName } from '@zonal/core/zones';
import { Op, type WhereOptions } from 'sequelize';
import { EntryRow, type EntryData, type EntryState } from '../db/models';

/** Returns the entry of a row. */
export function entryOf(row: EntryRow): Entry {
  const { id, calendarId, version, uid, imported } = row;
  return { ...wholeData(row.data), id, calendarId, version, uid, imported };
}

/** Returns an entry as an edit found or left it; its version is not told. */
export function entryOfState(id: string, state: EntryState | null): Entry | null {
  if (!state) return null;
  const { data, calendarId, uid, imported } = state;
  return { ...wholeData(data), id, calendarId, version: 0, uid, imported };
}

/** What is stored may have been written before its present fields were there. */
function wholeData(stored: EntryData): EntryData {
  const data = storedContent(stored);
  const overrides = data.overrides.map((o) => {
    const content = storedContent(o.content);
    return content === o.content ? o : { ...o, content };
  });
  return { ...data, overrides };
}

/** Returns the columns of an entry. Throws what is wrong with it: see checkedEntry. */
export function columnsOf(
  draft: Omit<DraftEntry, 'uid'>,
  zone: ZoneName,
): Pick<EntryRow, 'data' | 'firstAt' | 'lastAt'> {
  const data = checkedEntry(dataOf(draft), zone);
  const extent = extentOf({ ...data, id: '', calendarId: '', version: 0, uid: '' }, zone);
  // A milestone that has slipped is looked for from its planned day on.
  const planned = data.planned ? instantOfWhen(data.planned, zone) : extent.from;
  // A date or a floating time can be up to a day away in another zone.
  const day = 86_400_000;
  return {
    data,
    firstAt: new Date(Math.min(extent.from, planned) - day),
    lastAt: extent.to === Infinity ? null : new Date(Math.max(extent.to, planned) + day),
  };
}

function dataOf(draft: Omit<DraftEntry, 'uid'>): EntryData {
  const { start, end, recurrence, overrides } = draft;
  return {
    ...contentOf(draft),
    start,
    end,
    recurrence: recurrence ?? null,
    overrides: recurrence
      ? overrides.map((o) => ({ slot: o.slot, start: o.start, end: o.end, content: contentOf(o.content) }))
      : [],
  };
}

/** Returns the condition for entries that can take place in a stretch of time. */
export function within(from: Date, to: Date): WhereOptions<EntryRow> {
  return { firstAt: { [Op.lt]: to }, lastAt: { [Op.or]: [{ [Op.gt]: from }, { [Op.is]: null }] } };
}
