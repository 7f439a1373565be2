import { Problem } from '@zonal/core/problems';
import { ipKeyGenerator } from 'express-rate-limit';
import type { Request, Response } from 'express';
import { createHmac, timingSafeEqual } from 'node:crypto';
import { QueryTypes, type Sequelize } from 'sequelize';
import { secretFor } from '../db/sealed';

/**
 * How many sign-ins to one account may fail within a quarter of an hour. Whoever tries from many places exhausts the third limit:
 * then new devices are refused for a while, and those on which somebody has signed in before still get in.
 */
export const SIGN_IN_LIMITS = {
  minutes: 15,
  fromKnownDevice: 20,
  fromClient: 20,
  fromUnknownDevices: 100,
} as const;

const DAY_MS = 86_400_000;
/** Names a program with which somebody has signed in before. */
const DEVICE_COOKIE = 'zonal.device';
const DEVICE_KNOWN_MS = 180 * DAY_MS;

const print = (what: string, text: string) =>
  createHmac('sha256', secretFor('sign-ins')).update(`${what}|${text}`).digest('base64url');

/** Has a program be known as one of an account's. Being known signs nobody in: it only keeps others from locking it out. */
export function rememberDevice(res: Response, userId: string, secure: boolean, now = Date.now()): void {
  const ends = now + DEVICE_KNOWN_MS;
  const value = `${userId}.${ends}.${print('device', `${userId}|${ends}`)}`;
  res.cookie(DEVICE_COOKIE, value, { httpOnly: true, sameSite: 'lax', secure, maxAge: DEVICE_KNOWN_MS });
}

/** Returns whether a request comes from a program with which an account was signed in before. */
function isKnownDevice(req: Request, userId: string | undefined, now: number): boolean {
  const pattern = /(?:^|;\s*)zonal\.device=([0-9a-f-]{36})\.(\d{1,16})\.([\w-]{43})(?:;|$)/;
  const [, id, ends, mac] = pattern.exec(req.headers.cookie ?? '') ?? [];
  if (!userId || id !== userId || Number(ends) <= now) return false;
  return timingSafeEqual(Buffer.from(mac!), Buffer.from(print('device', `${id}|${ends}`)));
}

/**
 * Counts a try to sign in before the password is compared, so that of many at once none goes uncounted. Returns a function
 * that takes it back, for a try that succeeds. Throws `too-many-tries`.
 */
export async function countSignInTry(
  sequelize: Sequelize,
  req: Request,
  account: { readonly email: string; readonly userId: string | undefined },
): Promise<() => Promise<void>> {
  const known = isKnownDevice(req, account.userId, Date.now());
  const replacements = {
    account: print('account', account.email),
    client: print('client', ipKeyGenerator(req.ip ?? '')),
    known,
    minutes: SIGN_IN_LIMITS.minutes,
  };
  const [own] = await sequelize.query<{ id: string }>(
    `INSERT INTO sign_in_tries (account_print, client_print, known_device) VALUES (:account, :client, :known) RETURNING id`,
    { replacements, type: QueryTypes.SELECT },
  );
  const [tries] = await sequelize.query<{ devices: number; clients: number; others: number }>(
    `SELECT (count(*) FILTER (WHERE known_device))::int AS devices,
       (count(*) FILTER (WHERE NOT known_device AND client_print = :client))::int AS clients,
       (count(*) FILTER (WHERE NOT known_device))::int AS others
     FROM sign_in_tries WHERE account_print = :account AND tried_at > now() - :minutes * interval '1 minute'`,
    { replacements, type: QueryTypes.SELECT },
  );
  const { devices, clients, others } = tries!;
  const { fromKnownDevice, fromClient, fromUnknownDevices, minutes } = SIGN_IN_LIMITS;
  const isTooMany = known ? devices > fromKnownDevice : clients > fromClient || others > fromUnknownDevices;
  if (isTooMany) throw new Problem('too-many-tries', { seconds: minutes * 60 });
  return async () => {
    await sequelize.query('DELETE FROM sign_in_tries WHERE id = :id', { replacements: { id: own!.id } });
  };
}

/** Forgets tries that no longer count. */
export async function forgetSignInTries(sequelize: Sequelize): Promise<void> {
  await sequelize.query(`DELETE FROM sign_in_tries WHERE tried_at < now() - interval '1 day'`);
}
