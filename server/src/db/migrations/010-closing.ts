import type { Sequelize, Transaction } from 'sequelize';

/** That a window is to close by itself, and since when its readers are told. */
export const name = '010-closing';

export async function up(sequelize: Sequelize, transaction: Transaction): Promise<void> {
  await sequelize.query('ALTER TABLE windows ADD closes_at timestamptz, ADD farewell_at timestamptz', {
    transaction,
  });
}
