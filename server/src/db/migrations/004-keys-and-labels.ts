import type { Sequelize } from 'sequelize';

/** Keys that are open until a moment; labels that a window's filter has lost. */
export const name = '004-keys-and-labels';

export async function up(sequelize: Sequelize): Promise<void> {
  await sequelize.query(`
    ALTER TABLE keys ADD expires_at timestamptz;
    ALTER TABLE windows ADD lost_labels jsonb NOT NULL DEFAULT '[]';
  `);
}
