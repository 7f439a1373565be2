import { pushEvent, type Notice } from '@zonal/core/forms';
import { digestLetter, noticeConfirmLetter } from '@zonal/core/post';
import { outwardItem, toldChanges, touchedSince, type LedgerItem, type ToldBefore } from '@zonal/core/reach';
import { QueryTypes, type Sequelize } from 'sequelize';
import type { Order, Told, ToldOrder } from './outside';
import type { State } from './viewState';

/** Of more that came, changed or left is not said one by one. */
const MOST = 1_000;

/** Returns what is told to somebody who does not look by themselves. What was shown before comes from the ledger. */
export async function writeTold(
  order: Order & ToldOrder,
  { view, revision }: State,
  { sequelize, see, notice }: { sequelize: Sequelize; see: string; notice: Notice | null },
): Promise<Told> {
  const { number } = revision;
  const { viewId, now } = order;
  if (order.as === 'push') return { number, event: pushEvent(view, revision, order.since, order.type) };
  if (view.wording.notices === false) return { number, letter: null };
  if (order.as === 'confirm') return { number, letter: noticeConfirmLetter(view, order) };
  const { reading, since, sinceAt, stop } = order;
  // Of another view it is not known what changed.
  if (since === null || since >= number) return { number, letter: null };
  const touched = touchedSince(revision, since);
  const uids = [...touched.set, ...touched.gone];
  const before = uids.length > MOST ? null : await itemsAt(sequelize, viewId, since, uids, view.hostZone);
  const told = before && toldChanges(view, revision, since, before, now);
  return { number, letter: digestLetter(view, told, { reading, since: sinceAt, see, stop, notice }) };
}

/** Returns what of some items was shown with a revision, and how far ahead was shown then. */
async function itemsAt(
  sequelize: Sequelize,
  viewId: string,
  number: number,
  uids: readonly string[],
  hostZone: string,
): Promise<ToldBefore> {
  const select = { replacements: { viewId, number, uids }, type: QueryTypes.SELECT } as const;
  const rows = uids.length
    ? await sequelize.query<{ item: LedgerItem | null }>(
        `SELECT DISTINCT ON (uid) item FROM (
           SELECT l.number, i->>'uid' AS uid, i AS item
           FROM ledger l CROSS JOIN jsonb_array_elements(l.step->'set') i
           WHERE l.view_id = :viewId AND l.number <= :number AND i->>'uid' IN (:uids)
           UNION ALL
           SELECT l.number, g, NULL FROM ledger l CROSS JOIN jsonb_array_elements_text(l.step->'gone') g
           WHERE l.view_id = :viewId AND l.number <= :number AND g IN (:uids)
         ) told ORDER BY uid, number DESC`,
        select,
      )
    : [];
  const [line] = await sequelize.query<{ until: number }>(
    `SELECT (step->'range'->>'to')::float8 AS until FROM ledger WHERE view_id = :viewId AND number = :number`,
    select,
  );
  const items = rows.flatMap(({ item }) => (item ? [outwardItem(item, hostZone)] : []));
  return { items, until: line?.until ?? Infinity };
}
