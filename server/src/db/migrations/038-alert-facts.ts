import type { Sequelize, Transaction } from 'sequelize';

/** Alerts are stored as facts, and put into words for each reader in their language. Older ones still have their sentence. */
export const name = '038-alert-facts';

export async function up(sequelize: Sequelize, transaction: Transaction): Promise<void> {
  await sequelize.query('ALTER TABLE alerts ADD COLUMN facts jsonb, ALTER COLUMN say DROP NOT NULL', {
    transaction,
  });
}
