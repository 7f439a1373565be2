import type { Calendar, CalendarImpact, EntryChange } from '@zonal/core/api';
import { rezone } from '@zonal/core/entries';
import { Problem } from '@zonal/core/problems';
import { randomUUID } from 'node:crypto';
import { UniqueConstraintError, type Sequelize, type Transaction } from 'sequelize';
import type { MakeChange } from '../db/changes';
import { CalendarRow, EntryRow, KeyRow, WindowRow, WindowSourceRow, type UserRow } from '../db/models';
import { calendarOf } from './calendarStore';
import { MOST_AT_ONCE } from './editInput';
import { addChanges, stageEdit, turnEdit } from './editStore';
import { entryOf } from './entryStore';
import { route } from '../http/route';
import { ArchiveInput, CalendarInput, ZoneInput } from './calendarInput';

async function answers(where: { id?: string } = {}): Promise<Calendar[]> {
  const rows = await CalendarRow.findAll({ where, order: [['name', 'ASC']] });
  const counts = await EntryRow.count({ group: ['calendarId'] });
  const countOf = new Map(counts.map((c) => [c['calendarId'], c.count]));
  return rows.map((r) => ({
    id: r.id,
    name: r.name,
    description: r.description,
    zone: r.zone,
    plate: r.plate,
    colour: r.colour,
    shape: r.shape,
    pattern: r.pattern,
    place: r.place,
    latitude: r.latitude,
    longitude: r.longitude,
    archivedAt: r.archivedAt?.toISOString() ?? null,
    lockedAt: r.lockdown?.at ?? null,
    version: r.version,
    entryCount: countOf.get(r.id) ?? 0,
  }));
}

async function answer(id: string): Promise<Calendar> {
  return (await answers({ id }))[0]!;
}

async function impactOf(calendarId: string): Promise<CalendarImpact> {
  const windowIds = (await WindowSourceRow.findAll({ where: { calendarId } })).map((s) => s.windowId);
  const windows = await WindowRow.findAll({ where: { id: windowIds }, order: [['name', 'ASC']] });
  const sources = await WindowSourceRow.findAll({ where: { windowId: windowIds } });
  const keys = await KeyRow.findAll({ where: { windowId: windowIds }, order: [['createdAt', 'ASC']] });
  return {
    entryCount: await EntryRow.count({ where: { calendarId } }),
    windows: windows.map(({ id, name }) => ({
      id,
      name,
      keys: keys.filter((k) => k.windowId === id).map((k) => k.madeOutTo),
      left: sources.some((s) => s.windowId === id && s.calendarId !== calendarId),
    })),
  };
}

async function named<T>(name: string, work: () => Promise<T>): Promise<T> {
  try {
    return await work();
  } catch (error) {
    if (error instanceof UniqueConstraintError) throw new Problem('name-taken', { name });
    throw error;
  }
}

