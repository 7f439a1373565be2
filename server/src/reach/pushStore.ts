import type { Push } from '@zonal/core/api';
import type { PushEvent } from '@zonal/core/forms';
import { DAY } from '@zonal/core/zones';
import { createHash, randomBytes } from 'node:crypto';
import { KeyRow } from '../db/models';
import { seal, unsealed } from '../db/sealed';
import { PushRow, PushTryRow } from '../db/tellingModels';
import type { ToldOrder } from '../outside/outside';
import type { ToldAt } from '../outside/publisher';
import { mayStillAct } from '../people/deferred';
import { newestRevision } from '../outside/viewStore';
import { push, type PushOutcome } from './pushing';

/** So many tries of each are kept and told. */
const KEPT_TRIES = 20;
/** For so long, in milliseconds, a secret that was replaced counts as well. */
const OLD_SECRET = DAY;

/** What is needed to push. */
export interface PushSetting {
  readonly told: (token: string, viewId: string | null, asked: ToldOrder) => Promise<ToldAt | null>;
  /** Origins that may be asked though they are near. */
  readonly allowed: readonly string[];
}

/** Returns the host and the window of a push, by which workers are shared out; null if the push is gone. */
export async function pushNames(keyId: string): Promise<{ host: string; window: string } | null> {
  const row = await PushRow.findByPk(keyId, { attributes: ['host'] });
  const key = row && (await KeyRow.findByPk(keyId, { attributes: ['windowId'] }));
  return row && key && { host: row.host, window: key.windowId };
}

/** Returns a new secret by which requests are signed (Standard Webhooks: 192 random bits). */
export function newSecret(): string {
  return `whsec_${randomBytes(24).toString('base64')}`;
}

/** Returns how a key's push stands, or null. `secret` is told only where it was just made. */
export async function pushTold(keyId: string, secret: string | null = null): Promise<Push | null> {
  const row = await PushRow.findByPk(keyId);
  if (!row) return null;
  const tries = await PushTryRow.findAll({
    where: { keyId },
    order: [['id', 'DESC']],
    limit: KEPT_TRIES,
  });
  return {
    address: unsealed(row.address),
    state: row.state,
    told: row.told,
    waits: row.due || row.askedAt !== null,
    tries: tries.map(({ message, revision, at, status, took, trouble }) => ({
      ...{ message, revision, at: at.toISOString(), status, took, trouble },
    })),
    version: row.version,
    secret,
    oldUntil: row.oldSecret && row.oldUntil && row.oldUntil > new Date() ? row.oldUntil.toISOString() : null,
  };
}

/** Returns the columns by which a push gets a new secret; the one before counts as well for a day. */
export function turnedSecret(row: PushRow, secret: string) {
  return {
    secret: seal(secret),
    oldSecret: row.secret,
    oldUntil: new Date(Date.now() + OLD_SECRET),
    version: row.version + 1,
  };
}

/** What came of telling: what is known of it, that there was nothing to tell, or that another process knows of something newer. */
export type PushResult = { readonly outcome: PushOutcome; readonly told: ToldAt } | 'behind' | null;

/** Tells a key's system what is new, or tests it. Returns null where there is nothing to tell, or nobody gets anything. */
export async function tellPush(
  row: PushRow,
  type: PushEvent['type'],
  { told: toldAt, allowed }: PushSetting,
): Promise<PushResult> {
  const key = await KeyRow.findByPk(row.keyId);
  if (!key) return null;
  const { viewId } = row;
  const told = await toldAt(unsealed(key.token), viewId, { as: 'push', since: row.told, type });
  if (!told?.event) return null;
  const test = type === 'calendar.test';
  if (!test && told.number < (await newestRevision(PushRow.sequelize!, told.viewId))) return 'behind';
  if (!test && told.viewId === viewId && told.number <= row.told) return null;
  const now = Date.now();
  const old = row.oldSecret && row.oldUntil && row.oldUntil.getTime() > now ? [row.oldSecret] : [];
  const named = test ? `test|${now}` : `${told.viewId}|${row.told}|${told.number}`;
  const message = `msg_${createHash('sha256').update(`${row.keyId}|${named}`).digest('base64url').slice(0, 24)}`;
  const outcome = await push(
    {
      address: unsealed(row.address),
      secrets: [row.secret, ...old].map(unsealed),
      message,
      event: told.event,
    },
    allowed,
  );
  await noteTry(row.keyId, message, told.number, now, outcome);
  return { outcome, told };
}

async function noteTry(keyId: string, message: string, revision: number, at: number, outcome: PushOutcome) {
  // It may have been taken away meanwhile.
  if (!(await PushRow.count({ where: { keyId } }))) return;
  const { status, took, trouble } = outcome;
  await PushTryRow.create({ keyId, message, revision, at: new Date(at), status, took, trouble });
  await PushRow.sequelize!.query(
    `DELETE FROM push_tries WHERE key_id = :keyId AND id NOT IN
       (SELECT id FROM push_tries WHERE key_id = :keyId ORDER BY id DESC LIMIT ${KEPT_TRIES})`,
    { replacements: { keyId } },
  );
}

/**
 * Does the job of telling a key's system. Throws where it is to be tried again; after the last try, or where the other side
 * says that it wants no more, it is stopped until somebody lets it go on.
 */
export async function pushJob(keyId: string, last: boolean, setting: PushSetting): Promise<void> {
  const row = await PushRow.findByPk(keyId);
  if (!row) return;
  const done = (columns: Partial<Pick<PushRow, 'state' | 'viewId' | 'told' | 'due'>>) =>
    PushRow.update({ ...columns, askedAt: null }, { where: { keyId } });
  if (row.state !== 'on') return void (await done({}));
  const windowId = (await KeyRow.findByPk(keyId))?.windowId;
  if (windowId && row.byId && !(await mayStillAct('push', row.byId, { windowIds: [windowId] }))) {
    const trouble = 'Whoever set it up may no longer publish this window. Resume it to take it over.';
    await noteTry(keyId, 'none', row.told, Date.now(), { status: null, took: 0, trouble });
    return void (await done({ state: 'failing' }));
  }
  const result = await tellPush(row, 'calendar.changed', setting);
  if (!result) return void (await done({}));
  // It is asked for again at once.
  if (result === 'behind') return void (await done({ due: true }));
  const { outcome, told } = result;
  if (!outcome.trouble) return void (await done({ viewId: told.viewId, told: told.number }));
  if (last || outcome.status === 410) return void (await done({ state: 'failing' }));
  throw new Error(outcome.trouble);
}
