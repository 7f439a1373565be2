import { conditionsOf, type Filter } from '@zonal/core/glass';
import { plainText } from '@zonal/core/entries';
import { QueryTypes, type Sequelize, type Transaction } from 'sequelize';

/**
 * Which labels each calendar knows: those that an entry of it has or once had. A filter may name the labels of its window's own
 * calendars; what labels there are elsewhere in the house has no effect on it.
 */
export const name = '030-calendar-labels';

/** Finds the labels of an entry's data, and of its changed dates. */
const LABELS_IN = (data: string) => `LATERAL (
  SELECT jsonb_path_query(${data}, '$.labels[*]') AS label
  UNION SELECT jsonb_path_query(${data}, '$.overrides[*].content.labels[*]')) AS found`;

export async function up(sequelize: Sequelize, transaction: Transaction): Promise<void> {
  await sequelize.query(
    `CREATE TABLE calendar_labels (
       calendar_id uuid NOT NULL REFERENCES calendars ON DELETE CASCADE,
       name text NOT NULL REFERENCES labels ON DELETE CASCADE,
       PRIMARY KEY (calendar_id, name)
     );
     INSERT INTO calendar_labels (calendar_id, name)
     SELECT DISTINCT e.calendar_id, l.name FROM entries e, ${LABELS_IN('e.data')} JOIN labels l ON l.name = found.label #>> '{}'`,
    { transaction },
  );
  // Windows go on as they are: what their filters name is known to their calendars, also if no entry has it any more.
  const windows = await sequelize.query<{ id: string; filter: Filter | null; sources: string[] | null }>(
    `SELECT w.id, w.settings->'filter' AS filter, (
       SELECT jsonb_agg(s.calendar_id) FROM window_sources s WHERE s.window_id = w.id) AS sources
     FROM windows w`,
    { type: QueryTypes.SELECT, transaction },
  );
  const labels = await sequelize.query<{ name: string }>('SELECT name FROM labels', {
    type: QueryTypes.SELECT,
    transaction,
  });
  for (const { filter, sources } of windows) {
    const named = conditionsOf(filter).flatMap((c) => (c.field === 'label' ? [plainText(c.value)] : []));
    const names = labels.map((l) => l.name).filter((label) => named.includes(plainText(label)));
    if (!names.length || !sources?.length) continue;
    await sequelize.query(
      `INSERT INTO calendar_labels (calendar_id, name)
       SELECT c.id, l.name FROM calendars c, labels l WHERE c.id IN (:sources) AND l.name IN (:names)
       ON CONFLICT DO NOTHING`,
      { transaction, replacements: { sources, names } },
    );
  }
}
