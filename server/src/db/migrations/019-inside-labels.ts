import type { Sequelize, Transaction } from 'sequelize';

/** Labels that hold entries of a calendar back from those inside who look through a glass. */
export const name = '019-inside-labels';

export async function up(sequelize: Sequelize, transaction: Transaction): Promise<void> {
  await sequelize.query(`ALTER TABLE calendars ADD label_holds jsonb NOT NULL DEFAULT '[]'`, { transaction });
}
