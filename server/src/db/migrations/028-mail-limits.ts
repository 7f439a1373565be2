import type { Sequelize, Transaction } from 'sequelize';

/** Mails with the account that caused them and with what stands for their address, so that limits count over all processes. */
export const name = '028-mail-limits';

export async function up(sequelize: Sequelize, transaction: Transaction): Promise<void> {
  await sequelize.query(
    `ALTER TABLE mails
       ADD COLUMN author_id uuid REFERENCES users ON DELETE SET NULL,
       ADD COLUMN recipient_print text NOT NULL DEFAULT '';
     CREATE INDEX mails_created_at ON mails (created_at);`,
    { transaction },
  );
}
