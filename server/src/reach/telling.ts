import { nextMorning } from '@zonal/core/reach';
import { QueryTypes, type Sequelize, type Transaction } from 'sequelize';
import { WindowRow } from '../db/models';
import { EVERYBODY, addressesOf, viewIdOf } from '../glass/windowStore';
import { groupedBy } from '../db/grouped';
import type { Jobs } from '../jobs/jobs';
import { log } from '../log';
import { tellHub } from './hub';
import { pushJob, type PushSetting } from './pushStore';

/** So often, in milliseconds, it is looked whether there are revisions that somebody is to be told of. */
const EVERY = 2_000;
/** A job of which nothing was heard for so long is lost. */
const LOST = '3 days';

export interface TellingTimes {
  /** Milliseconds for which changes are gathered before readers are written to. */
  readonly settle: number;
  /** Milliseconds between two mails to a reader who wants to hear at once. */
  readonly gap: number;
}

export interface Telling {
  readonly sequelize: Sequelize;
  readonly jobs: Jobs;
  readonly publicUrl: string;
  /** The hub that is told of listed windows (WebSub), or empty. */
  readonly hub: string;
  readonly times: TellingTimes;
  readonly push: PushSetting;
}

/**
 * Looks which views have a new revision, and notes who may have to be told; whoever is told by a job gets one. It is one
 * transaction: of several processes one does it.
 */
export async function noteUntold(
  { sequelize, jobs, hub, times }: Pick<Telling, 'sequelize' | 'jobs' | 'hub' | 'times'>,
  now = Date.now(),
): Promise<void> {
  await sequelize.transaction(async (transaction) => {
    const views = await sequelize.query<{ view: string; window: string }>(
      `DELETE FROM untold u USING views v
       WHERE v.id = u.view_id AND u.view_id IN (SELECT view_id FROM untold ORDER BY view_id FOR UPDATE SKIP LOCKED)
       RETURNING u.view_id AS view, v.window_id AS window`,
      { transaction, type: QueryTypes.SELECT },
    );
    const windows = [...new Set(views.map((v) => v.window))];
    if (windows.length) {
      await sequelize.query(
        `UPDATE pushes SET due = true WHERE key_id IN (SELECT id FROM keys WHERE window_id IN (:windows))`,
        { replacements: { windows }, transaction },
      );
      await noteNotices(sequelize, windows, times.settle, now, transaction);
      if (hub)
        for (const { id } of await WindowRow.findAll({ where: { id: windows, listed: true }, transaction }))
          if (views.some((v) => v.view === viewIdOf({ windowId: id, ...EVERYBODY })))
            await jobs.ask('hub', { windowId: id }, transaction);
    }
    const due = await sequelize.query<{ id: string }>(
      `UPDATE pushes SET due = false, asked_at = now()
       WHERE state = 'on' AND due AND (asked_at IS NULL OR asked_at < now() - interval '${LOST}') RETURNING key_id AS id`,
      { transaction, type: QueryTypes.SELECT },
    );
    for (const { id } of due) await jobs.ask('push', { keyId: id }, transaction);
  });
}

/** Readers who want to hear at once are written to once a burst of changes is over; others on their next morning. */
async function noteNotices(
  sequelize: Sequelize,
  windows: readonly string[],
  settle: number,
  now: number,
  transaction: Transaction,
): Promise<void> {
  const replacements = { windows, now: new Date(now), soon: new Date(now + settle) };
  const waiting = 'window_id IN (:windows) AND confirmed_at IS NOT NULL AND NOT due';
  const daily = await sequelize.query<{ id: string; zone: string }>(
    `SELECT id, zone FROM notices WHERE ${waiting} AND way = 'daily' AND next_at <= :now`,
    { replacements, transaction, type: QueryTypes.SELECT },
  );
  for (const [zone, rows] of groupedBy(daily, (d) => d.zone))
    await sequelize.query('UPDATE notices SET next_at = :at WHERE id IN (:ids)', {
      replacements: { at: new Date(nextMorning(zone, now)), ids: rows.map((r) => r.id) },
      transaction,
    });
  await sequelize.query(
    `UPDATE notices SET due = true, next_at = greatest(next_at, CASE way WHEN 'daily' THEN next_at ELSE :soon END)
     WHERE ${waiting}`,
    { replacements, transaction },
  );
}

/** Has systems, hubs and readers told of changes; `tellReaders` writes to readers who are due. */
export async function startTelling(
  telling: Telling,
  tellReaders: () => Promise<void>,
): Promise<{ close: () => Promise<void> }> {
  const { jobs, publicUrl, hub, push } = telling;
  await jobs.work('push', ({ data, last }) => pushJob(data.keyId, last, push), PUSHES_AT_ONCE);
  await jobs.work('hub', async ({ data }) => {
    const window = await WindowRow.findByPk(data.windowId);
    if (hub && window?.listed && window.slug) await tellHub(hub, addressesOf(publicUrl, window.slug).changes);
  });
  let looking: Promise<void> | null = null;
  const look = async () => {
    try {
      await noteUntold(telling);
      await tellReaders();
    } catch (error) {
      log.warn({ err: error }, 'it could not be looked who is to be told of changes; trying again later');
    }
  };
  const timer = setInterval(() => {
    looking ??= look().finally(() => (looking = null));
  }, EVERY).unref();
  return {
    close: async () => {
      clearInterval(timer);
      await looking;
    },
  };
}

/** One that does not answer holds up no more than one of these. */
const PUSHES_AT_ONCE = 4;
