import type { Audience, SourceRule } from '@zonal/core/glass';
import { ownKeyCap } from '@zonal/core/rights';
import { Op, type Transaction } from 'sequelize';
import type { Touched } from '../db/changes';
import { KeyRow, UserRow, WindowSourceRow } from '../db/models';
import { rightsOf } from './rights';

/** Returns the sources of windows, as rules have them. */
async function sourcesOf(windowIds: readonly string[], transaction?: Transaction) {
  const where = { windowId: [...new Set(windowIds)] };
  const rows = await WindowSourceRow.findAll({ where, transaction: transaction ?? null });
  return (windowId: string): SourceRule[] =>
    rows
      .filter((r) => r.windowId === windowId)
      .map(({ calendarId, glass, fields, toldAs }) => ({ calendarId, glass, fields, as: toldAs }));
}

/** Returns the cap of a key that would be the own one of somebody who is not at rest. */
export async function capFor(user: UserRow, windowId: string, audience: Audience) {
  const sources = (await sourcesOf([windowId]))(windowId);
  return ownKeyCap(sources, audience, await rightsOf(user));
}

/** Returns the windows whose keys can be concerned by what was touched; null for all of them. */
async function concerned(touched: readonly Touched[], transaction: Transaction): Promise<string[] | null> {
  if (touched.some((t) => 'people' in t)) return null;
  const windowIds = touched.flatMap((t) => ('windowId' in t ? t.windowId : []));
  const calendarIds = touched.flatMap((t) => ('calendarId' in t ? t.calendarId : []));
  if (!calendarIds.length) return windowIds;
  const rows = await WindowSourceRow.findAll({ where: { calendarId: calendarIds }, transaction });
  return [...windowIds, ...rows.map((r) => r.windowId)];
}

/**
 * Brings the caps of colleagues' own keys in line with what they may see inside, as part of the change that can have moved
 * that: of rights, accounts, ceilings, windows. Returns the windows of which a key shows something else now.
 */
export async function capOwnKeys(touched: readonly Touched[], transaction: Transaction): Promise<string[]> {
  const windowIds = await concerned(touched, transaction);
  if (windowIds && !windowIds.length) return [];
  const where = { userId: { [Op.ne]: null }, ...(windowIds ? { windowId: windowIds } : {}) };
  const keys = await KeyRow.findAll({ where, transaction });
  if (!keys.length) return [];
  const sources = await sourcesOf(
    keys.map((k) => k.windowId),
    transaction,
  );
  const users = await UserRow.findAll({ where: { id: keys.map((k) => k.userId!) }, transaction });
  const changed = new Set<string>();
  for (const user of users) {
    const rights = await rightsOf(user, transaction);
    for (const key of keys.filter((k) => k.userId === user.id)) {
      const cap = user.restedAt ? 'shut' : ownKeyCap(sources(key.windowId), key.audience, rights);
      if (cap === key.cap) continue;
      await key.update({ cap }, { transaction });
      changed.add(key.windowId);
    }
  }
  return [...changed];
}
