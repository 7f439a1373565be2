import type { Sequelize, Transaction } from 'sequelize';

/**
 * Readers and systems that do not look by themselves are told of changes: by signed requests to an address for each key, and
 * by mail to whoever left an address on a page and confirmed it. Views of which there is a new revision wait until it was
 * looked who is to be told.
 */
export const name = '024-telling';

export async function up(sequelize: Sequelize, transaction: Transaction): Promise<void> {
  await sequelize.query(
    `
    CREATE TABLE untold (view_id text PRIMARY KEY REFERENCES views ON DELETE CASCADE);

    CREATE TABLE pushes (
      key_id uuid PRIMARY KEY REFERENCES keys ON DELETE CASCADE,
      address text NOT NULL,
      host text NOT NULL,
      secret text NOT NULL,
      old_secret text,
      old_until timestamptz,
      state text NOT NULL DEFAULT 'on',
      view_id text,
      told int NOT NULL DEFAULT 0,
      due boolean NOT NULL DEFAULT false,
      asked_at timestamptz,
      version int NOT NULL DEFAULT 1,
      created_at timestamptz NOT NULL DEFAULT now()
    );
    CREATE INDEX pushes_due ON pushes (key_id) WHERE due;
    CREATE TABLE push_tries (
      id bigserial PRIMARY KEY,
      key_id uuid NOT NULL REFERENCES pushes ON DELETE CASCADE,
      message text NOT NULL,
      revision int NOT NULL,
      at timestamptz NOT NULL,
      status int,
      took int NOT NULL,
      trouble text NOT NULL
    );
    CREATE INDEX push_tries_by_key ON push_tries (key_id, id DESC);

    CREATE TABLE notices (
      id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
      window_id uuid NOT NULL REFERENCES windows ON DELETE CASCADE,
      key_id uuid REFERENCES keys ON DELETE CASCADE,
      token text NOT NULL,
      mail text NOT NULL,
      mail_print text NOT NULL,
      way text NOT NULL,
      reading jsonb NOT NULL,
      zone text NOT NULL,
      left_at timestamptz NOT NULL,
      confirmed_at timestamptz,
      view_id text,
      told int NOT NULL DEFAULT 0,
      told_at timestamptz,
      due boolean NOT NULL DEFAULT false,
      next_at timestamptz NOT NULL,
      claimed_at timestamptz
    );
    CREATE INDEX notices_by_window ON notices (window_id);
    CREATE INDEX notices_by_key ON notices (key_id);
    CREATE INDEX notices_by_mail ON notices (mail_print);
    CREATE INDEX notices_due ON notices (next_at) WHERE due AND confirmed_at IS NOT NULL;
  `,
    { transaction },
  );
}
