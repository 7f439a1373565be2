import {
  CURVE,
  POLL_FORMS,
  habitAfter,
  packPolls,
  type Habit,
  type PollForm,
  type PollRecord,
} from '@zonal/core/reach';
import { compareText } from '@zonal/core/entries';
import { DAY, dayToText } from '@zonal/core/zones';
import { LRUCache } from 'lru-cache';
import { QueryTypes, type Sequelize, type Transaction } from 'sequelize';
import { groupedBy } from '../db/grouped';
import { log } from '../log';
import type { Fetched } from '../outside/counting';
import { revisionIn } from '../outside/syncToken';
import { MOST, type Storing } from './pollLog';
import { Readers, type KnownReader } from './readers';

export interface CounterOptions {
  readonly sequelize: Sequelize;
  readonly proxies: number;
  /** So long, in milliseconds, polls are gathered before they are stored. */
  readonly every?: number;
}

/** Something that was fetched, and by which reader. */
interface Known {
  readonly fetched: Fetched;
  readonly reader: KnownReader;
}

/** A subscriber as it is stored. */
interface Stored {
  readonly id: string;
  readonly name: string;
  readonly view: string;
  readonly revision: number;
  /** Null for one that is new. */
  readonly habit: Habit | null;
}

const EVERY = 1_000;
/**
 * Readers of one key in one week, and subscribers of one address in one week, that are stored one by one at most. Somebody who
 * pretends to be ever new readers makes no more rows; their polls still count as uses of the key.
 */
const MAX_READERS_PER_KEY = 100_000;
/** So many subscribers are looked for no more before they are counted. */
const MET = 200_000;
/** All processes store one after the other: two may count polls of one subscriber. */
const LOCK = 4312;
/** Of a subscriber who was away, only the last so many revisions are said to have reached it. */
const MOST_REACHED = 50;

/**
 * Stores what was fetched: uses of keys, readers of keys, subscribers with their habits, polls, and the spread of revisions.
 * Whatever the number of polls, it is a handful of statements in one transaction. While the store is away they are kept.
 */
export class Counter implements Storing {
  private waiting: Fetched[] = [];
  private running: Promise<void> | null = null;
  private readonly sequelize: Sequelize;
  private readonly readers: Readers;
  /** Subscribers of whom this process knows that they are stored, by name. */
  private readonly met = new LRUCache<string, true>({ max: MET });
  private readonly timer: NodeJS.Timeout;

  constructor({ sequelize, proxies, every = EVERY }: CounterOptions) {
    this.sequelize = sequelize;
    this.readers = new Readers(sequelize, proxies);
    this.timer = setInterval(() => void this.store(), every).unref();
  }

  take(batch: readonly Fetched[]): Promise<void> {
    for (const one of batch) this.waiting.push(one);
    return Promise.resolve();
  }

  /** Stores what is waiting; calls while it does so wait for it, and for what came meanwhile. */
  async store(): Promise<void> {
    while (this.running) await this.running;
    if (!this.waiting.length) return;
    this.running = this.storeAll().finally(() => (this.running = null));
    await this.running;
  }

  async close(): Promise<void> {
    clearInterval(this.timer);
    await this.store();
  }

  private async storeAll(): Promise<void> {
    const batch = this.waiting;
    this.waiting = [];
    try {
      const known: Known[] = [];
      for (const fetched of batch) {
        const { keyId, trace, at } = fetched;
        known.push({ fetched, reader: await this.readers.known(keyId, trace, at) });
      }
      await this.sequelize.transaction(async (transaction) => {
        await this.sequelize.query(`SELECT pg_advisory_xact_lock(${LOCK})`, { transaction });
        await this.storeUses(batch, transaction);
        await this.storeReaders(known, transaction);
        // Week by week, as who is known from one is known in the next.
        const weeks = [...groupedBy(known, (k) => k.reader.week)].sort(([a], [b]) => compareText(a, b));
        for (const [, own] of weeks) await this.storePolls(own, transaction);
      });
    } catch (error) {
      log.warn({ err: error, polls: batch.length }, 'polls could not be stored; trying again');
      // Who was new in it is new again.
      this.met.clear();
      this.waiting = [...batch, ...this.waiting].slice(-MOST);
    }
  }

