import { WINDOW_LIMITS, saidOf, settingsOf, unfitIn } from '@zonal/core/glass';
import { Problem } from '@zonal/core/problems';
import { ACCOUNT_LIMITS } from '@zonal/core/rights';
import { randomBytes } from 'node:crypto';
import { UniqueConstraintError } from 'sequelize';
import { PushRow } from '../db/tellingModels';
import { DraftRow, KeyRow, VersionRow, WindowRow, WindowSourceRow } from '../db/models';
import { route, type Call } from '../http/route';
import { validated } from '../http/validated';
import {
  checkConfirmed,
  checkInput,
  listingColumns,
  publishWindow,
  windowTold,
  withTroubles,
  type Publishing,
} from './publishWindow';
import { namesOf } from '../people/names';
import { windowIdsSeen } from '../people/windowsSeen';
import { windowPage } from './windowPage';
import { ClosingInput, DraftInput, ScheduleInput, WindowInput } from './windowInput';
import {
  draftAnswer,
  lostLabelsOf,
  newToken,
  rememberVersion,
  sourceRowsOf,
  windowAnswers,
} from './windowStore';

/** Answers wait until the change acts outside, so that an address that was answered works. */
export const windowRoutes = (publishing: Publishing) => {
  const { sequelize, publicUrl, change } = publishing;
  const answer = (id: string) => windowTold(publishing, id);

  /** Sets or clears the time at which a window was closed. */
  const shutting =
    (close: boolean) =>
    async ({ param, user }: Call<unknown, 'id'>) => {
      const { id } = await answer(param('id'));
      await change(user.id, async (transaction) => {
        const row = (await WindowRow.findByPk(id, { transaction }))!;
        if ((row.closedAt !== null) !== close) {
          await row.update(
            {
              closedAt: close ? new Date() : null,
              closesAt: null,
              farewellAt: null,
              version: row.version + 1,
            },
            { transaction },
          );
          await rememberVersion(id, user.id, transaction);
        }
        return { result: undefined, touched: [{ windowId: id }] };
      });
      return answer(id);
    };

  return [
    route('GET /windows', {
      tag: 'Windows',
      summary:
        'The windows over calendars that the asker publishes, with their sources, keys and drafts, in pages; a header Link names the next page',
      query: {
        limit: 'How many windows a page has: 1 to 200, or else 100.',
        after: 'The id of the last window of the page before.',
      },
      handle: async ({ req, res, rights }) => {
        const { ids, next } = await windowPage(await windowIdsSeen(rights), req.query);
        if (next) res.setHeader('Link', `</api/${next}>; rel="next"`);
        return withTroubles(publishing, await windowAnswers(sequelize, publicUrl, ids));
      },
    }),
    route('GET /windows/:id', {
      tag: 'Windows',
      summary: 'One window',
      handle: ({ param }) => answer(param('id')),
    }),
    route('POST /windows', {
      tag: 'Windows',
      summary: 'Open a window, with a first key; large effects must be confirmed',
      body: WindowInput,
      status: 201,
      again: (_call, id) => answer(String(id)),
      handle: async ({ body, user }) => {
        await checkInput(body);
        await checkConfirmed(publishing, null, body, body.confirmed ?? []);
        const id = await change(user.id, async (transaction) => {
          const most = ACCOUNT_LIMITS.windows;
          const opened = await VersionRow.findAll({
            attributes: ['windowId'],
            where: { userId: user.id, version: 1 },
            transaction,
          });
          const ids = opened.map(({ windowId }) => windowId);
          if ((await WindowRow.count({ where: { id: ids }, transaction })) >= most)
            throw new Problem('too-many-windows', { most });
          const settings = settingsOf(body);
          const row = await WindowRow.create(
            {
              ...(await listingColumns(null, body, transaction)),
              name: body.name,
              settings,
              lostLabels: await lostLabelsOf(sequelize, body, transaction),
              secret: randomBytes(32).toString('base64url'),
              closedAt: null,
            },
            { transaction },
          );
          await WindowSourceRow.bulkCreate(sourceRowsOf(row.id, body), { transaction });
          const audience = body.audience ?? 'street';
          const key = { windowId: row.id, token: newToken(), madeOutTo: 'First key', audience, cap: null };
          await KeyRow.create(key, { transaction });
          await rememberVersion(row.id, user.id, transaction);
          return { result: row.id, touched: [{ windowId: row.id }] };
        });
        return answer(id);
      },
    }),
    route('PUT /windows/:id', {
      tag: 'Windows',
      summary:
        'Show new rules outside; acts at once, large effects must be confirmed, and a draft is done with',
      body: WindowInput,
      again: ({ param }) => answer(param('id')),
      handle: async ({ body, param, user }) => {
        const { id } = await answer(param('id'));
        return publishWindow(publishing, id, body, user.id);
      },
    }),
    route('PUT /windows/:id/draft', {
      tag: 'Windows',
      summary: 'Keep rules that are being worked on; nothing changes outside',
      body: DraftInput,
      handle: async ({ body, param, user }) => {
        const { id: windowId } = await answer(param('id'));
        if (JSON.stringify(body.body).length > WINDOW_LIMITS.draftLetters)
          throw new Problem('too-large', { limit: `${WINDOW_LIMITS.draftLetters / 1000} kB` });
        const unfit = unfitIn(body.body);
        if (unfit.length) throw new Problem('input-invalid', { fields: unfit.slice(0, 50).join(', ') });
        const known = await DraftRow.findByPk(windowId);
        if ((known?.version ?? 0) !== body.version) {
          const names = await namesOf([known?.userId ?? null]);
          const current = known && draftAnswer(known, names.get(known.userId) ?? '');
          throw new Problem('version-conflict', { current, yours: body.body });
        }
        const columns = { body: body.body, userId: user.id, stopped: '' };
        if (!known) {
          try {
            await DraftRow.create({ windowId, ...columns });
          } catch (error) {
            // Somebody else began one at the same moment.
            if (!(error instanceof UniqueConstraintError)) throw error;
            throw new Problem('version-conflict', { current: null, yours: body.body });
          }
        } else {
          const where = { windowId, version: body.version };
          // What was scheduled is no longer what stands here.
          const [changed] = await DraftRow.update(
            { ...columns, version: body.version + 1, publishAt: null, scheduledBy: null, confirmed: [] },
            { where },
          );
          if (!changed) throw new Problem('version-conflict', { current: null, yours: body.body });
        }
        return draftAnswer((await DraftRow.findByPk(windowId))!, user.name);
      },
    }),
    route('DELETE /windows/:id/draft', {
      tag: 'Windows',
      summary: 'Discard a draft',
      handle: async ({ param }) => {
        await DraftRow.destroy({ where: { windowId: (await answer(param('id'))).id } });
      },
    }),
    route('POST /windows/:id/schedule', {
      tag: 'Windows',
      summary:
        'Have the draft shown outside at a time (ISO 8601 with a zone), or take the time back with null',
      body: ScheduleInput,
      handle: async ({ body, param, user }) => {
        const before = await answer(param('id'));
        const draft = await DraftRow.findByPk(before.id);
        if (!draft) throw new Problem('draft-missing');
        const confirmed = body.confirmed ?? [];
        if (body.at) {
          if (before.closedAt) throw new Problem('window-closed');
          if (Date.parse(body.at) <= Date.now()) throw new Problem('schedule-past');
          const input = validated(WindowInput, { ...draft.body, version: before.version, confirmed });
          await checkInput(input);
          await checkConfirmed(publishing, before, input, confirmed);
        }
        await draft.update({
          ...{ publishAt: body.at ? new Date(body.at) : null, scheduledBy: body.at ? user.id : null },
          ...{ confirmed, stopped: '' },
        });
        return answer(before.id);
      },
    }),
    route('GET /windows/:id/versions', {
      tag: 'Windows',
      summary: 'The rules of a window as they were published, newest first',
      handle: async ({ param }) => {
        const { id: windowId } = await answer(param('id'));
        const rows = await VersionRow.findAll({ where: { windowId }, order: [['version', 'DESC']] });
        const names = await namesOf(rows.map((r) => r.userId));
        return rows.map(({ version, body, userId, createdAt }) => ({
          version,
          body: saidOf(body),
          by: (userId && names.get(userId)) ?? '',
          at: createdAt.toISOString(),
        }));
      },
    }),
    route('DELETE /windows/:id/sources/:calendarId', {
      tag: 'Windows',
      summary: 'Take one’s calendar out of a window; one that has no other source is closed',
      again: ({ param }) => answer(param('id')),
      handle: async ({ param, user }) => {
        const window = await answer(param('id'));
        const calendarId = param('calendarId');
        if (!window.sources.some((s) => s.calendarId === calendarId)) throw new Problem('not-found');
        await change(user.id, async (transaction) => {
          const row = (await WindowRow.findByPk(window.id, { transaction, lock: true }))!;
          await WindowSourceRow.destroy({ where: { windowId: row.id, calendarId }, transaction });
          const left = await WindowSourceRow.count({ where: { windowId: row.id }, transaction });
          await row.update(
            { version: row.version + 1, ...(left ? {} : { closedAt: row.closedAt ?? new Date() }) },
            { transaction },
          );
          await rememberVersion(row.id, user.id, transaction);
          return { result: undefined, touched: [{ windowId: row.id }] };
        });
        return answer(window.id);
      },
    }),
    route('PUT /windows/:id/closing', {
      tag: 'Windows',
      summary:
        'Have a window close by itself at a moment, and its readers told of it or not; null to stay open',
      body: ClosingInput,
      again: ({ param }) => answer(param('id')),
      handle: async ({ body, param, user }) => {
        const window = await answer(param('id'));
        if (window.closedAt) throw new Problem('window-closed');
        const at = body.at === null ? null : new Date(body.at);
        if (at && at.getTime() <= Date.now()) throw new Problem('closing-past');
        await change(user.id, async (transaction) => {
          const row = (await WindowRow.findByPk(window.id, { transaction, lock: true }))!;
          const was = row.closesAt?.toISOString() ?? null;
          if (was !== (body.was === null ? null : new Date(body.was).toISOString()))
            throw new Problem('version-conflict', { current: window, yours: body });
          const told = at && body.farewell;
          await row.update(
            { closesAt: at, farewellAt: told ? (row.farewellAt ?? new Date()) : null },
            { transaction },
          );
          return { result: undefined, touched: [{ windowId: window.id }] };
        });
        return answer(window.id);
      },
    }),
    route('POST /windows/:id/close', {
      tag: 'Windows',
      summary: 'Close a window: all its addresses answer 410',
      again: ({ param }) => answer(param('id')),
      handle: shutting(true),
    }),
    route('POST /windows/:id/open', {
      tag: 'Windows',
      summary: 'Open a closed window again, with the addresses that it had',
      again: ({ param }) => answer(param('id')),
      handle: shutting(false),
    }),
    route('DELETE /windows/:id', {
      tag: 'Windows',
      summary: 'Delete a closed window for good; its addresses go on answering 410',
      handle: async ({ param, user }) => {
        const { id } = await answer(param('id'));
        await change(user.id, async (transaction) => {
          const row = (await WindowRow.findByPk(id, { transaction, lock: true }))!;
          if (!row.closedAt) throw new Problem('window-open');
          const keys = await KeyRow.findAll({ where: { windowId: id }, attributes: ['id'], transaction });
          const where = { keyId: keys.map((key) => key.id) };
          // What only people inside knew of it is removed; its addresses are kept to say that it is gone.
          await PushRow.destroy({ where, transaction });
          await DraftRow.destroy({ where: { windowId: id }, transaction });
          await KeyRow.update({ contact: '', notes: '' }, { where: { windowId: id }, transaction });
          await KeyRow.update(
            { withdrawnAt: new Date() },
            { where: { windowId: id, withdrawnAt: null }, transaction },
          );
          await row.update({ deletedAt: new Date() }, { transaction });
          return { result: undefined, touched: [{ windowId: id }] };
        });
      },
    }),
  ];
};
