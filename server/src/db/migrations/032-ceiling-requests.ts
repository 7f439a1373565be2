import type { Sequelize, Transaction } from 'sequelize';

/** A request for a higher ceiling can be withdrawn by the person who made it, and says when it was answered. */
export const name = '032-ceiling-requests';

export async function up(sequelize: Sequelize, transaction: Transaction): Promise<void> {
  await sequelize.query(
    `ALTER TABLE ceiling_requests
       ADD COLUMN answered_at timestamptz,
       DROP CONSTRAINT ceiling_requests_state_check,
       ADD CONSTRAINT ceiling_requests_state_check
         CHECK (state IN ('open', 'granted', 'refused', 'taken-back'));
     UPDATE ceiling_requests SET answered_at = updated_at WHERE state <> 'open'`,
    { transaction },
  );
}