  private async rows<T extends object>(
    sql: string,
    rows: readonly object[],
    transaction: Transaction,
  ): Promise<T[]> {
    if (!rows.length) return [];
    const replacements = { rows: JSON.stringify(rows) };
    return this.sequelize.query<T>(sql, { replacements, transaction, type: QueryTypes.SELECT });
  }

  /** How often each key was used, and what was had with it last. Keys that are gone are left out. */
  private async storeUses(batch: readonly Fetched[], transaction: Transaction): Promise<void> {
    const rows = [...groupedBy(batch, (f) => f.keyId)].map(([id, own]) => {
      const last = own.reduce((newest, one) => (one.at >= newest.at ? one : newest));
      return { id, at: new Date(last.at).toISOString(), r: last.number, c: own.length };
    });
    await this.rows(
      `INSERT INTO key_uses (key_id, at, revision, count)
       SELECT k.id, u.at, u.r, u.c FROM jsonb_to_recordset(:rows) AS u(id uuid, at timestamptz, r int, c bigint)
       JOIN keys k ON k.id = u.id
       ON CONFLICT (key_id) DO UPDATE SET at = greatest(key_uses.at, excluded.at),
         revision = CASE WHEN excluded.at >= key_uses.at THEN excluded.revision ELSE key_uses.revision END,
         count = key_uses.count + excluded.count`,
      rows,
      transaction,
    );
  }

  /** Who came with each key in a week, by page or by program. */
  private async storeReaders(known: readonly Known[], transaction: Transaction): Promise<void> {
    const rows = [...groupedBy(known, nameOf).values()].map((own) => {
      const { fetched, reader } = own[0]!;
      const many = Math.max(...own.map((k) => k.reader.readers));
      return { id: fetched.keyId, week: reader.week, hash: reader.hash.toString('hex'), many };
    });
    await this.rows(
      `WITH full_keys AS (
         SELECT key_id, week FROM key_readers
         WHERE (key_id, week) IN (SELECT r.id, r.week FROM jsonb_to_recordset(:rows) AS r(id uuid, week date))
         GROUP BY key_id, week HAVING count(*) >= ${MAX_READERS_PER_KEY}
       )
       INSERT INTO key_readers (key_id, week, reader, many)
       SELECT k.id, r.week, decode(r.hash, 'hex'), r.many
       FROM jsonb_to_recordset(:rows) AS r(id uuid, week date, hash text, many int)
       JOIN keys k ON k.id = r.id
       WHERE NOT EXISTS (SELECT 1 FROM full_keys f WHERE f.key_id = r.id AND f.week = r.week)
       ON CONFLICT (key_id, week, reader) DO UPDATE SET many = excluded.many WHERE key_readers.many <> excluded.many`,
      rows,
      transaction,
    );
  }

