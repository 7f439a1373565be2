import { JOURNAL_KINDS, type JournalKind } from '@zonal/core/journal';
import { QueryTypes, type Sequelize, type Transaction } from 'sequelize';

/** Says whose change a transaction is, for what is noted of it. */
export async function sayWhose(
  sequelize: Sequelize,
  userId: string | null,
  transaction: Transaction,
): Promise<void> {
  const replacements = { userId: userId ?? '' };
  await sequelize.query(`SELECT set_config('zonal.user', :userId, true)`, { replacements, transaction });
}

const KINDS: readonly (readonly [string, JournalKind])[] = Object.entries(JOURNAL_KINDS);

/** Lets the database note changes as core's table says; what is as it says already is left alone. */
export async function noteChanges(sequelize: Sequelize, transaction: Transaction): Promise<void> {
  const found = await sequelize.query<{ name: string; definition: string }>(
    `SELECT c.relname AS name, pg_get_triggerdef(t.oid) AS definition
     FROM pg_trigger t JOIN pg_class c ON c.oid = t.tgrelid WHERE t.tgname = 'journal_note'`,
    { type: QueryTypes.SELECT, transaction },
  );
  for (const [table, { area, noted, told }] of KINDS) {
    const called = `journal_note('${area}', '${noted.join(',')}', '${told.join(',')}')`;
    if (found.some((f) => f.name === table && f.definition.includes(called))) continue;
    await sequelize.query(
      `DROP TRIGGER IF EXISTS journal_note ON ${table};
       CREATE TRIGGER journal_note AFTER INSERT OR UPDATE OR DELETE ON ${table} FOR EACH ROW EXECUTE FUNCTION ${called}`,
      { transaction },
    );
  }
}
