import {
  byLeaving,
  ledgerItem,
  ledgerStep,
  outwardItem,
  overAt,
  type Revision,
  type Stamp,
} from '@zonal/core/reach';
import { compareTimes, type OutwardView } from '@zonal/core/glass';
import { QueryTypes, type Sequelize, type Transaction } from 'sequelize';
import { LedgerRow, ViewGoneRow, ViewItemRow, ViewRow } from '../db/models';
import { readSnapshot } from '../db/snapshot';

declare const BUILD: string | undefined;

/** Names the program that works views out: another one may tell the same entries in another way. */
export const PROGRAM = typeof BUILD === 'undefined' ? 'not built' : BUILD;

/** What a worked-out view takes into account: the last change, and the day of the host zone. */
export interface Basis {
  readonly changeId: number;
  readonly day: number;
}

/** Whose change makes a revision, and by which version of the window's rules. */
export interface Cause {
  readonly userId: string | null;
  readonly windowVersion: number;
}

/** A view as it is stored: its newest revision, and what it takes into account. */
export interface StoredView extends Basis {
  readonly view: OutwardView;
  readonly revision: Revision;
}

type Stored = Omit<Stamp, 'over'> & Partial<Pick<Stamp, 'over'>>;

/** Returns a stored view, or null when there is none yet. Its parts are of one moment. */
export async function loadView(sequelize: Sequelize, id: string): Promise<StoredView | null> {
  const where = { viewId: id };
  const [row, rows, left] = await readSnapshot(sequelize, async (transaction) => {
    const found = await ViewRow.findByPk(id, { transaction });
    const items = await ViewItemRow.findAll({ where, raw: true, transaction });
    return [found, items, await ViewGoneRow.findAll({ where, raw: true, transaction })] as const;
  });
  if (!row) return null;
  const items = rows.map(({ item }) => outwardItem(item, row.head.hostZone)).sort(compareTimes);
  const stored = new Map<string, Stored>(rows.map(({ uid, stamp }) => [uid, stamp]));
  const stamps: Record<string, Stamp> = {};
  // Those of before it was needed do not say when their item is over.
  for (const item of items) {
    const { over = overAt(item), ...stamp } = stored.get(item.uid)!;
    stamps[item.uid] = { ...stamp, over };
  }
  const gone = left.map(({ uid, sequence, at }) => ({ uid, sequence, at: at.getTime() })).sort(byLeaving);
  const { changeId, day, head, revision } = row;
  return { changeId, day, view: { ...head, items }, revision: { ...revision, stamps, gone } };
}

/**
 * Stores the next revision of a view with its line of the ledger. Returns false when another process has stored as much or
 * more already: then what is stored counts. All processes work out the same from the same changes.
 */
