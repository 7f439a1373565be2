import { HouseRights } from '@zonal/core/rights';
import { ceilingsNow } from '../db/ceilings';
import { CalendarRow, StandingRow, type UserRow } from '../db/models';

/** Returns what somebody may do now. */
export async function rightsOf(user: Pick<UserRow, 'id' | 'role'>): Promise<HouseRights> {
  const [calendars, standings, ceilings] = await Promise.all([
    // At each call: plain rows are enough.
    CalendarRow.findAll({ attributes: ['id', 'zone', 'houseGlass', 'known'], raw: true }),
    StandingRow.findAll({ where: { userId: user.id }, raw: true }),
    ceilingsNow(),
  ]);
  return new HouseRights(
    user.role === 'steward',
    new Map(calendars.map(({ id, zone, houseGlass, known }) => [id, { zone, houseGlass, known }])),
    new Map(standings.map(({ calendarId, standing, glass }) => [calendarId, { standing, glass }])),
    ceilings,
  );
}
