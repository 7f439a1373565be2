import { Problem } from '@zonal/core/problems';
import { isUUID } from 'class-validator';
import { CalendarRow, OffDeskRow } from '../db/models';

/** Returns a calendar. Throws `not-found`. */
export async function calendarOf(id: string): Promise<CalendarRow> {
  const row = isUUID(id) ? await CalendarRow.findByPk(id) : null;
  if (!row) throw new Problem('not-found');
  return row;
}

/** Returns the calendars that somebody took off their desk. */
export async function offDesk(userId: string): Promise<ReadonlySet<string>> {
  return new Set((await OffDeskRow.findAll({ where: { userId } })).map((r) => r.calendarId));
}