export async function storeRevision(
  sequelize: Sequelize,
  place: { readonly id: string; readonly windowId: string },
  before: { readonly view: OutwardView; readonly revision: Revision } | null,
  next: StoredView,
  cause: Cause,
): Promise<boolean> {
  const { id, windowId } = place;
  const { view, revision, changeId, day } = next;
  return sequelize.transaction(async (transaction) => {
    await sequelize.query('SELECT pg_advisory_xact_lock(hashtext(:id))', {
      transaction,
      replacements: { id },
    });
    const row = await ViewRow.findByPk(id, { transaction });
    if (row ? !before || row.revision.number !== before.revision.number : before) return false;
    const { items: _items, ...head } = view;
    const { stamps, gone, ...rest } = revision;
    const columns = { revision: rest, head, changeId, day, madeBy: PROGRAM, open: true };
    if (row) await row.update(columns, { transaction });
    else await ViewRow.create({ id, windowId, ...columns }, { transaction });
    const known = before && {
      revision: before.revision,
      wording: before.view.wording,
      hostZone: before.view.hostZone,
    };
    const step = ledgerStep(known, revision, view);
    const old = before?.revision.stamps ?? {};
    const items = view.items
      .filter((item) => old[item.uid] !== stamps[item.uid])
      .map((item) => ({ uid: item.uid, stamp: stamps[item.uid], item: ledgerItem(item) }));
    if (step.gone.length)
      await sequelize.query('DELETE FROM view_items WHERE view_id = :id AND uid IN (:gone)', {
        transaction,
        replacements: { id, gone: step.gone },
      });
    if (items.length)
      await sequelize.query(
        `INSERT INTO view_items (view_id, uid, stamp, item)
         SELECT :id, r.uid, r.stamp, r.item FROM jsonb_to_recordset(:items) AS r(uid text, stamp jsonb, item jsonb)
         ON CONFLICT (view_id, uid) DO UPDATE SET stamp = excluded.stamp, item = excluded.item`,
        { transaction, replacements: { id, items: JSON.stringify(items) } },
      );
    await storeGone(sequelize, id, before?.revision.gone ?? [], gone, transaction);
    const altered = step.set.filter((item) => item.uid in old).length;
    await LedgerRow.create(
      {
        viewId: id,
        number: revision.number,
        at: new Date(revision.at),
        step,
        appeared: step.set.length - altered,
        altered,
        vanished: step.gone.length,
        userIds: cause.userId ? [cause.userId] : [],
        windowVersion: cause.windowVersion,
      },
      { transaction },
    );
    // Who is told of it, and by what, is looked up elsewhere.
    // Its row is locked where it is there: whoever looks meanwhile leaves it until this is stored.
    await sequelize.query(
      'INSERT INTO untold (view_id) VALUES (:id) ON CONFLICT (view_id) DO UPDATE SET view_id = excluded.view_id',
      { transaction, replacements: { id } },
    );
    // What is expected of it is worked out where polls are counted.
    await sequelize.query('INSERT INTO forecasts (view_id, revision) VALUES (:id, :number)', {
      transaction,
      replacements: { id, number: revision.number },
    });
    return true;
  });
}

/** Stores what has left a view, by what was stored of it before. */
async function storeGone(
  sequelize: Sequelize,
  id: string,
  before: Revision['gone'],
  gone: Revision['gone'],
  transaction: Transaction,
): Promise<void> {
  const [known, told] = [new Set(before), new Set(gone.map((g) => g.uid))];
  const forget = before.filter((g) => !told.has(g.uid)).map((g) => g.uid);
  if (forget.length)
    await sequelize.query('DELETE FROM view_gone WHERE view_id = :id AND uid IN (:forget)', {
      transaction,
      replacements: { id, forget },
    });
  const rows = gone.filter((g) => !known.has(g)).map((g) => ({ ...g, viewId: id, at: new Date(g.at) }));
  await ViewGoneRow.bulkCreate(rows, { transaction, updateOnDuplicate: ['sequence', 'at'] });
}

/** Returns the number of the newest revision that is stored of a view, by whichever process; 0 for none. */
export async function newestRevision(sequelize: Sequelize, id: string): Promise<number> {
  const [row] = await sequelize.query<{ number: number }>(
    `SELECT (revision->>'number')::int AS number FROM views WHERE id = :id`,
    { replacements: { id }, type: QueryTypes.SELECT },
  );
  return row?.number ?? 0;
}

/** Notes for many views at once what they take into account by now; none goes back. */
export async function storeBasis(
  sequelize: Sequelize,
  views: readonly ({ readonly id: string } & Basis)[],
): Promise<void> {
  if (!views.length) return;
  await sequelize.query(
    `UPDATE views v SET change_id = b."changeId", day = b.day, made_by = :program, open = true
     FROM jsonb_to_recordset(:views) AS b(id text, "changeId" bigint, day int)
     WHERE v.id = b.id AND (v.change_id < b."changeId" OR (v.change_id = b."changeId" AND v.day <= b.day))`,
    { replacements: { views: JSON.stringify(views), program: PROGRAM }, type: QueryTypes.UPDATE },
  );
}

/**
 * Marks views that no address leads to since a change, so that the change log is not kept for them; those that another process
 * has opened again and stored since stay open.
 */
export async function storeClosed(
  sequelize: Sequelize,
  views: readonly { readonly id: string; readonly changeId: number }[],
): Promise<void> {
  if (!views.length) return;
  await sequelize.query(
    `UPDATE views v SET open = false FROM jsonb_to_recordset(:views) AS c(id text, "changeId" bigint)
     WHERE v.id = c.id AND v.change_id <= c."changeId"`,
    { replacements: { views: JSON.stringify(views) }, type: QueryTypes.UPDATE },
  );
}