export const calendarRoutes = (sequelize: Sequelize, change: MakeChange) => {
  /** Open pages hear of a change of the calendar itself as of one of its entries. */
  const telling = <T>(user: UserRow, id: string, work: (transaction: Transaction) => Promise<T>) =>
    change(user.id, async (transaction) => ({
      result: await work(transaction),
      touched: [{ calendarId: id }],
    }));
  return [
    route('GET /calendars', {
      tag: 'Calendars',
      summary: 'All calendars, by name, archived ones among them',
      handle: () => answers(),
    }),
    route('POST /calendars', {
      tag: 'Calendars',
      summary: 'Make a calendar',
      body: CalendarInput,
      status: 201,
      again: (_call, made) => answer((made as { id: string }).id),
      handle: async ({ body, user }) => {
        const { version: _version, ...rest } = body;
        const id = randomUUID();
        await named(body.name, () =>
          telling(user, id, (transaction) => CalendarRow.create({ id, ...rest }, { transaction })),
        );
        return answer(id);
      },
    }),
    route('PUT /calendars/:id', {
      tag: 'Calendars',
      summary: 'Change a calendar; its zone only while it has no entries',
      body: CalendarInput,
      again: ({ param }) => answer(param('id')),
      handle: async ({ body, param, user }) => {
        const current = await calendarOf(param('id'));
        const { id } = current;
        if (body.zone !== current.zone && (await EntryRow.count({ where: { calendarId: id } }))) {
          throw new Problem('zone-guided');
        }
        const { version, ...rest } = body;
        const where = { id, version: version ?? 0 };
        const columns = { ...rest, version: current.version + 1 };
        const [changed] = await named(body.name, () =>
          telling(user, id, (transaction) => CalendarRow.update(columns, { where, transaction })),
        );
        if (!changed) throw new Problem('version-conflict', { current: await answer(id), yours: body });
        return answer(id);
      },
    }),
    route('PUT /calendars/:id/archive', {
      tag: 'Calendars',
      summary: 'Put a calendar away, or bring it back; windows go on showing it',
      body: ArchiveInput,
      again: ({ param }) => answer(param('id')),
      handle: async ({ body, param, user }) => {
        const { id } = await calendarOf(param('id'));
        const columns = { archivedAt: body.archived ? new Date() : null };
        await telling(user, id, (transaction) => CalendarRow.update(columns, { where: { id }, transaction }));
        return answer(id);
      },
    }),
    route('POST /calendars/:id/zone', {
      tag: 'Calendars',
      summary: 'Move a calendar with its entries to another time zone; an edit that can be taken back',
      body: ZoneInput,
      handle: async ({ body, param, user }) => {
        const { id, zone, name } = await calendarOf(param('id'));
        const changes = await rezoned(id, zone, body);
        const edit = await stageEdit(user.id, `Moved ${name} to ${body.zone}`, {
          id,
          before: zone,
          after: body.zone,
        });
        for (let i = 0; i < changes.length; i += MOST_AT_ONCE) {
          await addChanges(edit, changes.slice(i, i + MOST_AT_ONCE));
        }
        return turnEdit(sequelize, change, edit, 'apply');
      },
    }),
    route('GET /calendars/:id/impact', {
      tag: 'Calendars',
      summary: 'What deleting a calendar would hit: entries, windows and keys',
      handle: async ({ param }) => impactOf((await calendarOf(param('id'))).id),
    }),
    route('DELETE /calendars/:id', {
      tag: 'Calendars',
      summary:
        'Delete a calendar with its entries; refused while a window shows it, unless told to take it out there',
      query: { windows: '“take-out” takes it out of all windows; one that has no other source is closed' },
      handle: async ({ req, param, user }) => {
        const { id } = await calendarOf(param('id'));
        const { windows } = await impactOf(id);
        if (windows.length && req.query['windows'] !== 'take-out') {
          throw new Problem('calendar-in-use', { windows: windows.map((w) => w.name).join(', ') });
        }
        await change(user.id, async (transaction) => {
          await WindowSourceRow.destroy({ where: { calendarId: id }, transaction });
          const empty = windows.filter((w) => !w.left).map((w) => w.id);
          await WindowRow.update(
            { closedAt: new Date() },
            { where: { id: empty, closedAt: null }, transaction },
          );
          await CalendarRow.destroy({ where: { id }, transaction });
          const touched = [{ droppedId: id }, ...windows.map((w) => ({ windowId: w.id }))];
          return { result: undefined, touched };
        });
      },
    }),
  ];
};

/** Returns the changes that a change of zone makes; entries that stay as they are have none. */
async function rezoned(calendarId: string, from: string, { zone, keep }: ZoneInput): Promise<EntryChange[]> {
  const rows = await EntryRow.findAll({ where: { calendarId } });
  const changes: EntryChange[] = [];
  for (const [i, row] of rows.entries()) {
    if (i % 100 === 99) await new Promise((resolve) => setImmediate(resolve));
    const entry = entryOf(row);
    const { after } = rezone(entry, from, zone, keep, Date.now());
    if (after === entry) continue;
    const { id, uid, version, imported } = entry;
    changes.push({
      id,
      uid,
      version,
      calendarId,
      imported: imported ?? null,
      entry: after,
    });
  }
  return changes;
}
