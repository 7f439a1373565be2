import type { Sequelize, Transaction } from 'sequelize';

/** Accounts at rest. */
export const name = '005-ground';

export async function up(sequelize: Sequelize, transaction: Transaction): Promise<void> {
  await sequelize.query('ALTER TABLE users ADD rested_at timestamptz', { transaction });
}
