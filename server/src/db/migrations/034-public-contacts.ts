import type { Sequelize, Transaction } from 'sequelize';

/** The house's own public mail addresses and telephone numbers. */
export const name = '034-public-contacts';

export async function up(sequelize: Sequelize, transaction: Transaction): Promise<void> {
  await sequelize.query(`ALTER TABLE house ADD COLUMN public_contacts jsonb NOT NULL DEFAULT '[]'`, {
    transaction,
  });
}
