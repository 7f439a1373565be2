import { Problem } from '@zonal/core/problems';
import { createHash, randomBytes } from 'node:crypto';
import type { Transaction } from 'sequelize';
import { PassRow, type PassKind } from '../db/models';

/** Random bytes of the secret part of an address that works once. */
const BYTES = 24;
const MINUTE = 60_000;

/** Minutes for which each kind of address works. */
export const PASS_MINUTES = { first: 24 * 60, password: 60, address: 24 * 60 } as const;

/** Where in the application each kind leads; the secret stands behind `#`, so that no server is told it by a page's address. */
const PLACES: Readonly<Record<PassKind, string>> = {
  first: '/begin',
  invitation: '/welcome',
  password: '/new-password',
  address: '/confirm-address',
};

const printOf = (token: string) => createHash('sha256').update(token).digest('base64url');

/** What an address that works once stands for. */
export interface Pass {
  readonly kind: PassKind;
  readonly userId: string | null;
  readonly concerns: string;
  readonly endsAt: Date;
}

/** Makes an address that works once and returns it; those that were made for the same thing before work no more. */
export async function makePass(publicUrl: string, pass: Pass, transaction?: Transaction): Promise<string> {
  const token = randomBytes(BYTES).toString('base64url');
  const { kind, userId, concerns } = pass;
  const same = kind === 'invitation' ? { kind, concerns } : { kind, userId };
  const t = transaction ?? null;
  await PassRow.destroy({ where: { ...same, usedAt: null }, transaction: t });
  await PassRow.create({ ...pass, print: printOf(token) }, { transaction: t });
  return `${publicUrl}${PLACES[kind]}#${token}`;
}

/** Returns the instant until which an address of a kind works that is made now. */
export function passEnds(kind: keyof typeof PASS_MINUTES): Date {
  return new Date(Date.now() + PASS_MINUTES[kind] * MINUTE);
}

/** Returns what a token stands for. Throws `pass-unknown`, `pass-used` or `pass-ended`. */
export async function passFor(token: string, kind?: PassKind): Promise<Pass> {
  const row = await PassRow.findByPk(printOf(token));
  if (!row || (kind && row.kind !== kind)) throw new Problem('pass-unknown');
  if (row.usedAt) throw new Problem('pass-used');
  if (row.endsAt.getTime() <= Date.now()) throw new Problem('pass-ended', { ends: row.endsAt.toISOString() });
  return row;
}

/** Uses a token up, as part of a transaction: of two who do so at once, one is refused. Throws as {@link passFor} does. */
export async function takePass(token: string, kind: PassKind, transaction: Transaction): Promise<Pass> {
  const pass = await passFor(token, kind);
  const [changed] = await PassRow.update(
    { usedAt: new Date() },
    { where: { print: printOf(token), usedAt: null }, transaction },
  );
  if (!changed) throw new Problem('pass-used');
  return pass;
}
