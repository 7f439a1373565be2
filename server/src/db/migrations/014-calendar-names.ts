import type { Sequelize, Transaction } from 'sequelize';

/** A refused name would tell that there is a calendar called so, also one of which nobody may know. */
export const name = '014-calendar-names';

export async function up(sequelize: Sequelize, transaction: Transaction): Promise<void> {
  await sequelize.query('ALTER TABLE calendars DROP CONSTRAINT calendars_name_key', { transaction });
}
