import type { Sequelize, Transaction } from 'sequelize';

/** Plates, home places and archiving of calendars, the house, and edits that can be taken back. */
export const name = '002-calendars';

export async function up(sequelize: Sequelize, transaction: Transaction): Promise<void> {
  await sequelize.query(
    `
    ALTER TABLE calendars
      ADD shape text NOT NULL DEFAULT 'square',
      ADD pattern text NOT NULL DEFAULT 'solid',
      ADD place text NOT NULL DEFAULT '',
      ADD latitude double precision,
      ADD longitude double precision,
      ADD archived_at timestamptz;
    ALTER TABLE entries ADD imported jsonb;
    UPDATE entries SET data = '{"kind": "event", "planned": null, "properties": []}'::jsonb || data || jsonb_build_object(
      'overrides', (
        SELECT coalesce(jsonb_agg(o || jsonb_build_object(
          'content', '{"kind": "event", "planned": null, "properties": []}'::jsonb || (o->'content')
        )), '[]')
        FROM jsonb_array_elements(data->'overrides') AS o
      )
    );
    UPDATE windows SET settings = settings || '{"dueAs": "all-day"}';
    CREATE TABLE house (
      id integer PRIMARY KEY CHECK (id = 1),
      name text NOT NULL,
      zone text NOT NULL,
      country text NOT NULL,
      region text NOT NULL,
      properties jsonb NOT NULL,
      version integer NOT NULL,
      created_at timestamptz NOT NULL,
      updated_at timestamptz NOT NULL
    );
    INSERT INTO house VALUES (1, '', 'UTC', '', '', '[]', 1, now(), now());
    CREATE TABLE edits (
      id uuid PRIMARY KEY,
      user_id uuid NOT NULL REFERENCES users ON DELETE CASCADE,
      label text NOT NULL,
      state text NOT NULL CHECK (state IN ('staged', 'applied', 'taken-back')),
      calendar jsonb,
      created_at timestamptz NOT NULL,
      updated_at timestamptz NOT NULL
    );
    CREATE INDEX edits_by_age ON edits (created_at);
    CREATE TABLE edit_entries (
      edit_id uuid NOT NULL REFERENCES edits ON DELETE CASCADE,
      entry_id uuid NOT NULL,
      seen integer NOT NULL,
      top integer NOT NULL,
      before jsonb,
      after jsonb,
      PRIMARY KEY (edit_id, entry_id)
    );
  `,
    { transaction },
  );
}
