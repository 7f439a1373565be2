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
 * Stores forecasts of revisions that still want one, and returns how many those were. Any process may: the first one that stores a
 * forecast counts. A revision that nobody follows has none. Nothing is locked while it is computed.
 */
export async function makeForecasts(sequelize: Sequelize, now: number = Date.now()): Promise<number> {
  const wanted = await sequelize.query<Wanted>(
    `SELECT f.view_id AS view, f.revision FROM forecasts f
     JOIN ledger l ON l.view_id = f.view_id AND l.number = f.revision
     WHERE f.made IS NULL AND l.at <= :until
     ORDER BY f.view_id, f.revision LIMIT ${AT_ONCE}`,
    { replacements: { until: new Date(now + AHEAD) }, type: QueryTypes.SELECT },
  );
  for (const one of wanted) {
    const made = await forecastFor(sequelize, one, now);
    const replacements = { ...one, made: JSON.stringify(made) };
    const which = 'WHERE view_id = :view AND revision = :revision AND made IS NULL';
    const sql = made ? `UPDATE forecasts SET made = :made ${which}` : `DELETE FROM forecasts ${which}`;
    await sequelize.query(sql, { replacements });
  }
  return wanted.length;
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
