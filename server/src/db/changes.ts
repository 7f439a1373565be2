import { Problem } from '@zonal/core/problems';
import { QueryTypes, type Sequelize, type Transaction } from 'sequelize';
import { callNotes, type Unconfirmed } from '../http/callNotes';
import { FairQueue } from '../jobs/fairQueue';
import { sayWhose } from './journal';
import type { EditTarget, WindowState } from './models';

export const CHANNEL = 'zonal_changes';

/** What a change touches: entries by an edit, a calendar itself, one that is gone, a window's rules, or who is who in the house. */
export type Touched =
  | { readonly calendarIds: readonly string[]; readonly edit: EditTarget; readonly onlyAdds: boolean }
  | { readonly calendarId: string }
  | { readonly droppedId: string }
  | { readonly windowId: string }
  | { readonly people: true };

/** What a change touches that is of people, not of a calendar. */
export const PEOPLE_TOUCHED = [{ people: true }] as const;

type StateReader = (
  windowIds: readonly string[],
  transaction: Transaction,
) => Promise<readonly WindowState[]>;

/** Brings what follows from a change in line with it, within it; returns the windows that it has touched by that. */
type Follower = (touched: readonly Touched[], transaction: Transaction) => Promise<readonly string[]>;

let follow: Follower | null = null;

/** Hands in what follows from changes of rights, ceilings and windows: what stands above knows. */
export function provideFollower(follower: Follower): void {
  follow = follower;
}

let statesOf: StateReader | null = null;

/** Hands in how the state of windows is read: what stands above tells, this only keeps it with the change. */
export function provideWindowStates(reader: StateReader): void {
  statesOf = reader;
}

/**
 * Runs work in a transaction and logs what it touched, with everything that is needed to work out what readers saw
 * after it, so that every server process does so, change by change. Changes are made one after the other: their numbers
 * and their times, by the store's clock, rise in the order in which they become visible. Returns the work's result, and
 * what was logged. Throws `outcome-unknown` when the store went away while it was to keep it.
 */
export async function logged<T>(
  sequelize: Sequelize,
  /** Whose change it is; null where nobody did it. */
  userId: string | null,
  work: Work<T>,
  /** When it is said to have happened; the store's own clock unless set. */
  at: Date | null = null,
): Promise<{ result: T; change: LoggedChange }> {
  let worked = false;
  const done = sequelize.transaction(async (transaction) => {
    await sequelize.query('SELECT pg_advisory_xact_lock(4311)', { transaction });
    await sayWhose(sequelize, userId, transaction);
    const { result, touched: own } = await work(transaction);
    const followed = own.length && follow ? await follow(own, transaction) : [];
    const touched: readonly Touched[] = [...own, ...followed.map((windowId) => ({ windowId }))];
    await noteDone(sequelize, result, transaction);
    worked = !touched.length;
    if (!touched.length) return { result, change: NO_CHANGE };
    const of = <K extends string>(key: K) =>
      touched.filter((t) => key in t) as Extract<Touched, Record<K, unknown>>[];
    const edits = of('edit');
    if (edits.length > 1) throw new Error('One change holds one edit.');
    const windowIds = [...new Set(of('windowId').map((t) => t.windowId))];
    const calendarIds = [
      ...new Set([...edits.flatMap((e) => e.calendarIds), ...of('calendarId').map((t) => t.calendarId)]),
    ];
    const dropped = of('droppedId').map((t) => t.droppedId);
    const [row] = await sequelize.query<{ id: string }>(
      `INSERT INTO changes (user_id, calendar_ids, edit, dropped, windows, created_at)
       VALUES (:userId, :calendarIds, :edit, :dropped, :windows,
         greatest(coalesce(:at, clock_timestamp()), (SELECT created_at FROM changes ORDER BY id DESC LIMIT 1)))
       RETURNING id`,
      {
        transaction,
        type: QueryTypes.SELECT,
        replacements: {
          userId,
          at,
          calendarIds: JSON.stringify(calendarIds),
          edit: edits[0] ? JSON.stringify(edits[0].edit) : null,
          dropped: JSON.stringify(dropped),
          windows: JSON.stringify(windowIds.length ? await statesOf!(windowIds, transaction) : []),
        },
      },
    );
    await sequelize.query(`NOTIFY ${CHANNEL}`, { transaction });
    worked = true;
    const takesAway = windowIds.length > 0 || dropped.length > 0 || edits.some((e) => !e.onlyAdds);
    return {
      result,
      change: { id: Number(row!.id), calendarIds: [...calendarIds, ...dropped], windowIds, takesAway },
    };
  });
  try {
    return await done;
  } catch (error) {
    // All of the work was done: only the store's word on whether it kept it is missing.
    if (worked && !(error instanceof Problem)) throw new Problem('outcome-unknown');
    throw error;
  }
}

