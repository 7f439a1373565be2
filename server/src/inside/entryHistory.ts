import type { EntryHistory, EntryHistoryLine, OutwardEffect } from '@zonal/core/api';
import { lineageOf, type Entry } from '@zonal/core/entries';
import { pseudonym } from '@zonal/core/glass';
import type { HouseRights } from '@zonal/core/rights';
import { QueryTypes, type Sequelize } from 'sequelize';
import { EditEntryRow, EditRow, ViewRow, WindowRow, WindowSourceRow } from '../db/models';
import { namesOf } from '../people/names';
import { entryOfState } from './entryStore';

/** The newest edits of an entry that its history lists. */
const MAX_LINES = 100;
/** The newest revisions of a view that are searched for an entry. */
const MAX_REVISIONS = 1000;

/**
 * Returns the edits of an entry, newest first, as far as `rights` allow: an edit that came from or led to a calendar which the
 * asker may not see in full is left out. Labels of edits are not answered: an edit may name entries of other calendars.
 */
export async function historyOf(
  sequelize: Sequelize,
  entry: Entry,
  rights: HouseRights,
): Promise<EntryHistory> {
  const ids = await EditEntryRow.findAll({ where: { entryId: entry.id }, attributes: ['editId'] });
  const edits = await EditRow.findAll({
    where: { id: ids.map(({ editId }) => editId), state: ['applied', 'taken-back'] },
    order: [
      ['createdAt', 'DESC'],
      ['id', 'ASC'],
    ],
    limit: MAX_LINES,
  });
  const steps = await EditEntryRow.findAll({
    where: { entryId: entry.id, editId: edits.map(({ id }) => id) },
  });
  const names = await namesOf(edits.map((edit) => edit.userId));
  const mayRead = (state: { calendarId: string } | null) => !state || rights.may('see-all', state.calendarId);
  const revisions = rights.may('see-windows', entry.calendarId)
    ? await revisionsWith(sequelize, entry)
    : null;
  const lines: EntryHistoryLine[] = [];
  let until = Infinity;
  for (const edit of edits) {
    const { before, after } = steps.find(({ editId }) => editId === edit.id)!;
    // Revisions are dated to the second (RFC 5545, DTSTAMP).
    const from = Math.floor(edit.createdAt.getTime() / 1000) * 1000;
    if (mayRead(before) && mayRead(after))
      lines.push({
        editId: edit.id,
        at: edit.createdAt.toISOString(),
        by: names.get(edit.userId) ?? '',
        takenBackAt: edit.state === 'taken-back' ? edit.updatedAt.toISOString() : null,
        before: entryOfState(entry.id, before),
        after: entryOfState(entry.id, after),
        outside: revisions?.filter(({ at }) => Date.parse(at) >= from && Date.parse(at) < until) ?? null,
      });
    until = from;
  }
  return { lines };
}

/** Returns the revisions of windows in which an entry appeared, changed or vanished, oldest first. */
async function revisionsWith(sequelize: Sequelize, entry: Entry): Promise<OutwardEffect[]> {
  const sources = await WindowSourceRow.findAll({ where: { calendarId: entry.calendarId } });
  const windows = await WindowRow.findAll({ where: { id: sources.map((source) => source.windowId) } });
  const views = await ViewRow.findAll({
    where: { windowId: windows.map((window) => window.id) },
    attributes: ['id', 'windowId'],
  });
  const effects: OutwardEffect[] = [];
  for (const view of views) {
    const window = windows.find(({ id }) => id === view.windowId)!;
    const uid = pseudonym(window.secret, lineageOf(entry));
    const rows = await sequelize.query<{ number: number; at: Date }>(
      `SELECT number, at FROM (
         SELECT number, at, step FROM ledger WHERE view_id = :viewId ORDER BY number DESC LIMIT ${MAX_REVISIONS}
       ) AS newest
       WHERE jsonb_exists(step->'gone', :uid) OR step->'set' @> :item`,
      {
        type: QueryTypes.SELECT,
        replacements: {
          viewId: view.id,
          uid,
          item: JSON.stringify([{ uid }]),
        },
      },
    );
    for (const { number, at } of rows)
      effects.push({ windowId: window.id, windowName: window.name, revision: number, at: at.toISOString() });
  }
  return effects.sort((a, b) => Date.parse(a.at) - Date.parse(b.at));
}
