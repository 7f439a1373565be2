import type { Sequelize, Transaction } from 'sequelize';
import { ChangeRow } from './models';

export const CHANNEL = 'zonal_changes';

/** What a change touches: entries of a calendar (null for all of them), or a window. */
export type Touched =
  | { readonly calendarId: string; readonly entryIds: readonly string[] | null }
  | { readonly windowId: string };

/** A list of entries longer than this is told as the whole calendar. */
const MOST_NAMED = 200;

/**
 * Runs work in a transaction and logs what it touched, so that every server process compiles it anew. Changes are
 * made one after the other: their numbers rise in the order in which they become visible.
 */
export async function changing<T>(
  sequelize: Sequelize,
  /** Whose change it is; null where nobody did it. */
  userId: string | null,
  work: (transaction: Transaction) => Promise<{ result: T; touched: readonly Touched[] }>,
): Promise<T> {
  return sequelize.transaction(async (transaction) => {
    await sequelize.query('SELECT pg_advisory_xact_lock(4311)', { transaction });
    const { result, touched } = await work(transaction);
    for (const one of touched) {
      const row =
        'windowId' in one
          ? { userId, windowId: one.windowId, calendarId: null, entryIds: null }
          : {
              userId,
              windowId: null,
              calendarId: one.calendarId,
              entryIds: one.entryIds && one.entryIds.length <= MOST_NAMED ? [...one.entryIds] : null,
            };
      await ChangeRow.create(row, { transaction });
    }
    if (touched.length) await sequelize.query(`NOTIFY ${CHANNEL}`, { transaction });
    return result;
  });
}
