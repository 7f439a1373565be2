import type { Sequelize, Transaction } from 'sequelize';

/** What has left views, so that feeds tell it for a time. Of what left before, nothing is known. */
export const name = '020-leaving';

export async function up(sequelize: Sequelize, transaction: Transaction): Promise<void> {
  await sequelize.query(
    `
    CREATE TABLE view_gone (
      view_id text NOT NULL REFERENCES views ON DELETE CASCADE,
      uid text NOT NULL,
      sequence int NOT NULL,
      at timestamptz NOT NULL,
      PRIMARY KEY (view_id, uid)
    );
    UPDATE views SET revision = revision || jsonb_build_object('forgotten', (revision->>'number')::int);
  `,
    { transaction },
  );
}
