import { forecastOf, type Awaited, type Forecast } from '@zonal/core/reach';
import { QueryTypes, type Sequelize } from 'sequelize';
import { followersOf, houseWide } from './followers';

/** Revisions that follow each other within seconds are said to be later than they are. */
const AHEAD = 60_000;
/** So many are made at a time. */
const AT_ONCE = 20;

interface Wanted {
  readonly view: string;
  readonly revision: number;
}

/**
 * Works out what is expected of revisions for which that is still wanted, and keeps it. Any process may; each is made by one
 * of them. A revision that nobody follows has none. Returns how many were made.
 */
export async function makeForecasts(sequelize: Sequelize, now: number = Date.now()): Promise<number> {
  return sequelize.transaction(async (transaction) => {
    const wanted = await sequelize.query<Wanted>(
      `SELECT f.view_id AS view, f.revision FROM forecasts f
       JOIN ledger l ON l.view_id = f.view_id AND l.number = f.revision
       WHERE f.made IS NULL AND l.at <= :until
       ORDER BY f.view_id, f.revision LIMIT ${AT_ONCE} FOR UPDATE OF f SKIP LOCKED`,
      { replacements: { until: new Date(now + AHEAD) }, transaction, type: QueryTypes.SELECT },
    );
    for (const one of wanted) {
      const made = await forecastFor(sequelize, one, now);
      const replacements = { ...one, made: JSON.stringify(made) };
      const sql = made
        ? 'UPDATE forecasts SET made = :made WHERE view_id = :view AND revision = :revision'
        : 'DELETE FROM forecasts WHERE view_id = :view AND revision = :revision';
      await sequelize.query(sql, { replacements, transaction });
    }
    return wanted.length;
  });
}

async function forecastFor(
  sequelize: Sequelize,
  { view, revision }: Wanted,
  now: number,
): Promise<Forecast | null> {
  const awaited: Awaited[] = [];
  for await (const page of followersOf(sequelize, { viewId: view }, now))
    for (const { habit, readers, revision: holds } of page)
      awaited.push({ habit, readers, holds: holds >= revision });
  return awaited.length ? forecastOf(awaited, now, await houseWide(sequelize, now)) : null;
}
