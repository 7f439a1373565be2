import type { Sequelize, Transaction } from 'sequelize';

/** The tables of the first version. */
export const name = '001-first';

export async function up(sequelize: Sequelize, transaction: Transaction): Promise<void> {
  await sequelize.query(
    `
    CREATE TABLE users (
      id uuid PRIMARY KEY,
      name text NOT NULL,
      email text NOT NULL UNIQUE CHECK (email = lower(email)),
      password_hash text NOT NULL,
      role text NOT NULL CHECK (role IN ('steward', 'publisher', 'editor')),
      created_at timestamptz NOT NULL,
      updated_at timestamptz NOT NULL
    );
    CREATE TABLE calendars (
      id uuid PRIMARY KEY,
      name text NOT NULL UNIQUE,
      description text NOT NULL,
      zone text NOT NULL,
      plate text NOT NULL,
      colour text NOT NULL,
      version integer NOT NULL,
      created_at timestamptz NOT NULL,
      updated_at timestamptz NOT NULL
    );
    CREATE TABLE entries (
      id uuid PRIMARY KEY,
      calendar_id uuid NOT NULL REFERENCES calendars ON DELETE CASCADE,
      uid text NOT NULL,
      version integer NOT NULL,
      first_at timestamptz NOT NULL,
      last_at timestamptz,
      data jsonb NOT NULL,
      created_at timestamptz NOT NULL,
      updated_at timestamptz NOT NULL,
      UNIQUE (calendar_id, uid)
    );
    CREATE INDEX entries_by_time ON entries (calendar_id, first_at, last_at);
    CREATE TABLE windows (
      id uuid PRIMARY KEY,
      slug text NOT NULL UNIQUE,
      name text NOT NULL,
      settings jsonb NOT NULL,
      secret text NOT NULL,
      listed boolean NOT NULL,
      closed_at timestamptz,
      version integer NOT NULL,
      created_at timestamptz NOT NULL,
      updated_at timestamptz NOT NULL
    );
    CREATE TABLE window_sources (
      window_id uuid NOT NULL REFERENCES windows ON DELETE CASCADE,
      calendar_id uuid NOT NULL REFERENCES calendars ON DELETE RESTRICT,
      glass text NOT NULL CHECK (glass IN ('shut', 'frosted', 'tinted', 'clear')),
      position integer NOT NULL,
      PRIMARY KEY (window_id, calendar_id)
    );
    CREATE INDEX window_sources_by_calendar ON window_sources (calendar_id);
    CREATE TABLE keys (
      id uuid PRIMARY KEY,
      window_id uuid NOT NULL REFERENCES windows ON DELETE CASCADE,
      token text NOT NULL UNIQUE,
      made_out_to text NOT NULL,
      audience text NOT NULL CHECK (audience IN ('crew', 'house', 'partners', 'street')),
      cap text CHECK (cap IN ('shut', 'frosted', 'tinted', 'clear')),
      created_at timestamptz NOT NULL,
      updated_at timestamptz NOT NULL
    );
    CREATE INDEX keys_by_window ON keys (window_id);
    CREATE TABLE views (
      id text PRIMARY KEY,
      window_id uuid NOT NULL REFERENCES windows ON DELETE CASCADE,
      revision jsonb NOT NULL,
      change_id bigint NOT NULL,
      day integer NOT NULL,
      created_at timestamptz NOT NULL,
      updated_at timestamptz NOT NULL
    );
    CREATE TABLE changes (
      id bigserial PRIMARY KEY,
      calendar_id uuid,
      window_id uuid,
      entry_ids uuid[],
      created_at timestamptz NOT NULL
    );
    CREATE TABLE session (
      sid varchar PRIMARY KEY,
      sess json NOT NULL,
      expire timestamp(6) NOT NULL
    );
    CREATE INDEX session_by_expire ON session (expire);
  `,
    { transaction },
  );
}
