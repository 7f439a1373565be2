import type { Sequelize, Transaction } from 'sequelize';

/** Images of entries, re-encoded, by their names. `used_at` is when an entry was last known to have the image. */
export const name = '037-images';

export async function up(sequelize: Sequelize, transaction: Transaction): Promise<void> {
  await sequelize.query(
    `CREATE TABLE images (
       name text PRIMARY KEY,
       bytes bytea NOT NULL,
       width integer NOT NULL,
       height integer NOT NULL,
       user_id uuid REFERENCES users (id) ON DELETE SET NULL,
       created_at timestamptz NOT NULL DEFAULT now(),
       used_at timestamptz NOT NULL DEFAULT now()
     );
     CREATE INDEX ON images (user_id, created_at)`,
    { transaction },
  );
}
