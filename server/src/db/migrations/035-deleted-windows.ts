import type { Sequelize, Transaction } from 'sequelize';

/** Windows can be deleted once they are closed. The row stays, so that their addresses go on answering 410. */
export const name = '035-deleted-windows';

export async function up(sequelize: Sequelize, transaction: Transaction): Promise<void> {
  await sequelize.query('ALTER TABLE windows ADD COLUMN deleted_at timestamptz', { transaction });
}