/** What a change touched; its number is 0 where it touched nothing. */
export interface LoggedChange {
  readonly id: number;
  readonly calendarIds: readonly string[];
  readonly windowIds: readonly string[];
  /** Whether it may take something away from readers: not where it only writes new entries. */
  readonly takesAway: boolean;
}

const NO_CHANGE: LoggedChange = { id: 0, calendarIds: [], windowIds: [], takesAway: false };

type Work<T> = (transaction: Transaction) => Promise<{ result: T; touched: readonly Touched[] }>;

/** Makes a change and waits until it acts outside, as {@link logged} and the publisher say. */
export type MakeChange = <T>(userId: string | null, work: Work<T>) => Promise<T>;

/** How many changes of one account may wait in a process. */
const MAX_WAITING_CHANGES = 1_000;

/**
 * Returns how changes are made: one after the other, which is how the database takes them, so that none of many has to wait there
 * until it is given up. Accounts take turns. `acts` waits until a change acts outside, and returns who has not confirmed it in
 * time. Throws `too-many-changes`.
 */
export function changeMaker(
  sequelize: Sequelize,
  acts: (change: LoggedChange) => Promise<Unconfirmed | null>,
): MakeChange {
  const queue = new FairQueue({ maxWaiting: MAX_WAITING_CHANGES });
  return async (userId, work) => {
    const done = queue.add(userId ?? '', () => logged(sequelize, userId, work));
    if (!done) throw new Problem('too-many-changes', { most: MAX_WAITING_CHANGES });
    const { result, change } = await done;
    const left = change.id ? await acts(change) : null;
    const notes = callNotes.getStore();
    if (notes && left) notes.unconfirmed = left;
    return result;
  };
}

/** A change that was made before under the id that its client gave it. */
export interface DoneChange {
  readonly result: unknown;
  readonly print: string;
}

/** Keeps with a change the id that its client gave it. Throws `change-repeated` where another call was first. */
async function noteDone(sequelize: Sequelize, result: unknown, transaction: Transaction): Promise<void> {
  const notes = callNotes.getStore();
  if (!notes?.changeKey) return;
  const [rows] = await sequelize.query(
    `INSERT INTO done_changes (id, user_id, print, result, created_at) VALUES (:id, :userId, :print, :result, now())
     ON CONFLICT DO NOTHING RETURNING id`,
    {
      transaction,
      replacements: {
        id: notes.changeKey,
        userId: notes.userId,
        print: notes.print,
        result: JSON.stringify(result ?? null),
      },
    },
  );
  if (!rows.length) throw new Problem('change-repeated');
}

/** Returns what was done under an id, or null. */
export async function doneChange(
  sequelize: Sequelize,
  id: string,
  userId: string,
): Promise<DoneChange | null> {
  const [row] = await sequelize.query<DoneChange>(
    'SELECT result, print FROM done_changes WHERE id = :id AND user_id = :userId',
    { replacements: { id, userId }, type: QueryTypes.SELECT },
  );
  return row ?? null;
}

/** Drops what no process needs any more: ids of changes after two days, the log once every open view has it, after a month. */
export async function dropOldChanges(sequelize: Sequelize): Promise<void> {
  await sequelize.query(
    `DELETE FROM done_changes WHERE created_at < now() - interval '2 days';
     DELETE FROM changes WHERE created_at < now() - interval '30 days'
       AND id < coalesce((SELECT min(change_id) FROM views WHERE open), (SELECT max(id) FROM changes))
       AND id < (SELECT max(id) FROM changes)`,
  );
}
