import { readCalendar, type DraftEntry, type ReadResult } from '@zonal/core/forms';
import { Problem } from '@zonal/core/problems';
import { randomUUID } from 'node:crypto';
import type { Sequelize } from 'sequelize';
import { isDeepStrictEqual } from 'node:util';
import { calendarOf } from '../calendars/calendarRoutes';
import { changing } from '../db/changes';
import { EntryRow } from '../db/models';
import { route } from '../http/route';
import { columnsOf } from './entryStore';

/** What an import did or, when only tried, would do. */
export interface ImportAnswer extends Omit<ReadResult, 'entries'> {
  readonly added: number;
  readonly updated: number;
  readonly unchanged: number;
  readonly saved: boolean;
}

export const importRoutes = (sequelize: Sequelize) => [
  route({
    method: 'post',
    path: '/calendars/:id/import',
    tag: 'Entries',
    summary: 'Bring in an iCalendar file, whole or not at all; entries known by their UID are updated',
    rawBody: 'text/calendar',
    query: { try: '1 to get the report without saving anything' },
    handle: async ({ req, param }): Promise<ImportAnswer> => {
      const calendar = await calendarOf(param('id'));
      if (!Buffer.isBuffer(req.body))
        throw new Problem('body-unreadable', { expected: 'a text/calendar file' });
      const { entries, ...report } = readCalendar(new Uint8Array(req.body), calendar.zone);
      const saved = req.query['try'] !== '1';
      const counts = saved
        ? await changing(sequelize, async (transaction) => {
            const plan = await planOf(calendar.id, calendar.zone, entries);
            await EntryRow.bulkCreate(plan.added, { transaction });
            for (const { id, version, ...columns } of plan.updated) {
              await EntryRow.update({ ...columns, version: version + 1 }, { where: { id }, transaction });
            }
            const entryIds = [...plan.added, ...plan.updated].map((e) => e.id);
            const touched = entryIds.length ? [{ calendarId: calendar.id, entryIds }] : [];
            return { result: countsOf(plan), touched };
          })
        : countsOf(await planOf(calendar.id, calendar.zone, entries));
      return { ...report, ...counts, saved };
    },
  }),
];

type Columns = ReturnType<typeof columnsOf>;

interface Plan {
  readonly added: (Columns & { id: string; calendarId: string; uid: string })[];
  readonly updated: (Columns & { id: string; version: number })[];
  readonly unchanged: number;
}

function countsOf({
  added,
  updated,
  unchanged,
}: Plan): Pick<ImportAnswer, 'added' | 'updated' | 'unchanged'> {
  return { added: added.length, updated: updated.length, unchanged };
}

/** Works out which entries are new, changed or the same, by UID. */
async function planOf(calendarId: string, zone: string, drafts: readonly DraftEntry[]): Promise<Plan> {
  const rows = await EntryRow.findAll({ where: { calendarId, uid: drafts.map((d) => d.uid) } });
  const known = new Map(rows.map((r) => [r.uid, r]));
  const plan: Plan & { unchanged: number } = { added: [], updated: [], unchanged: 0 };
  for (const { uid, ...draft } of drafts) {
    const columns = columnsOf(draft, zone);
    const row = known.get(uid);
    if (!row) plan.added.push({ id: randomUUID(), calendarId, uid, ...columns });
    else if (isDeepStrictEqual(row.data, JSON.parse(JSON.stringify(columns.data)))) plan.unchanged++;
    else plan.updated.push({ id: row.id, version: row.version, ...columns });
  }
  return plan;
}
