import type { Sequelize, Transaction } from 'sequelize';

/**
 * Views say whether an address leads to them. One that is closed is not compiled, and the change log is not kept for it. Views
 * that no address leads to any more are marked when a server starts.
 */
export const name = '025-open-views';

export async function up(sequelize: Sequelize, transaction: Transaction): Promise<void> {
  await sequelize.query('ALTER TABLE views ADD COLUMN open boolean NOT NULL DEFAULT true', { transaction });
}
