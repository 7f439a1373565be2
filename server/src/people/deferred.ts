import { DEFERRED_EFFECTS, may, type DeferredEffect } from '@zonal/core/rights';
import type { Transaction } from 'sequelize';
import { groupedBy } from '../db/grouped';
import { UserRow, WindowSourceRow } from '../db/models';
import { rightsOf } from './rights';

/** What an effect concerns. */
export interface EffectSubject {
  readonly windowIds?: readonly string[];
  readonly calendarIds?: readonly string[];
}

/**
 * Returns whether an effect that its author asked for earlier may still act: the one place that is asked. The account must be
 * active, with the right that {@link DEFERRED_EFFECTS} names to each calendar of the subject. Of a window that is all its
 * calendars, or one of them if the right is only to see windows.
 */
export async function mayStillAct(
  effect: DeferredEffect,
  authorId: string,
  { windowIds = [], calendarIds = [] }: EffectSubject = {},
  transaction?: Transaction,
): Promise<boolean> {
  const t = transaction ?? null;
  const author = await UserRow.findOne({ where: { id: authorId, restedAt: null }, transaction: t });
  if (!author) return false;
  const deed = DEFERRED_EFFECTS[effect];
  if (deed === null) return true;
  if (deed === 'run-house') return may(deed, author.role === 'steward' ? 'steward' : 'house');
  const rights = await rightsOf(author, transaction);
  const allowed = (id: string) => rights.may(deed, id);
  if (!calendarIds.every(allowed)) return false;
  const rows = await WindowSourceRow.findAll({ where: { windowId: [...windowIds] }, transaction: t });
  const sources = groupedBy(rows, (row) => row.windowId);
  return windowIds.every((windowId) => {
    const ids = (sources.get(windowId) ?? []).map((row) => row.calendarId);
    if (!ids.length) return rights.steward;
    return deed === 'see-windows' ? ids.some(allowed) : ids.every(allowed);
  });
}
