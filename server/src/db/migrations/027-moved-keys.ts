import type { Sequelize, Transaction } from 'sequelize';

/**
 * Keys that lead to another view than before. Readers who follow such a key by mail or by pushes have to hear what is different
 * there, although no view has changed.
 */
export const name = '027-moved-keys';

export async function up(sequelize: Sequelize, transaction: Transaction): Promise<void> {
  await sequelize.query(
    `CREATE TABLE moved_keys (key_id uuid PRIMARY KEY REFERENCES keys ON DELETE CASCADE);
     CREATE FUNCTION note_moved_key() RETURNS trigger LANGUAGE plpgsql AS $$
     BEGIN
       INSERT INTO moved_keys (key_id) VALUES (NEW.id) ON CONFLICT DO NOTHING;
       RETURN NULL;
     END $$;
     CREATE TRIGGER note_moved_key AFTER UPDATE OF audience, cap ON keys FOR EACH ROW
     WHEN ((OLD.audience, OLD.cap) IS DISTINCT FROM (NEW.audience, NEW.cap)) EXECUTE FUNCTION note_moved_key();`,
    { transaction },
  );
}
