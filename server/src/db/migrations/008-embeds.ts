import type { Sequelize, Transaction } from 'sequelize';

/** How the embed of a key looks, and which sites may hold it. */
export const name = '008-embeds';

export async function up(sequelize: Sequelize, transaction: Transaction): Promise<void> {
  await sequelize.query(
    `
    ALTER TABLE keys
      ADD look jsonb NOT NULL DEFAULT '{}',
      ADD hosts jsonb NOT NULL DEFAULT '[]';
  `,
    { transaction },
  );
}