  private async storePolls(known: readonly Known[], transaction: Transaction): Promise<void> {
    const polls = known.filter(({ fetched }) => formOf(fetched) !== null);
    if (!polls.length) return;
    const bySubscriber = groupedBy(
      [...polls].sort((a, b) => a.fetched.at - b.fetched.at),
      nameOf,
    );
    const stored = await this.subscribers(bySubscriber, transaction);
    const changed: object[] = [];
    const days: { id: string; day: string; polls: string }[] = [];
    const reached: Reached[] = [];
    for (const [name, own] of bySubscriber) {
      const one = stored.get(name);
      // Its key is gone, or has as many subscribers as are stored.
      if (!one) continue;
      const records = recordsOf(own, one);
      const last = own.at(-1)!;
      const habit = habitAfter(
        one.habit,
        records.map((r) => r.at),
      )!;
      changed.push({
        id: one.id,
        readers: Math.max(...own.map((k) => k.reader.readers)),
        form: POLL_FORMS.indexOf(formOf(last.fetched)!),
        view: last.fetched.viewId,
        revision: records.at(-1)!.has,
        at: new Date(habit.last).toISOString(),
        habit,
      });
      for (const [day, list] of groupedBy(records, (r) => Math.floor(r.at / DAY)))
        days.push({ id: one.id, day: dayToText(day), polls: Buffer.from(packPolls(list)).toString('hex') });
      if (one.habit) reached.push(...reachedBy(own, one));
    }
    await this.rows(
      `UPDATE subscribers s SET readers = r.readers, form = r.form, view_id = r.view, revision = r.revision, last_at = r.at,
         habit = r.habit
       FROM jsonb_to_recordset(:rows)
         AS r(id bigint, readers int, form smallint, view text, revision int, at timestamptz, habit jsonb)
       WHERE s.id = r.id`,
      changed,
      transaction,
    );
    await this.rows(
      `INSERT INTO polls (subscriber_id, day, polls)
       SELECT r.id, r.day, decode(r.polls, 'hex') FROM jsonb_to_recordset(:rows) AS r(id bigint, day date, polls text)
       ON CONFLICT (subscriber_id, day) DO UPDATE SET polls = polls.polls || excluded.polls`,
      days,
      transaction,
    );
    await this.storeSpread(reached, transaction);
  }

  /** Returns the subscribers by name, with those that are new; who is known from last week is so under this week's hash. */
  private async subscribers(
    bySubscriber: ReadonlyMap<string, readonly Known[]>,
    transaction: Transaction,
  ): Promise<Map<string, Stored>> {
    const rows = [...bySubscriber].map(([name, own]) => {
      const { fetched, reader } = own[0]!;
      return {
        name,
        key: fetched.keyId,
        week: reader.week,
        hash: reader.hash.toString('hex'),
        before: reader.before?.toString('hex') ?? '',
        view: fetched.viewId,
        at: new Date(fetched.at).toISOString(),
      };
    });
    const recordset =
      'jsonb_to_recordset(:rows) AS r(name text, key uuid, week date, hash text, before text, view text, at timestamptz)';
    const unmet = rows.filter((r) => !this.met.has(r.name));
    await this.rows(
      `UPDATE subscribers s SET week = r.week, reader = decode(r.hash, 'hex') FROM ${recordset}
       WHERE s.place = r.key AND s.week = r.week - 7 AND s.reader = decode(r.before, 'hex') AND NOT EXISTS (
         SELECT 1 FROM subscribers n WHERE n.place = r.key AND n.week = r.week AND n.reader = decode(r.hash, 'hex'))`,
      unmet,
      transaction,
    );
    await this.rows(
      `WITH full_places AS (
         SELECT place, week FROM subscribers
         WHERE (place, week) IN (SELECT r.key, r.week FROM jsonb_to_recordset(:rows) AS r(key uuid, week date))
         GROUP BY place, week HAVING count(*) >= ${MAX_READERS_PER_KEY}
       )
       INSERT INTO subscribers (place, key_id, window_id, week, reader, readers, form, view_id, revision, last_at, habit)
       SELECT p.id, p.key_id, p.window_id, r.week, decode(r.hash, 'hex'), 1, 0, r.view, 0, r.at, 'null' FROM ${recordset}
       JOIN places p ON p.id = r.key
       WHERE NOT EXISTS (SELECT 1 FROM full_places f WHERE f.place = r.key AND f.week = r.week)
       ON CONFLICT (place, reader, week) DO NOTHING`,
      unmet,
      transaction,
    );
    const found = await this.rows<Stored>(
      `SELECT s.id, r.name, s.view_id AS view, s.revision, s.habit FROM ${recordset}
       JOIN subscribers s ON s.place = r.key AND s.week = r.week AND s.reader = decode(r.hash, 'hex')`,
      rows,
      transaction,
    );
    const stored = new Map(found.map((one) => [one.name, one]));
    const lost = rows.filter(({ name }) => !stored.has(name) && this.met.delete(name));
    for (const name of stored.keys()) this.met.set(name, true);
    // They were stored once, and are to be so again.
    return lost.length ? this.subscribers(bySubscriber, transaction) : stored;
  }

