import type { Sequelize, Transaction } from 'sequelize';

/** Calendars that everybody in the house may know of, which of them somebody has on the desk, and wishes to see more. */
export const name = '016-directory';

export async function up(sequelize: Sequelize, transaction: Transaction): Promise<void> {
  await sequelize.query(
    `
    ALTER TABLE calendars ADD known boolean NOT NULL DEFAULT false;
    CREATE TABLE off_desk (
      user_id uuid NOT NULL REFERENCES users ON DELETE CASCADE,
      calendar_id uuid NOT NULL REFERENCES calendars ON DELETE CASCADE,
      PRIMARY KEY (user_id, calendar_id)
    );
    CREATE TABLE wishes (
      id uuid PRIMARY KEY,
      calendar_id uuid NOT NULL REFERENCES calendars ON DELETE CASCADE,
      user_id uuid NOT NULL REFERENCES users ON DELETE CASCADE,
      standing text NOT NULL CHECK (standing IN ('publisher', 'editor', 'reader')),
      glass text CHECK (glass IN ('frosted', 'tinted', 'clear')),
      reason text NOT NULL,
      state text NOT NULL CHECK (state IN ('open', 'granted', 'refused', 'taken-back')),
      answered_by uuid REFERENCES users ON DELETE SET NULL,
      answered_at timestamptz,
      created_at timestamptz NOT NULL,
      CHECK ((standing = 'reader') = (glass IS NOT NULL))
    );
    CREATE UNIQUE INDEX wishes_open ON wishes (calendar_id, user_id) WHERE state = 'open';
    CREATE INDEX wishes_of_user ON wishes (user_id, created_at DESC);
  `,
    { transaction },
  );
}
