import type { Sequelize, Transaction } from 'sequelize';

/** Link sheets. Their addresses are sealed as those of keys are, and found by what only whoever has them can work out. */
export const name = '011-sheets';

export async function up(sequelize: Sequelize, transaction: Transaction): Promise<void> {
  await sequelize.query(
    `
    CREATE TABLE link_sheets (
      id uuid PRIMARY KEY,
      token text NOT NULL,
      token_print text NOT NULL UNIQUE,
      name text NOT NULL,
      note text NOT NULL,
      items jsonb NOT NULL,
      withdrawn_at timestamptz,
      user_id uuid REFERENCES users,
      version int NOT NULL DEFAULT 1,
      created_at timestamptz NOT NULL,
      updated_at timestamptz NOT NULL
    );
  `,
    { transaction },
  );
}
