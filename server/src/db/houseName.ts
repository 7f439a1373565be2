import type { Transaction } from 'sequelize';
import { HouseRow } from './models';

/** Returns the organisation's name, or an empty text where it has none yet. */
export async function houseName(transaction?: Transaction): Promise<string> {
  return (await HouseRow.findByPk(1, { transaction: transaction ?? null }))!.name;
}
