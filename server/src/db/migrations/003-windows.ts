import type { Sequelize, Transaction } from 'sequelize';

/** Filters, cut glass, wording, ceilings, drafts, the ledger, labels that filters may name, and when keys were used. */
export const name = '003-windows';

export async function up(sequelize: Sequelize, transaction: Transaction): Promise<void> {
  await sequelize.query(
    `
    UPDATE windows SET settings =
      '{"titlePattern": "{title}", "filter": null, "include": {"free": true, "cancelled": true, "tentative": true},
        "labelHolds": [], "language": "", "topic": "", "contact": "", "translations": []}'::jsonb
      || settings
      || jsonb_build_object('horizon', '{"kind": "rolling"}'::jsonb || (settings->'horizon'))
      || jsonb_build_object('switches', '{"planned": true}'::jsonb || (settings->'switches'));
    ALTER TABLE window_sources
      DROP CONSTRAINT window_sources_glass_check,
      ADD CONSTRAINT window_sources_glass_check CHECK (glass IN ('shut', 'frosted', 'tinted', 'clear', 'cut')),
      ADD fields jsonb NOT NULL DEFAULT '[]',
      ADD told_as text NOT NULL DEFAULT '';
    UPDATE window_sources s SET told_as = c.name FROM calendars c WHERE c.id = s.calendar_id;
    ALTER TABLE calendars ADD lockdown jsonb;
    ALTER TABLE house ADD watch_words jsonb NOT NULL DEFAULT '[]';
    ALTER TABLE changes ADD user_id uuid;
    ALTER TABLE views ADD head jsonb;
    CREATE TABLE window_drafts (
      window_id uuid PRIMARY KEY REFERENCES windows ON DELETE CASCADE,
      body jsonb NOT NULL,
      version integer NOT NULL,
      user_id uuid NOT NULL REFERENCES users ON DELETE CASCADE,
      publish_at timestamptz,
      confirmed jsonb NOT NULL DEFAULT '[]',
      stopped text NOT NULL DEFAULT '',
      created_at timestamptz NOT NULL,
      updated_at timestamptz NOT NULL
    );
    CREATE INDEX window_drafts_due ON window_drafts (publish_at) WHERE publish_at IS NOT NULL;
    CREATE TABLE window_versions (
      window_id uuid NOT NULL REFERENCES windows ON DELETE CASCADE,
      version integer NOT NULL,
      body jsonb NOT NULL,
      user_id uuid REFERENCES users ON DELETE SET NULL,
      created_at timestamptz NOT NULL,
      PRIMARY KEY (window_id, version)
    );
    CREATE TABLE ceilings (
      id uuid PRIMARY KEY,
      calendar_id uuid REFERENCES calendars ON DELETE CASCADE,
      audience text NOT NULL CHECK (audience IN ('crew', 'house', 'partners', 'street')),
      glass text NOT NULL CHECK (glass IN ('shut', 'frosted', 'tinted', 'clear')),
      user_id uuid REFERENCES users ON DELETE SET NULL,
      created_at timestamptz NOT NULL,
      updated_at timestamptz NOT NULL
    );
    CREATE UNIQUE INDEX ceilings_once ON ceilings (coalesce(calendar_id, '00000000-0000-0000-0000-000000000000'), audience);
    CREATE TABLE ceiling_requests (
      id uuid PRIMARY KEY,
      calendar_id uuid REFERENCES calendars ON DELETE CASCADE,
      audience text NOT NULL,
      glass text NOT NULL,
      reason text NOT NULL,
      user_id uuid NOT NULL REFERENCES users ON DELETE CASCADE,
      state text NOT NULL CHECK (state IN ('open', 'granted', 'refused')),
      answered_by uuid REFERENCES users ON DELETE SET NULL,
      created_at timestamptz NOT NULL,
      updated_at timestamptz NOT NULL
    );
    CREATE TABLE labels (name text PRIMARY KEY);
    CREATE TABLE ledger (
      view_id text NOT NULL REFERENCES views ON DELETE CASCADE,
      number integer NOT NULL,
      at timestamptz NOT NULL,
      step jsonb NOT NULL,
      appeared integer NOT NULL,
      vanished integer NOT NULL,
      altered integer NOT NULL,
      user_ids jsonb NOT NULL,
      window_version integer NOT NULL,
      PRIMARY KEY (view_id, number)
    );
    CREATE TABLE key_uses (
      key_id uuid PRIMARY KEY REFERENCES keys ON DELETE CASCADE,
      at timestamptz NOT NULL,
      revision integer NOT NULL,
      count bigint NOT NULL
    );
  `,
    { transaction },
  );
  await sequelize.query(
    `INSERT INTO labels (name)
     SELECT DISTINCT label #>> '{}' FROM entries AS e, LATERAL (
       SELECT jsonb_path_query(e.data, '$.labels[*]') AS label
       UNION ALL SELECT jsonb_path_query(e.data, '$.overrides[*].content.labels[*]')
     ) AS found
     ON CONFLICT DO NOTHING`,
    { transaction },
  );
}
