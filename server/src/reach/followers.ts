import { COUNTED_FOR, priorOf, type Habit, type Prior } from '@zonal/core/reach';
import { MINUTE } from '@zonal/core/zones';
import { QueryTypes, type Sequelize } from 'sequelize';

/** A subscriber as it is stored. */
export interface Follower {
  readonly id: string;
  /** The key by which it follows, or the window where that is by its own name. */
  readonly place: string;
  readonly windowId: string;
  readonly readers: number;
  readonly form: number;
  readonly view: string;
  readonly revision: number;
  readonly habit: Habit;
}

/** Whose subscribers are asked for; all where nothing is said. */
export interface Whose {
  readonly windowIds?: readonly string[];
  readonly viewId?: string;
}

/** They are read in pages: no other request waits for all of them. */
const PAGE = 1_000;

/** Returns subscribers that still count and whose key is open, in pages. */
export async function* followersOf(
  sequelize: Sequelize,
  { windowIds, viewId }: Whose,
  now: number,
): AsyncGenerator<Follower[]> {
  for (let after = '0'; ;) {
    const rows = await sequelize.query<Follower>(
      `SELECT s.id, s.place, s.window_id AS "windowId", s.readers, s.form, s.view_id AS view, s.revision, s.habit
       FROM subscribers s LEFT JOIN keys k ON k.id = s.key_id
       WHERE s.id > :after AND s.last_at > :since AND k.withdrawn_at IS NULL
         AND (k.expires_at IS NULL OR k.expires_at > :now)
         ${windowIds ? 'AND s.window_id IN (:windowIds)' : ''} ${viewId ? 'AND s.view_id = :viewId' : ''}
       ORDER BY s.id LIMIT ${PAGE}`,
      {
        replacements: { after, since: new Date(now - COUNTED_FOR), now: new Date(now), windowIds, viewId },
        type: QueryTypes.SELECT,
      },
    );
    if (rows.length) yield rows;
    if (rows.length < PAGE) return;
    after = rows.at(-1)!.id;
    await new Promise(setImmediate);
  }
}

/** Of so many subscribers, those who were met last, it is learned how others look. */
const SAMPLE = 400;
const LEARNED_FOR = 10 * MINUTE;
const learned = new WeakMap<Sequelize, { at: number; prior: Promise<Prior> }>();

/** Returns what is met of subscribers all over the house; it is learned anew now and then. */
export function houseWide(sequelize: Sequelize, now: number): Promise<Prior> {
  const known = learned.get(sequelize);
  if (known && now - known.at < LEARNED_FOR) return known.prior;
  const prior = sequelize
    .query<{ habit: Habit }>(`SELECT habit FROM subscribers ORDER BY last_at DESC LIMIT ${SAMPLE}`, {
      type: QueryTypes.SELECT,
    })
    .then((rows) => priorOf(rows.map((r) => r.habit)));
  learned.set(sequelize, { at: now, prior });
  prior.catch(() => learned.delete(sequelize));
  return prior;
}
