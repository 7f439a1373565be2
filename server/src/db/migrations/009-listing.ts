import type { Sequelize, Transaction } from 'sequelize';

/** Since when a window is listed. */
export const name = '009-listing';

export async function up(sequelize: Sequelize, transaction: Transaction): Promise<void> {
  await sequelize.query(
    `
    ALTER TABLE windows ADD listed_at timestamptz;
    UPDATE windows SET listed_at = created_at WHERE listed;
  `,
    { transaction },
  );
}
