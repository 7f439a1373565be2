import type { Sequelize, Transaction } from 'sequelize';

/** Keys that are a colleague's own: what they show follows what that colleague may see inside. */
export const name = '018-own-keys';

export async function up(sequelize: Sequelize, transaction: Transaction): Promise<void> {
  await sequelize.query(
    `
    ALTER TABLE keys ADD user_id uuid REFERENCES users ON DELETE CASCADE;
    CREATE INDEX keys_of_user ON keys (user_id) WHERE user_id IS NOT NULL;
  `,
    { transaction },
  );
}
