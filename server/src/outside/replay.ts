import { QueryTypes, type Sequelize, type Transaction } from 'sequelize';
import type { WindowState } from '../db/models';

/** Where the log of changes is read. */
interface Store {
  readonly sequelize: Sequelize;
  readonly transaction: Transaction;
}

/** Returns the first change of the log that tells of each of some windows; those that it does not tell of are left out. */
export async function firstMentions(
  { sequelize, transaction }: Store,
  windowIds: readonly string[],
): Promise<Map<string, number>> {
  if (!windowIds.length) return new Map();
  const rows = await sequelize.query<{ id: string; first: string }>(
    `SELECT w->>'id' AS id, min(c.id) AS first FROM changes c CROSS JOIN jsonb_array_elements(c.windows) w
     WHERE w->>'id' IN (:windowIds) GROUP BY 1`,
    { replacements: { windowIds }, type: QueryTypes.SELECT, transaction },
  );
  return new Map(rows.map(({ id, first }) => [id, Number(first)]));
}

/** Returns the number of the oldest change that the log still has, or null. */
export async function oldestChange({ sequelize, transaction }: Store): Promise<number | null> {
  const [row] = await sequelize.query<{ id: string | null }>('SELECT min(id) AS id FROM changes', {
    type: QueryTypes.SELECT,
    transaction,
  });
  return row?.id ? Number(row.id) : null;
}

/** What a change of the log concerned. */
export interface Touch {
  readonly id: number;
  readonly calendarIds: readonly string[];
  readonly windowIds: readonly string[];
}

/** Returns what the changes after one concerned, in their order. */
export async function touchesSince({ sequelize, transaction }: Store, changeId: number): Promise<Touch[]> {
  const rows = await sequelize.query<Touch>(
    `SELECT id, calendar_ids || dropped AS "calendarIds", jsonb_path_query_array(windows, '$[*].id') AS "windowIds"
     FROM changes WHERE id > :changeId ORDER BY id`,
    { replacements: { changeId }, type: QueryTypes.SELECT, transaction },
  );
  return rows.map((row) => ({ ...row, id: Number(row.id) }));
}

/** Returns the state of a window after a change as far as the log tells of it, or null. */
export async function stateBefore(
  { sequelize, transaction }: Store,
  windowId: string,
  changeId: number,
): Promise<WindowState | null> {
  const [row] = await sequelize.query<{ state: WindowState }>(
    `SELECT w AS state FROM changes c CROSS JOIN jsonb_array_elements(c.windows) w
     WHERE c.id <= :changeId AND w->>'id' = :windowId ORDER BY c.id DESC LIMIT 1`,
    { replacements: { changeId, windowId }, type: QueryTypes.SELECT, transaction },
  );
  return row?.state ?? null;
}
