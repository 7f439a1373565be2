import type { Sequelize, Transaction } from 'sequelize';

/**
 * A window gets its public name when it is first listed: until then it takes no name from others. After it is unlisted its
 * public address goes on until a time.
 */
export const name = '026-public-addresses';

export async function up(sequelize: Sequelize, transaction: Transaction): Promise<void> {
  await sequelize.query(
    `ALTER TABLE windows ALTER slug DROP NOT NULL, ADD unlisted_at timestamptz, ADD public_until timestamptz;
     UPDATE windows w SET slug = NULL WHERE NOT listed AND NOT EXISTS (
       SELECT FROM window_versions v WHERE v.window_id = w.id AND (v.body->>'listed')::boolean);
     UPDATE windows SET unlisted_at = updated_at, public_until = updated_at WHERE NOT listed AND slug IS NOT NULL;`,
    { transaction },
  );
}
