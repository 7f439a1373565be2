import type { Sequelize, Transaction } from 'sequelize';

/**
 * What people are to calendars. Whoever had an account could open windows over all of them and hand out keys, so they are
 * publishers to all calendars that there are.
 */
export const name = '013-rights';

export async function up(sequelize: Sequelize, transaction: Transaction): Promise<void> {
  await sequelize.query(
    `
    ALTER TABLE users DROP CONSTRAINT users_role_check;
    UPDATE users SET role = 'member' WHERE role <> 'steward';
    ALTER TABLE users ADD CONSTRAINT users_role_check CHECK (role IN ('steward', 'member'));
    ALTER TABLE calendars
      ADD house_glass text NOT NULL DEFAULT 'shut' CHECK (house_glass IN ('shut', 'frosted', 'tinted', 'clear')),
      ADD people_version int NOT NULL DEFAULT 1;
    CREATE TABLE standings (
      calendar_id uuid NOT NULL REFERENCES calendars ON DELETE CASCADE,
      user_id uuid NOT NULL REFERENCES users ON DELETE CASCADE,
      standing text NOT NULL CHECK (standing IN ('publisher', 'editor', 'reader')),
      glass text CHECK (glass IN ('shut', 'frosted', 'tinted', 'clear')),
      by_id uuid REFERENCES users ON DELETE SET NULL,
      since timestamptz NOT NULL,
      PRIMARY KEY (calendar_id, user_id),
      CHECK ((standing = 'reader') = (glass IS NOT NULL))
    );
    CREATE INDEX standings_of_user ON standings (user_id);
    INSERT INTO standings (calendar_id, user_id, standing, since)
      SELECT c.id, u.id, 'publisher', now() FROM calendars c CROSS JOIN users u;
  `,
    { transaction },
  );
}
