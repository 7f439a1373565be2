import { QueryTypes, type Sequelize, type Transaction } from 'sequelize';

/** Labels are found in entries and in their changed dates. */
const IN_DATA = ['$.labels[*]', '$.overrides[*].content.labels[*]'];

/** Adds the labels of all entries, or of those that an edit writes, to the ones that filters over their calendars may name. */
export async function learnLabels(
  sequelize: Sequelize,
  options: { editId?: string; transaction?: Transaction } = {},
): Promise<void> {
  const { editId, transaction } = options;
  const source = editId
    ? `SELECT (after->>'calendarId')::uuid AS calendar_id, after->'data' AS data FROM edit_entries
       WHERE edit_id = :editId AND after IS NOT NULL`
    : 'SELECT calendar_id, data FROM entries';
  await sequelize.query(
    `WITH found AS (
       SELECT DISTINCT e.calendar_id, label #>> '{}' AS name FROM (${source}) AS e, LATERAL (
         ${IN_DATA.map((path) => `SELECT jsonb_path_query(e.data, '${path}') AS label`).join(' UNION ALL ')}
       ) AS own
     ), named AS (INSERT INTO labels (name) SELECT DISTINCT name FROM found ON CONFLICT DO NOTHING)
     INSERT INTO calendar_labels (calendar_id, name) SELECT calendar_id, name FROM found ON CONFLICT DO NOTHING`,
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

/** Returns which of some calendars know which labels: those that an entry has or once had. */
export async function labelsOfCalendars(
  sequelize: Sequelize,
  calendarIds: readonly string[],
  transaction?: Transaction,
): Promise<{ calendarId: string; name: string }[]> {
  if (!calendarIds.length) return [];
  return sequelize.query<{ calendarId: string; name: string }>(
    'SELECT calendar_id AS "calendarId", name FROM calendar_labels WHERE calendar_id IN (:calendarIds) ORDER BY name',
    { replacements: { calendarIds }, type: QueryTypes.SELECT, ...(transaction ? { transaction } : {}) },
  );
}
