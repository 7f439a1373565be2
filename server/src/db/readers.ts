import { DAY } from '@zonal/core/zones';
import { QueryTypes, type Sequelize } from 'sequelize';

/** Returns the day on which the week of an instant begins, a Monday, in UTC. */
export function weekOf(at: number): string {
  const day = Math.floor(at / DAY);
  return new Date((day - ((day + 3) % 7)) * DAY).toISOString().slice(0, 10);
}

/** Returns how many readers came with each key this week or last, whichever is more. */
export async function readersOf(
  sequelize: Sequelize,
  keyIds: readonly string[],
  now: number = Date.now(),
): Promise<Map<string, number>> {
  if (!keyIds.length) return new Map();
  const rows = await sequelize.query<{ id: string; readers: string }>(
    `SELECT id, max(sum)::bigint AS readers FROM (
       SELECT key_id AS id, week, sum(many) AS sum FROM key_readers
       WHERE key_id IN (:keyIds) AND week >= :since GROUP BY key_id, week
     ) AS weeks GROUP BY id`,
    { replacements: { keyIds, since: lastWeek(now) }, type: QueryTypes.SELECT },
  );
  return new Map(rows.map(({ id, readers }) => [id, Number(readers)]));
}

/** Forgets readers and salts from before last week: then no hash can be made again. */
export async function forgetReaders(sequelize: Sequelize, now: number = Date.now()): Promise<void> {
  const replacements = { since: lastWeek(now) };
  await sequelize.query('DELETE FROM key_readers WHERE week < :since', { replacements });
  await sequelize.query('DELETE FROM reader_salts WHERE week < :since', { replacements });
}

function lastWeek(now: number): string {
  return weekOf(now - 7 * DAY);
}
