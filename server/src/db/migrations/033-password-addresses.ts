import type { Sequelize, Transaction } from 'sequelize';

/** When a steward last got an address for a new password to hand to somebody, for the journal. */
export const name = '033-password-addresses';

export async function up(sequelize: Sequelize, transaction: Transaction): Promise<void> {
  await sequelize.query('ALTER TABLE users ADD COLUMN password_address_at timestamptz', { transaction });
}
