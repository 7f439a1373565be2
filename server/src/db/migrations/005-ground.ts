import { ledgerItem, viewAfter, type LedgerStep, type Revision } from '@zonal/core/reach';
import { QueryTypes, type Sequelize, type Transaction } from 'sequelize';

/**
 * Accounts at rest; server processes and what they have taken in; ids of changes; a log that tells what readers saw after each change; views item by item, so that an edit writes what
 * it changes. Views go on with their revisions.
 */
export const name = '005-ground';

export async function up(sequelize: Sequelize, transaction: Transaction): Promise<void> {
  await sequelize.query(
    `
    ALTER TABLE users ADD rested_at timestamptz;
    DELETE FROM changes;
    ALTER TABLE changes
      DROP calendar_id, DROP window_id, DROP entry_ids,
      ADD calendar_ids jsonb NOT NULL,
      ADD edit jsonb,
      ADD dropped jsonb NOT NULL,
      ADD windows jsonb NOT NULL;
    CREATE TABLE done_changes (
      id text NOT NULL,
      user_id uuid NOT NULL REFERENCES users ON DELETE CASCADE,
      print text NOT NULL,
      result jsonb NOT NULL,
      created_at timestamptz NOT NULL,
      PRIMARY KEY (id, user_id)
    );
    CREATE TABLE processes (
      id uuid PRIMARY KEY,
      host text NOT NULL,
      pid integer NOT NULL,
      heard_at timestamptz NOT NULL,
      change_id bigint NOT NULL,
      serves_until timestamptz NOT NULL
    );
    CREATE TABLE view_items (
      view_id text NOT NULL REFERENCES views ON DELETE CASCADE,
      uid text NOT NULL,
      stamp jsonb NOT NULL,
      item jsonb NOT NULL,
      PRIMARY KEY (view_id, uid)
    );
    `,
    { transaction },
  );
  await takeItemsOut(sequelize, transaction);
  await sequelize.query(`DELETE FROM views WHERE head IS NULL; ALTER TABLE views ALTER head SET NOT NULL`, {
    transaction,
  });
}

interface OldView {
  readonly id: string;
  readonly revision: Revision;
}

/** The items of each view follow from its ledger. */
async function takeItemsOut(sequelize: Sequelize, transaction: Transaction): Promise<void> {
  const select = { type: QueryTypes.SELECT, transaction } as const;
  const views = await sequelize.query<OldView>('SELECT id, revision FROM views', select);
  for (const { id, revision } of views) {
    const lines = await sequelize.query<{ step: LedgerStep }>(
      'SELECT step FROM ledger WHERE view_id = :id ORDER BY number',
      { ...select, replacements: { id } },
    );
    if (!lines.length) continue;
    const { items, ...head } = viewAfter(lines.map((l) => l.step));
    const { stamps, ...rest } = revision;
    const rows = items.flatMap((item) =>
      stamps[item.uid] ? [{ uid: item.uid, stamp: stamps[item.uid], item: ledgerItem(item) }] : [],
    );
    await sequelize.query(
      `UPDATE views SET revision = :revision, head = :head WHERE id = :id;
       INSERT INTO view_items (view_id, uid, stamp, item)
       SELECT :id, r.uid, r.stamp, r.item FROM jsonb_to_recordset(:rows) AS r(uid text, stamp jsonb, item jsonb)`,
      {
        transaction,
        replacements: {
          id,
          revision: JSON.stringify(rest),
          head: JSON.stringify(head),
          rows: JSON.stringify(rows),
        },
      },
    );
  }
}
