import { pushEvent, type Notice } from '@zonal/core/forms';
import { digestLetter, noticeConfirmLetter } from '@zonal/core/post';
import {
  outwardItem,
  toldChanges,
  touchedSince,
  type LedgerItem,
  type Revision,
  type ToldBefore,
} from '@zonal/core/reach';
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
  const before = await beforeOf(revision, since, (uids) =>
    itemsAt(sequelize, viewId, since, uids, view.hostZone),
  );
  const told = before && toldChanges(view, revision, since, before, now);
  return { number, letter: digestLetter(view, told, { reading, since: sinceAt, see, stop, notice }) };
}

/** By the newest revision, and the one that readers were told last: most of them were told the same. */
const known = new WeakMap<Revision, Map<number, Promise<ToldBefore | null>>>();

/** Returns what was shown before of what a reader may have to be told; null where it is too much. */
function beforeOf(
  revision: Revision,
  since: number,
  find: (uids: readonly string[]) => Promise<ToldBefore>,
): Promise<ToldBefore | null> {
  let own = known.get(revision);
  if (!own) known.set(revision, (own = new Map()));
  let before = own.get(since);
  if (!before) {
    const touched = touchedSince(revision, since);
    const uids = [...touched.set, ...touched.gone];
    before = uids.length > MOST ? Promise.resolve(null) : find(uids);
    own.set(since, before);
    before.catch(() => own.delete(since));
  }
  return before;
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
