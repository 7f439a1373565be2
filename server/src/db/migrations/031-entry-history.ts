import type { Sequelize, Transaction } from 'sequelize';

/** Edits are looked up by entry, for its history. */
export const name = '031-entry-history';

export async function up(sequelize: Sequelize, transaction: Transaction): Promise<void> {
  await sequelize.query('CREATE INDEX edit_entries_by_entry ON edit_entries (entry_id)', { transaction });
}
