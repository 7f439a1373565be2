import type { OutwardView } from '@zonal/core/glass';
import { nextRevision, type Revision } from '@zonal/core/reach';
import type { Sequelize } from 'sequelize';
import { ViewRow } from '../db/models';

/** What a compiled view takes into account: the last change, and the day of the host zone. */
export interface Basis {
  readonly changeId: number;
  readonly day: number;
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
    if (!row) await ViewRow.create({ id, windowId, revision, ...basis }, { transaction });
    else if (revision !== row.revision) await row.update({ revision, ...basis }, { transaction });
    else await row.update({ ...basis }, { transaction });
    return revision;
  });
}

/** Of two states with the same changes the one of the later day counts. */
function newer(stored: Basis, basis: Basis): boolean {
  return stored.changeId === basis.changeId ? stored.day > basis.day : stored.changeId > basis.changeId;
}
