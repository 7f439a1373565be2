import type { Sequelize, Transaction } from 'sequelize';

/** Which keys matter, changes that are urgent, what organisers were told of by itself, and what they want to hear no more. */
export const name = '023-alerts';

export async function up(sequelize: Sequelize, transaction: Transaction): Promise<void> {
  await sequelize.query(
    `
    ALTER TABLE keys ADD matters boolean NOT NULL DEFAULT false;
    CREATE TABLE urgent_changes (
      window_id uuid PRIMARY KEY REFERENCES windows ON DELETE CASCADE,
      by timestamptz NOT NULL
    );
    CREATE TABLE alerts (
      id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
      kind text NOT NULL,
      window_id uuid NOT NULL REFERENCES windows ON DELETE CASCADE,
      key_id uuid REFERENCES keys ON DELETE CASCADE,
      say text NOT NULL,
      since timestamptz NOT NULL,
      UNIQUE NULLS NOT DISTINCT (kind, window_id, key_id)
    );
    CREATE TABLE alert_mutes (
      kind text NOT NULL,
      window_id uuid NOT NULL REFERENCES windows ON DELETE CASCADE,
      key_id uuid REFERENCES keys ON DELETE CASCADE,
      UNIQUE NULLS NOT DISTINCT (kind, window_id, key_id)
    );
  `,
    { transaction },
  );
}
