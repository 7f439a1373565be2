import type { Sequelize, Transaction } from 'sequelize';

/**
 * Views say whether an address leads to them: one that is closed is not compiled, and the change log is not kept for it. Views
 * that no address leads to any more are marked when a server starts. Processes say when they were born, so that another
 * process with the same number is not taken for them. Scheduled drafts and pushes say whose they are, because they act by
 * what that person may do then. Muted alerts are muted for one person; those that were muted before stay so for everybody.
 */
export const name = '025-serving';

export async function up(sequelize: Sequelize, transaction: Transaction): Promise<void> {
  await sequelize.query(
    `ALTER TABLE views ADD COLUMN open boolean NOT NULL DEFAULT true;
     ALTER TABLE processes ADD COLUMN birth text NOT NULL DEFAULT '';
     ALTER TABLE window_drafts ADD COLUMN scheduled_by uuid REFERENCES users ON DELETE SET NULL;
     ALTER TABLE pushes ADD COLUMN by_id uuid REFERENCES users ON DELETE SET NULL;
     ALTER TABLE alert_mutes ADD COLUMN user_id uuid REFERENCES users ON DELETE CASCADE;
     ALTER TABLE alert_mutes DROP CONSTRAINT alert_mutes_kind_window_id_key_id_key;
     ALTER TABLE alert_mutes ADD UNIQUE NULLS NOT DISTINCT (kind, window_id, key_id, user_id);`,
    { transaction },
  );
}
