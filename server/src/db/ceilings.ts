import { ceilingsInForce, type Ceilings } from '@zonal/core/glass';
import type { Transaction } from 'sequelize';
import { CalendarRow, CeilingRow } from './models';

/** Returns the ceilings in force: those of the house and of each calendar, and what lock-downs come to. */
export async function ceilingsNow(transaction?: Transaction): Promise<Ceilings> {
  const t = transaction ?? null;
  const set = await CeilingRow.findAll({ transaction: t, raw: true });
  const rows = await CalendarRow.findAll({ attributes: ['id', 'lockdown'], transaction: t, raw: true });
  return ceilingsInForce(
    set,
    rows.filter((r) => r.lockdown).map((r) => r.id),
  );
}
