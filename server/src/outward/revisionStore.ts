import type { OutwardView } from '@zonal/core/glass';
import { ledgerStep, nextRevision, type Revision } from '@zonal/core/reach';
import type { Sequelize } from 'sequelize';
import { LedgerRow, ViewRow } from '../db/models';

/** What a compiled view takes into account: the last change, and the day of the host zone. */
export interface Basis {
  readonly changeId: number;
  readonly day: number;
}

/** Whose change makes a revision, and by which version of the window's rules. */
export interface Cause {
  readonly userIds: readonly string[];
  readonly windowVersion: number;
}

/**
 * Returns the revision of a view, stored for all processes alike: the first to come sets number and times. Returns
 * null when a newer state is stored already; then this one must not be shown.
 */
export async function recordRevision(
  sequelize: Sequelize,
  id: string,
  windowId: string,
  view: OutwardView,
  basis: Basis,
  cause: Cause,
  now: number,
): Promise<Revision | null> {
  return sequelize.transaction(async (transaction) => {
    await sequelize.query('SELECT pg_advisory_xact_lock(hashtext(:id))', {
      transaction,
      replacements: { id },
    });
    const row = await ViewRow.findByPk(id, { transaction });
    if (row && newer(row, basis)) return null;
    const revision = nextRevision(row?.revision ?? null, view, now);
    const before = row?.revision.stamps ?? {};
    const head = { wording: view.wording, hostZone: view.hostZone };
    const isNew = revision !== row?.revision;
    const step = isNew
      ? ledgerStep(row?.head ? { revision: row.revision, ...row.head } : null, revision, view)
      : null;
    if (!row) await ViewRow.create({ id, windowId, revision, head, ...basis }, { transaction });
    else if (isNew) await row.update({ revision, head, ...basis }, { transaction });
    else await row.update({ ...basis }, { transaction });
    if (step) {
      const altered = step.set.filter((i) => i.uid in before).length;
      const line = { viewId: id, number: revision.number, at: new Date(revision.at), step, ...cause };
      const counts = { appeared: step.set.length - altered, altered, vanished: step.gone.length };
      await LedgerRow.create({ ...line, ...counts, userIds: [...cause.userIds] }, { transaction });
    }
    return revision;
  });
}

/** Of two states with the same changes the one of the later day counts. */
function newer(stored: Basis, basis: Basis): boolean {
  return stored.changeId === basis.changeId ? stored.day > basis.day : stored.changeId > basis.changeId;
}
