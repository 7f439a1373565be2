import { Problem } from '@zonal/core/problems';
import { isUUID } from 'class-validator';
import { randomUUID } from 'node:crypto';
import type { Sequelize, Transaction } from 'sequelize';
import { calendarOf } from '../calendars/calendarRoutes';
import { changing } from '../db/changes';
import { EntryRow } from '../db/models';
import { route } from '../http/route';
import { EntryInput, SplitInput } from './entryInput';
import { columnsOf, entryOf, within } from './entryStore';

const MOST_DAYS = 366 * 5;

async function rowOf(id: string): Promise<EntryRow> {
  const row = isUUID(id) ? await EntryRow.findByPk(id) : null;
  if (!row) throw new Problem('not-found');
  return row;
}

/** Returns the entry with its new columns. Throws `version-conflict` unless it still has the version that was seen. */
async function replace(
  id: string,
  version: number,
  columns: ReturnType<typeof columnsOf>,
  yours: unknown,
  transaction: Transaction,
): Promise<EntryRow> {
  const [changed] = await EntryRow.update(
    { ...columns, version: version + 1 },
    { where: { id, version }, transaction },
  );
  const row = await EntryRow.findByPk(id, { transaction });
  if (!row) throw new Problem('not-found');
  if (!changed) throw new Problem('version-conflict', { current: entryOf(row), yours });
  return row;
}

function stretch(from: unknown, to: unknown): { from: Date; to: Date } | null {
  if (from === undefined && to === undefined) return null;
  const [a, b] = [new Date(String(from)), new Date(String(to))];
  for (const [text, date] of [
    [from, a],
    [to, b],
  ] as const) {
    if (Number.isNaN(date.getTime())) throw new Problem('time-invalid', { text: String(text) });
  }
  if (b <= a) throw new Problem('range-invalid');
  if (b.getTime() - a.getTime() > MOST_DAYS * 86_400_000)
    throw new Problem('range-too-long', { limit: 'five years' });
  return { from: a, to: b };
}

export const entryRoutes = (sequelize: Sequelize) => [
  route({
    method: 'get',
    path: '/calendars/:id/entries',
    tag: 'Entries',
    summary: 'Entries of a calendar, all or those that can take place in a stretch of time',
    query: { from: 'Start as an ISO 8601 instant', to: 'End as an ISO 8601 instant' },
    handle: async ({ req, param }) => {
      const { id } = await calendarOf(param('id'));
      const range = stretch(req.query['from'], req.query['to']);
      const where = { calendarId: id, ...(range ? within(range.from, range.to) : {}) };
      return (await EntryRow.findAll({ where, order: [['firstAt', 'ASC']] })).map(entryOf);
    },
  }),
  route<EntryInput>({
    method: 'post',
    path: '/calendars/:id/entries',
    tag: 'Entries',
    summary: 'Write an entry',
    body: EntryInput,
    status: 201,
    handle: async ({ body, param }) => {
      const calendar = await calendarOf(param('id'));
      const id = randomUUID();
      const columns = columnsOf(body, calendar.zone);
      return changing(sequelize, async (transaction) => {
        const row = await EntryRow.create(
          { id, calendarId: calendar.id, uid: id, ...columns },
          { transaction },
        );
        return { result: entryOf(row), touched: [{ calendarId: calendar.id, entryIds: [id] }] };
      });
    },
  }),
  route({
    method: 'get',
    path: '/entries/:id',
    tag: 'Entries',
    summary: 'One entry',
    handle: async ({ param }) => entryOf(await rowOf(param('id'))),
  }),
  route<EntryInput>({
    method: 'put',
    path: '/entries/:id',
    tag: 'Entries',
    summary: 'Change an entry; 409 with both versions when somebody else changed it first',
    body: EntryInput,
    handle: async ({ body, param }) => {
      const seen = await rowOf(param('id'));
      const columns = columnsOf(body, (await calendarOf(seen.calendarId)).zone);
      return changing(sequelize, async (transaction) => {
        const row = await replace(seen.id, body.version ?? 0, columns, body, transaction);
        return { result: entryOf(row), touched: [{ calendarId: row.calendarId, entryIds: [row.id] }] };
      });
    },
  }),
  route<SplitInput>({
    method: 'post',
    path: '/entries/:id/split',
    tag: 'Entries',
    summary: 'Change a series from one date on: the entry keeps the dates before, a new entry has the rest',
    body: SplitInput,
    status: 201,
    handle: async ({ body, param }) => {
      const seen = await rowOf(param('id'));
      const { zone } = await calendarOf(seen.calendarId);
      const [before, from] = [columnsOf(body.before, zone), columnsOf(body.from, zone)];
      return changing(sequelize, async (transaction) => {
        const row = await replace(seen.id, body.version, before, body.from, transaction);
        const id = randomUUID();
        const { calendarId } = row;
        const added = await EntryRow.create({ id, calendarId, uid: id, ...from }, { transaction });
        const touched = [{ calendarId, entryIds: [row.id, id] }];
        return { result: { before: entryOf(row), from: entryOf(added) }, touched };
      });
    },
  }),
  route({
    method: 'delete',
    path: '/entries/:id',
    tag: 'Entries',
    summary: 'Delete an entry; 409 when somebody else changed it first',
    query: { version: 'The version that was seen' },
    handle: async ({ req, param }) => {
      const before = await rowOf(param('id'));
      await changing(sequelize, async (transaction) => {
        const where = { id: before.id, version: Number(req.query['version'] ?? 0) };
        if (!(await EntryRow.destroy({ where, transaction }))) {
          throw new Problem('version-conflict', { current: entryOf(before), yours: null });
        }
        return { result: undefined, touched: [{ calendarId: before.calendarId, entryIds: [before.id] }] };
      });
    },
  }),
];
