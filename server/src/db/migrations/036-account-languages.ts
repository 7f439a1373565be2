import type { Sequelize, Transaction } from 'sequelize';

/** The language in which somebody uses the application; null for the language of their browser. */
export const name = '036-account-languages';

export async function up(sequelize: Sequelize, transaction: Transaction): Promise<void> {
  await sequelize.query('ALTER TABLE users ADD COLUMN language text', { transaction });
}
