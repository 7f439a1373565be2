import { HouseRights } from '@zonal/core/rights';
import type { Transaction } from 'sequelize';
import { ceilingsNow } from '../db/ceilings';
import { CalendarRow, StandingRow, type UserRow } from '../db/models';

/** Returns what somebody may do now. */
export async function rightsOf(
  user: Pick<UserRow, 'id' | 'role'>,
  transaction?: Transaction,
): Promise<HouseRights> {
  const t = transaction ?? null;
  // At each call: plain rows are enough.
  const attributes = ['id', 'zone', 'houseGlass', 'known'];
  const findCalendars = () => CalendarRow.findAll({ attributes, raw: true, transaction: t });
  const findStandings = () => StandingRow.findAll({ where: { userId: user.id }, raw: true, transaction: t });
  // A transaction is one connection, which takes one question after the other.
  const [calendars, standings, ceilings] = transaction
    ? [await findCalendars(), await findStandings(), await ceilingsNow(transaction)]
    : await Promise.all([findCalendars(), findStandings(), ceilingsNow()]);
  return new HouseRights(
    user.role === 'steward',
    new Map(calendars.map(({ id, zone, houseGlass, known }) => [id, { zone, houseGlass, known }])),
    new Map(standings.map(({ calendarId, standing, glass }) => [calendarId, { standing, glass }])),
    ceilings,
  );
}
