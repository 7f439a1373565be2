import type { HouseRights } from '@zonal/core/rights';
import { WindowSourceRow } from '../db/models';

/** Returns the windows that somebody may see; undefined for all. */
export async function windowIdsSeen(rights: HouseRights): Promise<string[] | undefined> {
  if (rights.steward) return undefined;
  const where = { calendarId: rights.calendarsFor('see-windows') };
  const rows = await WindowSourceRow.findAll({ where, attributes: ['windowId'] });
  return [...new Set(rows.map((r) => r.windowId))];
}
