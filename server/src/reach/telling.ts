import { nextMorning } from '@zonal/core/reach';
import { QueryTypes, type Sequelize, type Transaction } from 'sequelize';
import { KeyRow, WindowRow } from '../db/models';
import { addressesOf } from '../glass/addresses';
import { EVERYBODY, viewIdOf } from '../glass/windowStore';
import { groupedBy } from '../db/grouped';
import { RETRIES, type Jobs } from '../jobs/jobs';
import { Lanes } from '../jobs/lanes';
import { log } from '../log';
import { tellHub } from './hub';
import { pushJob, pushNames, type PushSetting } from './pushStore';

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
 * Finds the views that have a new revision and the keys that lead to another view, and marks the pushes and mails that are due.
 * Only keys and public addresses that lead there count, so that the time of a message does not reveal what others are shown. Asks
 * for a job for each due push. It is one transaction, so one of several processes does it.
 */
export async function noteUntold(
  { sequelize, jobs, hub, times }: Pick<Telling, 'sequelize' | 'jobs' | 'hub' | 'times'>,
  now = Date.now(),
): Promise<void> {
  await sequelize.transaction(async (transaction) => {
    const { keyIds, publicIds } = await concernedAddresses(sequelize, transaction);
    if (keyIds.length)
      await sequelize.query('UPDATE pushes SET due = true WHERE key_id IN (:keyIds)', {
        replacements: { keyIds },
        transaction,
      });
    await noteNotices(sequelize, { keyIds, publicIds }, times.settle, now, transaction);
    if (hub)
      for (const { id } of await WindowRow.findAll({ where: { id: publicIds, listed: true }, transaction }))
        await jobs.ask('hub', { windowId: id }, transaction);
    const due = await sequelize.query<{ id: string }>(
      `UPDATE pushes SET due = false, asked_at = now()
       WHERE state = 'on' AND due AND (asked_at IS NULL OR asked_at < now() - interval '${LOST}') RETURNING key_id AS id`,
      { transaction, type: QueryTypes.SELECT },
    );
    for (const { id } of due) await jobs.ask('push', { keyId: id }, transaction);
  });
}

/** Addresses whose readers may get something else than before: keys, and windows for their public addresses. */
interface Concerned {
  readonly keyIds: readonly string[];
  readonly publicIds: readonly string[];
}

/** Removes the notes about changed views and moved keys, and returns the addresses that lead there. */
async function concernedAddresses(sequelize: Sequelize, transaction: Transaction): Promise<Concerned> {
  const views = await sequelize.query<{ view: string; window: string }>(
    `DELETE FROM untold u USING views v
     WHERE v.id = u.view_id AND u.view_id IN (SELECT view_id FROM untold ORDER BY view_id FOR UPDATE SKIP LOCKED)
     RETURNING u.view_id AS view, v.window_id AS window`,
    { transaction, type: QueryTypes.SELECT },
  );
  const moved = await sequelize.query<{ id: string }>(
    `DELETE FROM moved_keys WHERE key_id IN (SELECT key_id FROM moved_keys ORDER BY key_id FOR UPDATE SKIP LOCKED)
     RETURNING key_id AS id`,
    { transaction, type: QueryTypes.SELECT },
  );
  const windowId = [...new Set(views.map((v) => v.window))];
  const changed = new Set(views.map((v) => v.view));
  const keys = await KeyRow.findAll({ where: { windowId }, raw: true, transaction });
  return {
    keyIds: [...keys.filter((key) => changed.has(viewIdOf(key))), ...moved].map(({ id }) => id),
    publicIds: windowId.filter((id) => changed.has(viewIdOf({ windowId: id, ...EVERYBODY }))),
  };
}

/** Readers who want to hear at once are written to once a burst of changes is over; others on their next morning. */
async function noteNotices(
  sequelize: Sequelize,
  { keyIds, publicIds }: Concerned,
  settle: number,
  now: number,
  transaction: Transaction,
): Promise<void> {
  if (!keyIds.length && !publicIds.length) return;
  // An empty list is no SQL.
  const listed = (ids: readonly string[]) => (ids.length ? ids : [null]);
  const replacements = {
    ...{ now: new Date(now), soon: new Date(now + settle) },
    ...{ keyIds: listed(keyIds), publicIds: listed(publicIds) },
  };
  const waiting = `(key_id IN (:keyIds) OR key_id IS NULL AND window_id IN (:publicIds))
    AND confirmed_at IS NOT NULL AND NOT due`;
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
  const lanes = new Lanes(MAX_PUSHES_AT_ONCE);
  jobs.work(
    'push',
    async ({ data, tried }) => {
      const tries = (data.tried ?? 0) + tried;
      const names = await pushNames(data.keyId);
      const leave = names && lanes.enter(names);
      if (names && !leave)
        return jobs.putOff('push', { keyId: data.keyId, tried: tries }, SECONDS_UNTIL_LANE_IS_FREE);
      try {
        await pushJob(data.keyId, tries >= RETRIES.push, push);
      } finally {
        leave?.();
      }
    },
    PUSH_WORKERS,
  );
  jobs.work('hub', async ({ data }) => {
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
const PUSH_WORKERS = 8;
/** Systems that do not answer keep no others waiting: neither those of one host nor those of one window. */
const MAX_PUSHES_AT_ONCE = { host: 2, window: 3 };
const SECONDS_UNTIL_LANE_IS_FREE = 3;
