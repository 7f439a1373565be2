import { plainName } from '@zonal/core/forms';
import { Problem } from '@zonal/core/problems';
import { isUUID } from 'class-validator';
import { randomBytes } from 'node:crypto';
import type { Sequelize, Transaction } from 'sequelize';
import { changing } from '../db/changes';
import { CalendarRow, KeyRow, ViewRow, WindowRow, WindowSourceRow, type WindowSettings } from '../db/models';
import { route } from '../http/route';
import { WindowInput } from './windowInput';
import { viewIdOf, windowAnswer, windowAnswers } from './windowStore';

function settingsOf(body: WindowInput): WindowSettings {
  const { description, colour, busyWord, dueAs, hostZone, horizon, rounding, tellTentative, switches } = body;
  return {
    description,
    colour,
    busyWord,
    dueAs,
    hostZone,
    horizon: { ...horizon },
    rounding,
    tellTentative,
    switches: { ...switches },
  };
}

/** Returns a part of an address that no other window has: the name in plain letters, numbered where taken. */
async function freeSlug(name: string, transaction: Transaction): Promise<string> {
  const base = plainName(name, 'window');
  for (let n = 1; ; n++) {
    const slug = n === 1 ? base : `${base}-${n}`;
    if (!(await WindowRow.count({ where: { slug }, transaction }))) return slug;
  }
}

async function putSources(windowId: string, body: WindowInput, transaction: Transaction): Promise<void> {
  const ids = body.sources.map((s) => s.calendarId);
  if ((await CalendarRow.count({ where: { id: ids }, transaction })) < ids.length)
    throw new Problem('source-missing');
  await WindowSourceRow.destroy({ where: { windowId }, transaction });
  await WindowSourceRow.bulkCreate(
    body.sources.map(({ calendarId, glass }, position) => ({ windowId, calendarId, glass, position })),
    { transaction },
  );
}

/** Sets or clears the time at which a window was closed. */
function shutting(sequelize: Sequelize, publicUrl: string, settle: () => Promise<void>, close: boolean) {
  return async ({ param }: { param: (name: string) => string }) => {
    const { id } = await windowAnswer(publicUrl, param('id'));
    await changing(sequelize, async (transaction) => {
      const row = (await WindowRow.findByPk(id, { transaction }))!;
      if ((row.closedAt !== null) !== close) {
        await row.update({ closedAt: close ? new Date() : null, version: row.version + 1 }, { transaction });
      }
      return { result: undefined, touched: [{ windowId: id }] };
    });
    await settle();
    return windowAnswer(publicUrl, id);
  };
}

/** `settle` waits until this process shows the change outside, so that an address that was answered works. */
export const windowRoutes = (sequelize: Sequelize, publicUrl: string, settle: () => Promise<void>) => [
  route({
    method: 'get',
    path: '/windows',
    tag: 'Windows',
    summary: 'All windows with their sources and keys',
    handle: () => windowAnswers(publicUrl),
  }),
  route({
    method: 'get',
    path: '/windows/:id',
    tag: 'Windows',
    summary: 'One window',
    handle: ({ param }) => windowAnswer(publicUrl, param('id')),
  }),
  route({
    method: 'get',
    path: '/keys/:id/revision',
    tag: 'Windows',
    summary: 'The revision that readers with a key see now; null before the first one',
    handle: async ({ param }) => {
      const key = isUUID(param('id')) ? await KeyRow.findByPk(param('id')) : null;
      if (!key) throw new Problem('not-found');
      return (await ViewRow.findByPk(viewIdOf(key)))?.revision ?? null;
    },
  }),
  route<WindowInput>({
    method: 'post',
    path: '/windows',
    tag: 'Windows',
    summary: 'Open a window, with a first key',
    body: WindowInput,
    status: 201,
    handle: async ({ body }) => {
      const id = await changing(sequelize, async (transaction) => {
        const row = await WindowRow.create(
          {
            slug: await freeSlug(body.name, transaction),
            name: body.name,
            settings: settingsOf(body),
            secret: randomBytes(32).toString('base64url'),
            listed: body.listed,
            closedAt: null,
          },
          { transaction },
        );
        await putSources(row.id, body, transaction);
        const audience = body.audience ?? 'street';
        const token = randomBytes(20).toString('base64url');
        await KeyRow.create(
          { windowId: row.id, token, madeOutTo: 'First key', audience, cap: null },
          { transaction },
        );
        return { result: row.id, touched: [{ windowId: row.id }] };
      });
      await settle();
      return windowAnswer(publicUrl, id);
    },
  }),
  route<WindowInput>({
    method: 'put',
    path: '/windows/:id',
    tag: 'Windows',
    summary: 'Change a window; acts at once on everything that leaves through it',
    body: WindowInput,
    handle: async ({ body, param }) => {
      const before = await windowAnswer(publicUrl, param('id'));
      if (before.closedAt) throw new Problem('window-closed');
      await changing(sequelize, async (transaction) => {
        const version = body.version ?? 0;
        const [changed] = await WindowRow.update(
          { name: body.name, settings: settingsOf(body), listed: body.listed, version: version + 1 },
          { where: { id: before.id, version }, transaction },
        );
        if (!changed) throw new Problem('version-conflict', { current: before, yours: body });
        await putSources(before.id, body, transaction);
        return { result: undefined, touched: [{ windowId: before.id }] };
      });
      await settle();
      return windowAnswer(publicUrl, before.id);
    },
  }),
  route({
    method: 'post',
    path: '/windows/:id/close',
    tag: 'Windows',
    summary: 'Close a window: all its addresses answer 410',
    handle: shutting(sequelize, publicUrl, settle, true),
  }),
  route({
    method: 'post',
    path: '/windows/:id/open',
    tag: 'Windows',
    summary: 'Open a closed window again, with the addresses that it had',
    handle: shutting(sequelize, publicUrl, settle, false),
  }),
];
