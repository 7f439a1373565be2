import type { Calendar, CalendarImpact, EntryChange } from '@zonal/core/api';
import { rezone } from '@zonal/core/entries';
import { Problem } from '@zonal/core/problems';
import { ACCOUNT_LIMITS, type HouseRights } from '@zonal/core/rights';
import { randomUUID } from 'node:crypto';
import type { Sequelize, Transaction } from 'sequelize';
import type { MakeChange } from '../db/changes';
import {
  CalendarRow,
  EntryRow,
  KeyRow,
  StandingRow,
  WindowRow,
  WindowSourceRow,
  type UserRow,
} from '../db/models';
import { rightsOf } from '../people/rights';
import { calendarOf, offDesk } from './calendarStore';
import { MOST_AT_ONCE } from './editInput';
import { addChanges, stageEdit, turnEdit } from './editStore';
import { entryOf } from './entryStore';
import type { InsideViews } from './insideViews';
import { route, type Call } from '../http/route';
import { ArchiveInput, CalendarInput, ZoneInput } from './calendarInput';

/** Returns the names of the windows over each calendar. */
async function windowNames(calendarIds: readonly string[]): Promise<Map<string, string[]>> {
  const sources = await WindowSourceRow.findAll({ where: { calendarId: [...calendarIds] } });
  const windows = await WindowRow.findAll({
    where: { id: sources.map((s) => s.windowId), closedAt: null },
    attributes: ['id', 'name'],
    order: [['name', 'ASC']],
  });
  const over = (calendarId: string) => {
    const own = new Set(sources.filter((s) => s.calendarId === calendarId).map((s) => s.windowId));
    return windows.filter((w) => own.has(w.id)).map((w) => w.name);
  };
  return new Map(calendarIds.map((id) => [id, over(id)]));
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

/** Throws `name-taken` where a calendar that somebody sees is called so; of others they may not even learn that. */
async function checkName(name: string, rights: HouseRights, own?: string): Promise<void> {
  const taken = await CalendarRow.findAll({ where: { name, id: rights.inSight() }, attributes: ['id'] });
  if (taken.some((c) => c.id !== own)) throw new Problem('name-taken', { name });
}

export const calendarRoutes = (sequelize: Sequelize, change: MakeChange, views: InsideViews) => {
  /** Returns calendars as somebody may know them: those of which they see something, or one of them. */
  const answers = async (rights: HouseRights, userId: string, only?: string): Promise<Calendar[]> => {
    const ids = rights.inSight().filter((id) => only === undefined || id === only);
    const rows = await CalendarRow.findAll({ where: { id: ids }, order: [['name', 'ASC']] });
    const whole = ids.filter((id) => rights.sight(id) === 'all');
    const counts = await EntryRow.count({ where: { calendarId: whole }, group: ['calendarId'] });
    const countOf = new Map(counts.map((c) => [String(c['calendarId']), c.count]));
    const off = await offDesk(userId);
    const names = await windowNames(rights.calendarsFor('know-windows').filter((id) => ids.includes(id)));
    const partly = rows.map((r) => r.id).filter((id) => rights.sight(id) !== 'all');
    const seen = await views.entriesOf(partly, rights);
    const told: Calendar[] = [];
    for (const r of rows) {
      const sight = rights.sight(r.id);
      const count = (sight === 'all' ? countOf.get(r.id) : seen.get(r.id)?.length) ?? 0;
      told.push({
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
        entryCount: count,
        who: rights.who(r.id)!,
        sight,
        windows: names.get(r.id) ?? [],
        onDesk: !off.has(r.id),
      });
    }
    return told;
  };
  const answer = async (id: string, { rights, user }: Pick<Call, 'rights' | 'user'>): Promise<Calendar> =>
    (await answers(rights, user.id, id))[0]!;
  /** As it is after a change that may have made the asker something to it. */
  const answerNow = async (id: string, user: UserRow) => answer(id, { rights: await rightsOf(user), user });
  /** Open pages hear of a change of the calendar itself as of one of its entries. */
  const telling = <T>(user: UserRow, id: string, work: (transaction: Transaction) => Promise<T>) =>
    change(user.id, async (transaction) => ({
      result: await work(transaction),
      touched: [{ calendarId: id }],
    }));
  return [
    route('GET /calendars', {
      tag: 'Calendars',
      summary: 'The calendars of which the asker sees something, by name, archived ones among them',
      handle: ({ rights, user }) => answers(rights, user.id),
    }),
    route('POST /calendars', {
      tag: 'Calendars',
      summary: 'Make a calendar; whoever makes it is its publisher',
      body: CalendarInput,
      status: 201,
      again: ({ user }, id) => answerNow(String(id), user),
      handle: async ({ body, user, rights }) => {
        const { version: _version, ...rest } = body;
        const id = randomUUID();
        await checkName(body.name, rights);
        await telling(user, id, async (transaction) => {
          const most = ACCOUNT_LIMITS.calendars;
          const made = { userId: user.id, byId: user.id, standing: 'publisher' };
          if ((await StandingRow.count({ where: made, transaction })) >= most)
            throw new Problem('too-many-calendars', { most });
          await CalendarRow.create({ id, ...rest }, { transaction });
          const maker = { calendarId: id, userId: user.id, standing: 'publisher' as const, glass: null };
          await StandingRow.create({ ...maker, byId: user.id, since: new Date() }, { transaction });
          return id;
        });
        return answerNow(id, user);
      },
    }),
    route('PUT /calendars/:id', {
      tag: 'Calendars',
      summary: 'Change a calendar; its zone only while it has no entries',
      body: CalendarInput,
      again: ({ param, ...call }) => answer(param('id'), call),
      handle: async ({ body, param, user, rights }) => {
        const current = await calendarOf(param('id'));
        const { id } = current;
        if (body.zone !== current.zone && (await EntryRow.count({ where: { calendarId: id } }))) {
          throw new Problem('zone-guided');
        }
        const { version, ...rest } = body;
        const where = { id, version: version ?? 0 };
        const columns = { ...rest, version: current.version + 1 };
        await checkName(body.name, rights, id);
        const [changed] = await telling(user, id, (transaction) =>
          CalendarRow.update(columns, { where, transaction }),
        );
        if (!changed)
          throw new Problem('version-conflict', { current: await answer(id, { rights, user }), yours: body });
        return answer(id, { rights, user });
      },
    }),
    route('PUT /calendars/:id/archive', {
      tag: 'Calendars',
      summary: 'Put a calendar away, or bring it back; windows go on showing it',
      body: ArchiveInput,
      again: ({ param, ...call }) => answer(param('id'), call),
      handle: async ({ body, param, user, rights }) => {
        const { id } = await calendarOf(param('id'));
        const columns = { archivedAt: body.archived ? new Date() : null };
        await telling(user, id, (transaction) => CalendarRow.update(columns, { where: { id }, transaction }));
        return answer(id, { rights, user });
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
