import type { Sequelize } from 'sequelize';

/** Keys that are open until a moment. */
export const name = '004-key-expiry';

export async function up(sequelize: Sequelize): Promise<void> {
  await sequelize.query('ALTER TABLE keys ADD expires_at timestamptz');
}
