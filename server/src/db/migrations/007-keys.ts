import type { Sequelize, Transaction } from 'sequelize';

/** Keys that are looked after: whom to tell, notes, withdrawal; addresses that were turned and lead on for a time. */
export const name = '007-keys';

export async function up(sequelize: Sequelize, transaction: Transaction): Promise<void> {
  await sequelize.query(
    `
    ALTER TABLE keys
      ADD contact text NOT NULL DEFAULT '',
      ADD notes text NOT NULL DEFAULT '',
      ADD withdrawn_at timestamptz,
      ADD version integer NOT NULL DEFAULT 1;
    CREATE TABLE turned_tokens (
      token text PRIMARY KEY,
      key_id uuid NOT NULL REFERENCES keys (id) ON DELETE CASCADE,
      turned_at timestamptz NOT NULL,
      ends_at timestamptz NOT NULL
    );
    CREATE INDEX ON turned_tokens (key_id);
  `,
    { transaction },
  );
}
