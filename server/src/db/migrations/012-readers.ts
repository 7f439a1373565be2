import type { Sequelize, Transaction } from 'sequelize';

/** For how many readers a key is made out, and the readers that came, as hashes of one week. */
export const name = '012-readers';

export async function up(sequelize: Sequelize, transaction: Transaction): Promise<void> {
  await sequelize.query(
    `
    ALTER TABLE keys ADD meant_for int;
    CREATE TABLE reader_salts (week date PRIMARY KEY, salt text NOT NULL);
    CREATE TABLE key_readers (
      key_id uuid NOT NULL REFERENCES keys ON DELETE CASCADE,
      week date NOT NULL,
      reader bytea NOT NULL,
      many int NOT NULL,
      PRIMARY KEY (key_id, week, reader)
    );
  `,
    { transaction },
  );
}
