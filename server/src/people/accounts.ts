import type { Account } from '@zonal/core/api';
import { Problem } from '@zonal/core/problems';
import { passwordTrouble, passwordWords } from '@zonal/core/rights';
import { Op, QueryTypes, type Transaction } from 'sequelize';
import { CalendarRow, StandingRow, UserRow } from '../db/models';

/** Returns everybody with an account, those at rest last. */
export async function allAccounts(): Promise<Account[]> {
  const rows = await UserRow.findAll({ order: [['name', 'ASC']] });
  return rows
    .map(({ id, name, email, role, restedAt }) => ({
      id,
      name,
      email,
      steward: role === 'steward',
      restedAt: restedAt?.toISOString() ?? null,
    }))
    .sort((a, b) => Number(a.restedAt !== null) - Number(b.restedAt !== null));
}

/** Throws `password-weak` with what it lacks. */
export function checkPassword(
  password: string,
  own: { readonly name: string; readonly email: string },
): void {
  const trouble = passwordTrouble(password, own);
  if (trouble) throw new Problem('password-weak', { trouble, reason: passwordWords(trouble) });
}

/** Throws `steward-missing` where a house has no steward left who is not at rest: to be asked after a change, within it. */
export async function checkSteward(transaction: Transaction): Promise<void> {
  if (!(await UserRow.count({ where: { role: 'steward', restedAt: null }, transaction })))
    throw new Problem('steward-missing');
}

/** Throws `publisher-resting` where a calendar has no publisher but this one: to be asked before they go to rest. */
export async function checkPublishers(user: UserRow, transaction: Transaction): Promise<void> {
  const only = await StandingRow.sequelize!.query<{ calendar_id: string }>(
    `SELECT s.calendar_id FROM standings s JOIN users u ON u.id = s.user_id
     WHERE s.standing = 'publisher' AND u.rested_at IS NULL
     GROUP BY s.calendar_id HAVING count(*) = 1 AND bool_and(s.user_id = :id)`,
    { replacements: { id: user.id }, transaction, type: QueryTypes.SELECT },
  );
  if (!only.length) return;
  const rows = await CalendarRow.findAll({
    where: { id: { [Op.in]: only.map((o) => o.calendar_id) } },
    attributes: ['name'],
    order: [['name', 'ASC']],
    transaction,
  });
  throw new Problem('publisher-resting', { name: user.name, calendars: rows.map((r) => r.name).join(', ') });
}
