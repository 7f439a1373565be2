import type { Sequelize, Transaction } from 'sequelize';

/**
 * Subscribers come with a key, or by the name of a listed window: either is the place where they are counted. What is expected
 * of each revision is kept, to be compared with what happened; it is wanted from when the revision is stored.
 */
export const name = '022-reach';

export async function up(sequelize: Sequelize, transaction: Transaction): Promise<void> {
  await sequelize.query(
    `
    CREATE VIEW places AS
      SELECT id, id AS key_id, window_id FROM keys UNION ALL SELECT id, NULL, id FROM windows;

    ALTER TABLE subscribers ADD place uuid, ADD window_id uuid REFERENCES windows ON DELETE CASCADE;
    UPDATE subscribers s SET place = k.id, window_id = k.window_id FROM keys k WHERE k.id = s.key_id;
    ALTER TABLE subscribers
      ALTER place SET NOT NULL, ALTER window_id SET NOT NULL, ALTER key_id DROP NOT NULL,
      DROP CONSTRAINT subscribers_key_id_reader_week_key, ADD UNIQUE (place, reader, week);
    CREATE INDEX subscribers_by_window ON subscribers (window_id, id);
    CREATE INDEX subscribers_by_view ON subscribers (view_id);
    CREATE INDEX subscribers_by_key ON subscribers (key_id);

    ALTER TABLE poll_sums ADD place uuid, ADD window_id uuid REFERENCES windows ON DELETE CASCADE;
    UPDATE poll_sums s SET place = k.id, window_id = k.window_id FROM keys k WHERE k.id = s.key_id;
    ALTER TABLE poll_sums DROP CONSTRAINT poll_sums_pkey;
    ALTER TABLE poll_sums ALTER place SET NOT NULL, ALTER window_id SET NOT NULL, ALTER key_id DROP NOT NULL,
      ADD PRIMARY KEY (place, day, form);

    CREATE TABLE forecasts (
      view_id text NOT NULL,
      revision int NOT NULL,
      made jsonb,
      PRIMARY KEY (view_id, revision),
      FOREIGN KEY (view_id, revision) REFERENCES ledger ON DELETE CASCADE
    );
    CREATE INDEX forecasts_wanted ON forecasts (view_id) WHERE made IS NULL;
  `,
    { transaction },
  );
}
