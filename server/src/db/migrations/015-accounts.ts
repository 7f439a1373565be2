import type { Sequelize, Transaction } from 'sequelize';

/** Invitations, addresses that work once, mail that waits to be sent, and where mail is sent from. */
export const name = '015-accounts';

export async function up(sequelize: Sequelize, transaction: Transaction): Promise<void> {
  await sequelize.query(
    `
    ALTER TABLE users ADD password_at timestamptz;
    ALTER TABLE house ADD mail_domains jsonb NOT NULL DEFAULT '[]';
    CREATE TABLE passes (
      print text PRIMARY KEY,
      kind text NOT NULL CHECK (kind IN ('first', 'invitation', 'password', 'address')),
      user_id uuid REFERENCES users ON DELETE CASCADE,
      concerns jsonb NOT NULL,
      ends_at timestamptz NOT NULL,
      used_at timestamptz
    );
    CREATE TABLE invitations (
      id uuid PRIMARY KEY,
      email text NOT NULL CHECK (email = lower(email)),
      role text NOT NULL CHECK (role IN ('steward', 'member')),
      standings jsonb NOT NULL,
      by_id uuid REFERENCES users ON DELETE SET NULL,
      sent_at timestamptz NOT NULL,
      ends_at timestamptz NOT NULL,
      accepted_at timestamptz,
      withdrawn_at timestamptz,
      version int NOT NULL DEFAULT 1,
      created_at timestamptz NOT NULL,
      updated_at timestamptz NOT NULL
    );
    CREATE UNIQUE INDEX invitations_pending ON invitations (email) WHERE accepted_at IS NULL AND withdrawn_at IS NULL;
    CREATE TABLE mails (
      id uuid PRIMARY KEY,
      kind text NOT NULL,
      recipient text NOT NULL,
      subject text NOT NULL,
      content text,
      state text NOT NULL CHECK (state IN ('waiting', 'sending', 'sent', 'kept', 'failed', 'unsure')),
      tries int NOT NULL DEFAULT 0,
      trouble text NOT NULL DEFAULT '',
      sent_at timestamptz,
      created_at timestamptz NOT NULL,
      updated_at timestamptz NOT NULL
    );
    CREATE INDEX mails_by_time ON mails (created_at DESC);
    CREATE TABLE mail_settings (
      id int PRIMARY KEY CHECK (id = 1),
      host text NOT NULL,
      port int NOT NULL,
      secure boolean NOT NULL,
      account text NOT NULL,
      secret text NOT NULL,
      sender text NOT NULL,
      version int NOT NULL DEFAULT 1
    );
  `,
    { transaction },
  );
}
