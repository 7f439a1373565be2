import { alertLetter } from '@zonal/core/post';
import { alertWords, alertsOf, isPassedOn, stateOf, type Raised, type Watched } from '@zonal/core/reach';
import { DAY } from '@zonal/core/zones';
import { QueryTypes, type Sequelize, type Transaction } from 'sequelize';
import { languageOf } from '../db/accountLanguage';
import { groupedBy } from '../db/grouped';
import { houseName } from '../db/houseName';
import { WindowRow, type KeyRow, type UserRow } from '../db/models';
import type { Outbox } from '../db/outbox';
import { PushRow } from '../db/tellingModels';
import { readersOf } from '../db/readers';
import type { Trouble } from '../glass/trouble';
import type { Jobs } from '../jobs/jobs';
import { followersOf, houseWide } from './followers';
import { isShut, knowingOf, openKeys } from './reachStore';

interface Watching {
  readonly sequelize: Sequelize;
  readonly outbox: Outbox;
  readonly publicUrl: string;
  readonly troubles: () => Promise<ReadonlyMap<string, Trouble>>;
}

/** After so long a change is urgent no more. */
const URGENT_FOR = DAY;

/**
 * Looks at all windows, and tells their publishers by mail of what was not told before. What is over is forgotten; what
 * somebody wants to hear no more is noted without a mail.
 */
export async function watch(watching: Watching, now: number = Date.now()): Promise<void> {
  const { sequelize } = watching;
  const windows = await WindowRow.findAll({ order: [['name', 'ASC']] });
  const troubles = await watching.troubles();
  const keys = await openKeys({}, now);
  const keysOf = groupedBy(keys, (k) => k.windowId);
  const silent = await silentOf(sequelize, keys, now);
  const counted = keys.filter((k) => k.meantFor !== null).map((k) => k.id);
  const failing = new Set(
    (await PushRow.findAll({ where: { state: 'failing' }, attributes: ['keyId'] })).map((p) => p.keyId),
  );
  const came = await readersOf(sequelize, counted, now);
  const told = await sequelize.query<Told>('SELECT window_id AS window, kind, key_id AS key FROM alerts', {
    type: QueryTypes.SELECT,
  });
  const toldOf = groupedBy(told, (t) => t.window);
  await sequelize.query('DELETE FROM urgent_changes WHERE by < :over', {
    replacements: { over: new Date(now - URGENT_FOR) },
  });
  const urgent = await sequelize.query<{ id: string; by: Date }>(
    'SELECT window_id AS id, by FROM urgent_changes',
    { type: QueryTypes.SELECT },
  );
  for (const window of windows) {
    const by = urgent.find((u) => u.id === window.id)?.by.getTime();
    const watched = async (): Promise<Watched> => ({
      name: window.name,
      trouble: troubles.get(window.id)?.problem ?? null,
      keys: (keysOf.get(window.id) ?? []).map(({ id, madeOutTo, meantFor }) => {
        const readers = came.get(id) ?? 0;
        const passedOn = isPassedOn(readers, meantFor) ? { readers, meantFor: meantFor! } : null;
        const pushFailing = failing.has(id);
        return { id, madeOutTo, silent: silent.get(id) ?? 0, pushFailing, passedOn };
      }),
      urgent: by === undefined ? null : await urgentOf(sequelize, window.id, by, now),
    });
    // Of what is closed there is nothing to hear any more.
    const raised = isShut(window, now) ? [] : alertsOf(await watched(), now);
    const before = toldOf.get(window.id) ?? [];
    if (raised.length || before.length) await note(watching, window, raised, before, now);
  }
}

/** An alert that is open already. */
interface Told {
  readonly window: string;
  readonly kind: string;
  readonly key: string | null;
}

/** How many readers of keys that matter are silent, by key. */
async function silentOf(
  sequelize: Sequelize,
  keys: readonly KeyRow[],
  now: number,
): Promise<Map<string, number>> {
  const matters = keys.filter((k) => k.matters);
  const matter = new Set(matters.map((k) => k.id));
  const silent = new Map<string, number>();
  if (!matter.size) return silent;
  const prior = await houseWide(sequelize, now);
  const windowIds = [...new Set(matters.map((k) => k.windowId))];
  for await (const page of followersOf(sequelize, { windowIds }, now))
    for (const { place, habit, readers } of page)
      if (matter.has(place) && stateOf(habit, true, now, prior) === 'silent')
        silent.set(place, (silent.get(place) ?? 0) + readers);
  return silent;
}

