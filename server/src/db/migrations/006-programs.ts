import type { Sequelize, Transaction } from 'sequelize';

/** Views say which program worked them out: the same one need not do so again when it starts. */
export const name = '006-programs';

export async function up(sequelize: Sequelize, transaction: Transaction): Promise<void> {
  await sequelize.query(`ALTER TABLE views ADD made_by text NOT NULL DEFAULT ''`, { transaction });
}