  /** How long after it was made each revision reached how many readers. */
  private async storeSpread(reached: readonly Reached[], transaction: Transaction): Promise<void> {
    if (!reached.length) return;
    const asked = [...groupedBy(reached, (r) => `${r.view}|${r.revision}`).values()].map(([r]) => r!);
    const made = await this.rows<{ view: string; revision: number; at: Date }>(
      `SELECT l.view_id AS view, l.number AS revision, l.at FROM ledger l
       JOIN jsonb_to_recordset(:rows) AS r(view text, revision int) ON l.view_id = r.view AND l.number = r.revision`,
      asked,
      transaction,
    );
    const madeAt = new Map(made.map((m) => [`${m.view}|${m.revision}`, m.at.getTime()]));
    const steps = reached.flatMap(({ view, revision, at, readers }) => {
      const since = madeAt.get(`${view}|${revision}`);
      return since === undefined ? [] : [{ view, revision, step: stepOf(at - since), readers }];
    });
    const rows = [...groupedBy(steps, (s) => `${s.view}|${s.revision}|${s.step}`).values()].map((own) => ({
      ...own[0]!,
      readers: own.reduce((sum, { readers }) => sum + readers, 0),
    }));
    await this.rows(
      `INSERT INTO spreads (view_id, revision, step, readers)
       SELECT v.id, r.revision, r.step, r.readers
       FROM jsonb_to_recordset(:rows) AS r(view text, revision int, step smallint, readers int)
       JOIN views v ON v.id = r.view
       ON CONFLICT (view_id, revision, step) DO UPDATE SET readers = spreads.readers + excluded.readers`,
      rows,
      transaction,
    );
  }
}

/** A revision that reached a subscriber who followed before it was made. */
interface Reached {
  readonly view: string;
  readonly revision: number;
  readonly at: number;
  readonly readers: number;
}

function nameOf({ fetched, reader }: Known): string {
  return `${fetched.keyId} ${reader.week} ${reader.hash.toString('hex')}`;
}

/** The form as polls are counted by it, or null for what is no poll: pages, and what is taken once. */
function formOf({ form }: Fetched): PollForm | null {
  return POLL_FORMS.find((one) => one === form) ?? null;
}

/** Returns the polls of one subscriber; what it held is what it said, else what it was given last. */
function recordsOf(
  own: readonly Known[],
  { view, revision }: Pick<Stored, 'view' | 'revision'>,
): PollRecord[] {
  let holds = { view, revision };
  return own.map(({ fetched }) => {
    const held = holds.view === fetched.viewId ? holds.revision : 0;
    const had = revisionIn(fetched.held) ?? held;
    const has = fetched.looked ? had : fetched.number;
    holds = { view: fetched.viewId, revision: has };
    return { at: Math.floor(fetched.at / 1000) * 1000, form: formOf(fetched)!, had, has };
  });
}

function reachedBy(own: readonly Known[], { view, revision }: Stored): Reached[] {
  const reached: Reached[] = [];
  let holds = { view, revision };
  for (const { fetched, reader } of own) {
    const { viewId, number, at, looked } = fetched;
    if (looked) continue;
    if (holds.view === viewId)
      for (let n = Math.max(holds.revision + 1, number - MOST_REACHED + 1); n <= number; n++)
        reached.push({ view: viewId, revision: n, at, readers: reader.readers });
    // Of two processes one may be behind for a moment.
    const most = holds.view === viewId ? Math.max(holds.revision, number) : number;
    holds = { view: viewId, revision: most };
  }
  return reached;
}

/** Returns the place in the curve of forecasts of a length of time: the first of its lengths that is not shorter. */
export function stepOf(length: number): number {
  const step = CURVE.findIndex((after) => after >= length);
  return step < 0 ? CURVE.length : step;
}