async function urgentOf(
  sequelize: Sequelize,
  id: string,
  by: number,
  now: number,
): Promise<Watched['urgent']> {
  const [told] = await knowingOf(sequelize, [id], by, true, now);
  if (!told) return null;
  const { forecast, known } = told;
  const holding = Math.round((forecast.curve[0]?.share ?? 0) * forecast.readers);
  return { by, readers: forecast.readers, holding, expected: known };
}

/** Notes what is raised, forgets what is over, and writes to the publishers about what is new. */
async function note(
  { sequelize, outbox, publicUrl }: Watching,
  window: WindowRow,
  raised: readonly Raised[],
  before: readonly Told[],
  now: number,
): Promise<void> {
  await sequelize.transaction(async (transaction) => {
    const ask = <T extends object>(sql: string, more: object = {}) =>
      sequelize.query<T>(sql, {
        replacements: { windowId: window.id, ...more },
        type: QueryTypes.SELECT,
        transaction,
      });
    for (const { kind, key } of before)
      if (!raised.some((r) => r.kind === kind && r.keyId === key))
        await ask(
          `DELETE FROM alerts WHERE window_id = :windowId AND kind = :kind
           AND key_id IS NOT DISTINCT FROM CAST(:key AS uuid)`,
          { kind, key },
        );
    const fresh: Raised[] = [];
    for (const r of raised) {
      // Of two processes one makes it, and so writes of it.
      const [made] = await ask<{ fresh: boolean }>(
        `INSERT INTO alerts (kind, window_id, key_id, facts, since) VALUES (:kind, :windowId, :keyId, :facts, :at)
         ON CONFLICT (kind, window_id, key_id) DO UPDATE SET facts = excluded.facts
         RETURNING xmax = 0 AS fresh`,
        { kind: r.kind, keyId: r.keyId, facts: JSON.stringify(r.facts), at: new Date(now) },
      );
      if (made!.fresh) fresh.push(r);
    }
    if (!fresh.length) return;
    const house = await houseName(transaction);
    const href = `${publicUrl}/reach/${window.id}`;
    const mutes = await ask<{ kind: string; key: string | null; user: string | null }>(
      'SELECT kind, key_id AS key, user_id AS user FROM alert_mutes WHERE window_id = :windowId',
    );
    for (const publisher of await publishersOf(sequelize, window.id, transaction)) {
      const { id, email } = publisher;
      const language = languageOf(publisher);
      const isMuted = (r: Raised) =>
        mutes.some((m) => m.kind === r.kind && m.key === r.keyId && (m.user ?? id) === id);
      const lines = fresh.filter((r) => !isMuted(r)).map((r) => alertWords(r, language));
      if (!lines.length) continue;
      const letter = alertLetter({ house, language, window: window.name, lines, href });
      const onlyIf = { effect: 'alert', authorId: id, windowIds: [window.id] } as const;
      await outbox.put(email, 'alert', letter, transaction, { onlyIf });
    }
  });
}

type Publisher = Pick<UserRow, 'id' | 'email' | 'language'>;

/** Returns who publishes a calendar of a window, else the stewards. */
async function publishersOf(
  sequelize: Sequelize,
  windowId: string,
  transaction: Transaction,
): Promise<Publisher[]> {
  const rows = await sequelize.query<Publisher>(
    `SELECT DISTINCT u.id, u.email, u.language FROM window_sources s JOIN standings t ON t.calendar_id = s.calendar_id
     JOIN users u ON u.id = t.user_id
     WHERE s.window_id = :windowId AND t.standing = 'publisher' AND u.rested_at IS NULL ORDER BY u.email`,
    { replacements: { windowId }, type: QueryTypes.SELECT, transaction },
  );
  if (rows.length) return rows;
  return sequelize.query<Publisher>(
    `SELECT id, email, language FROM users WHERE role = 'steward' AND rested_at IS NULL ORDER BY email`,
    { type: QueryTypes.SELECT, transaction },
  );
}

/** Has all windows looked at each minute, by one process of all. */
export async function startWatching(jobs: Jobs, watching: Watching): Promise<void> {
  jobs.work('watch', () => watch(watching));
  await jobs.eachMinute('watch');
}
