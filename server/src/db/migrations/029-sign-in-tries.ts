import type { Sequelize, Transaction } from 'sequelize';

/** Sign-ins that failed, by prints of account and client: they are counted over all processes. */
export const name = '029-sign-in-tries';

export async function up(sequelize: Sequelize, transaction: Transaction): Promise<void> {
  await sequelize.query(
    `CREATE TABLE sign_in_tries (
       id bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
       account_print text NOT NULL,
       client_print text NOT NULL,
       known_device boolean NOT NULL,
       tried_at timestamptz NOT NULL DEFAULT now()
     );
     CREATE INDEX sign_in_tries_by_account ON sign_in_tries (account_print, tried_at);`,
    { transaction },
  );
}
