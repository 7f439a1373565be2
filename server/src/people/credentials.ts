import { credentialsLetter } from '@zonal/core/post';
import type { Transaction } from 'sequelize';
import { languageOf } from '../db/accountLanguage';
import { houseName } from '../db/houseName';
import { PassRow, type UserRow } from '../db/models';
import type { Outbox } from '../db/outbox';

/**
 * Does what follows a change of credentials, as part of its transaction: all addresses that work once for the account end, and
 * a mail reports it to the address that the account had until then. Whoever calls it ends the sessions.
 */
export async function credentialsChanged(
  { id, name, email, language }: Pick<UserRow, 'id' | 'name' | 'email' | 'language'>,
  what: 'password' | 'address',
  outbox: Outbox,
  transaction: Transaction,
): Promise<void> {
  await PassRow.destroy({ where: { userId: id, usedAt: null }, transaction });
  const house = await houseName(transaction);
  const letter = credentialsLetter({ house, language: languageOf({ language }), name, what });
  await outbox.put(email, 'credentials', letter, transaction);
}
