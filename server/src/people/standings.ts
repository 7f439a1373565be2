import type { CalendarPeopleInput } from '@zonal/core/api';
import type { Glass } from '@zonal/core/glass';
import type { Transaction } from 'sequelize';
import { StandingRow } from '../db/models';

type Person = CalendarPeopleInput['people'][number];

/** Returns the glass of somebody: only readers look through one. */
export function glassOf({ standing, glass }: Pick<Person, 'standing' | 'glass'>): Glass | null {
  return standing === 'reader' ? (glass ?? 'frosted') : null;
}

/** Makes people what they are to be to a calendar; since when and by whom is kept for those who are it already. */
export async function setStandings(
  calendarId: string,
  people: readonly Person[],
  byId: string,
  transaction: Transaction,
): Promise<void> {
  const before = await StandingRow.findAll({ where: { calendarId }, transaction });
  for (const row of before) {
    const next = people.find((p) => p.userId === row.userId);
    if (!next) await row.destroy({ transaction });
    else if (next.standing !== row.standing || glassOf(next) !== row.glass)
      await row.update(
        { standing: next.standing, glass: glassOf(next), byId, since: new Date() },
        { transaction },
      );
  }
  const come = people.filter((p) => !before.some((row) => row.userId === p.userId));
  const rows = come.map((p) => ({
    ...{ calendarId, userId: p.userId, standing: p.standing, glass: glassOf(p) },
    ...{ byId, since: new Date() },
  }));
  await StandingRow.bulkCreate(rows, { transaction });
}
