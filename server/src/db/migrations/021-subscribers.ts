import type { Sequelize, Transaction } from 'sequelize';

/**
 * Subscribers of each key, as hashes of one week, with what their polls say of them; the polls themselves, a row for each
 * day, and sums of those that are old; and how many readers got each revision how long after it was made.
 */
export const name = '021-subscribers';

export async function up(sequelize: Sequelize, transaction: Transaction): Promise<void> {
  await sequelize.query(
    `
    CREATE TABLE subscribers (
      id bigserial PRIMARY KEY,
      key_id uuid NOT NULL REFERENCES keys ON DELETE CASCADE,
      week date NOT NULL,
      reader bytea NOT NULL,
      readers int NOT NULL,
      form smallint NOT NULL,
      view_id text NOT NULL,
      revision int NOT NULL,
      last_at timestamptz NOT NULL,
      habit jsonb NOT NULL,
      UNIQUE (key_id, reader, week)
    );
    CREATE TABLE polls (
      subscriber_id bigint NOT NULL REFERENCES subscribers ON DELETE CASCADE,
      day date NOT NULL,
      polls bytea NOT NULL,
      PRIMARY KEY (subscriber_id, day)
    );
    CREATE TABLE poll_sums (
      key_id uuid NOT NULL REFERENCES keys ON DELETE CASCADE,
      day date NOT NULL,
      form smallint NOT NULL,
      polls int NOT NULL,
      subscribers int NOT NULL,
      PRIMARY KEY (key_id, day, form)
    );
    CREATE INDEX polls_by_day ON polls (day);
    ALTER TABLE house ADD poll_days int NOT NULL DEFAULT 30;
    CREATE TABLE spreads (
      view_id text NOT NULL REFERENCES views ON DELETE CASCADE,
      revision int NOT NULL,
      step smallint NOT NULL,
      readers int NOT NULL,
      PRIMARY KEY (view_id, revision, step)
    );
  `,
    { transaction },
  );
}
