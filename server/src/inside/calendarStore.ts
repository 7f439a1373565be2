import { Problem } from '@zonal/core/problems';
import { isUUID } from 'class-validator';
import { CalendarRow } from '../db/models';

/** Returns a calendar. Throws `not-found`. */
export async function calendarOf(id: string): Promise<CalendarRow> {
  const row = isUUID(id) ? await CalendarRow.findByPk(id) : null;
  if (!row) throw new Problem('not-found');
  return row;
}
