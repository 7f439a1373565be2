import type { Sequelize, Transaction } from 'sequelize';

/** Labels are found in entries and in their changed dates. */
const IN_DATA = ['$.labels[*]', '$.overrides[*].content.labels[*]'];

/** Adds the labels of all entries, or of those that an edit writes, to the ones that filters may name. */
export async function learnLabels(
  sequelize: Sequelize,
  options: { editId?: string; transaction?: Transaction } = {},
): Promise<void> {
  const { editId, transaction } = options;
  const source = editId
    ? `SELECT after->'data' AS data FROM edit_entries WHERE edit_id = :editId AND after IS NOT NULL`
    : 'SELECT data FROM entries';
  await sequelize.query(
    `INSERT INTO labels (name)
     SELECT DISTINCT label #>> '{}' FROM (${source}) AS e, LATERAL (
       ${IN_DATA.map((path) => `SELECT jsonb_path_query(e.data, '${path}') AS label`).join(' UNION ALL ')}
     ) AS found
     ON CONFLICT DO NOTHING`,
    { replacements: { editId }, ...(transaction ? { transaction } : {}) },
  );
}

/** Returns labels with the number of entries that bear them now: all labels, or those that entries of some calendars bear. */
export async function labelCounts(
  sequelize: Sequelize,
  calendarIds: readonly string[] | null = null,
): Promise<{ name: string; count: number }[]> {
  if (calendarIds && !calendarIds.length) return [];
  const [rows] = await sequelize.query(
    `SELECT l.name, count(DISTINCT e.id)::int AS count FROM labels l ${calendarIds ? '' : 'LEFT'} JOIN (
       SELECT e.id, label #>> '{}' AS label FROM entries e, LATERAL (
         ${IN_DATA.map((path) => `SELECT jsonb_path_query(e.data, '${path}') AS label`).join(' UNION ALL ')}
       ) AS found ${calendarIds ? 'WHERE e.calendar_id IN (:calendarIds)' : ''}
     ) AS e ON e.label = l.name GROUP BY l.name ORDER BY l.name`,
    { replacements: { calendarIds } },
  );
  return rows as { name: string; count: number }[];
}
