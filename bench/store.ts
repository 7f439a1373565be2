import { windowInput, TestClient } from '@zonal/server/testing';
import { connect } from '@zonal/server/db/connect';
import { columnsOf } from '@zonal/server/inside/entryStore';
import { migrate } from '@zonal/server/db/migrate';
import { CalendarRow, EntryRow, UserRow } from '@zonal/server/db/models';
import { hashPassword } from '@zonal/server/people/passwords';
import { settingsOf } from '@zonal/core/glass';
import { EMPTY_CONTENT } from '@zonal/core/entries';
import { fork } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { once } from 'node:events';
import { QueryTypes, type Sequelize } from 'sequelize';
import type { Figure } from './figure';

export const [EMAIL, PASSWORD] = ['ida@ostrel.example', 'tide-and-time'];
const KEYS = 10;
const ZONE = 'America/Halifax';
/** Windows that are made in one transaction. */
const AT_ONCE = 20;

const dayOn = (n: number) => new Date(Date.now() + n * 86_400_000).toISOString().slice(0, 10);

/** Makes a calendar with entries in the coming sixty days, and windows over it with keys of their own. */
export async function fill(
  sequelize: Sequelize,
  entries: number,
  windows: number,
  keys = KEYS,
): Promise<string> {
  const place = { description: '', zone: ZONE, plate: 'LO', colour: 'teal' as const };
  const { id: calendarId } = await CalendarRow.create({ ...place, name: `Locks ${randomUUID()}` });
  const rows = Array.from({ length: entries }, (_, i) => {
    const at = (hour: number) => ({
      kind: 'zoned' as const,
      at: `${dayOn(i % 60)}T${String(hour).padStart(2, '0')}:${String(i % 60).padStart(2, '0')}:00`,
      zone: ZONE,
    });
    const times = { start: at(i % 20), end: at((i % 20) + 1), recurrence: null, overrides: [] };
    const columns = columnsOf({ ...EMPTY_CONTENT, title: `Vessel ${i}`, ...times }, ZONE);
    return { ...columns, id: randomUUID(), calendarId, uid: randomUUID() };
  });
  await EntryRow.bulkCreate(rows);
  const settings = settingsOf(windowInput(calendarId, 'clear') as never);
  // The journal looks at all that a transaction has noted, for each line of it.
  for (let made = 0; made < windows; made += AT_ONCE)
    await sequelize.query(
      `WITH made AS (
       INSERT INTO windows (id, slug, name, settings, secret, listed, version, created_at, updated_at)
       SELECT gen_random_uuid(), gen_random_uuid(), 'Window ' || n, :settings, gen_random_uuid(), false, 1, now(), now()
       FROM generate_series(1, :windows) n RETURNING id
     ), sourced AS (
       INSERT INTO window_sources (window_id, calendar_id, glass, position) SELECT id, :calendarId, 'clear', 0 FROM made
     )
     INSERT INTO keys (id, window_id, token, made_out_to, audience, created_at, updated_at)
     SELECT gen_random_uuid(), id, replace(gen_random_uuid()::text, '-', ''), 'Town', 'street', now(), now()
     FROM made CROSS JOIN generate_series(1, :keys)`,
      {
        replacements: {
          settings: JSON.stringify(settings),
          windows: Math.min(AT_ONCE, windows - made),
          calendarId,
          keys,
        },
      },
    );
  return calendarId;
}

/** Makes the tables, and somebody who may do everything. */
export async function prepare(sequelize: Sequelize): Promise<void> {
  await migrate(sequelize);
  if (await UserRow.count()) return;
  const passwordHash = await hashPassword(PASSWORD);
  await UserRow.create({ name: 'Ida', email: EMAIL, role: 'steward', passwordHash });
}

export async function started(env: NodeJS.ProcessEnv) {
  const began = performance.now();
  const server = fork(env['SERVER_MAIN']!, { env });
  const ready = once(server, 'message');
  return { server, ready, began };
}

/** Waits until an address answers with 200, and returns what it says. */
export async function answered(url: string): Promise<string> {
  for (;;) {
    const answer = await fetch(url).catch(() => null);
    const text = await answer?.text();
    if (answer?.status === 200) return text!;
    await new Promise((resolve) => setTimeout(resolve, 5));
  }
}

/** Measures what a store with many windows costs: at the start, in memory, and when one edit concerns many windows. */
export async function storeFigures(env: NodeJS.ProcessEnv): Promise<Figure[]> {
  const sequelize = connect(env['DATABASE_URL']!, { patient: true });
  const base = `http://127.0.0.1:${env['PORT']}`;
  await prepare(sequelize);
  const tokens = async (calendarId: string) =>
    (
      await sequelize.query<{ token: string }>(
        `SELECT DISTINCT ON (k.window_id) k.token FROM keys k JOIN window_sources s USING (window_id)
         WHERE s.calendar_id = :calendarId ORDER BY k.window_id, k.token`,
        { replacements: { calendarId }, type: QueryTypes.SELECT },
      )
    ).map((r) => r.token);
  /** From the start of the process to the first answer, and the memory then. */
  const start = async (token: string) => {
    const { server, ready, began } = await started(env);
    await answered(`${base}/feed/${token}.ics`);
    const took = performance.now() - began;
    await ready;
    return { server, took };
  };
  const stop = async (server: ReturnType<typeof fork>) => {
    server.kill();
    await once(server, 'exit');
  };

  const few = await fill(sequelize, 200, 20);
  const first = (await tokens(few))[0]!;
  // The first start works out what was never worked out; the second one finds it in the store.
  await stop((await start(first)).server);
  const small = await start(first);
  await stop(small.server);

  const busy = await fill(sequelize, 2000, 200);
  const all = await tokens(busy);
  const { server } = await start(first);
  try {
    const feeds = all.map((token) => `${base}/feed/${token}.ics`);
    for (const feed of feeds) await answered(feed);
    const client = new TestClient(base);
    await client.signIn(PASSWORD, EMAIL);
    const write = async (title: string) => {
      const at = (hour: number) => ({ kind: 'zoned', at: `${dayOn(3)}T${hour}:00:00`, zone: ZONE });
      const entry = { ...EMPTY_CONTENT, title, start: at(10), end: at(11), recurrence: null, overrides: [] };
      const began = performance.now();
      const answer = await client.call('POST', `/calendars/${busy}/entries`, entry);
      if (answer.status !== 201) throw new Error(JSON.stringify(answer.body));
      const saved = performance.now() - began;
      for (const feed of feeds)
        if (!(await answered(feed)).includes(title)) throw new Error(`${title} is missing`);
      return { saved, shown: performance.now() - began };
    };
    await write('Warm');
    const { saved, shown } = await write('One more');
    await stop(server);

    await fill(sequelize, 200, 780);
    await stop((await start(first)).server);
    const large = await start(first);
    await stop(large.server);
    return [
      {
        what: 'start to the first answer with 1,000 windows and 10,000 keys, against 20 windows',
        measured: `${large.took.toFixed(0)} and ${small.took.toFixed(0)} ms`,
        ratio: large.took / small.took,
        budget: '≤ 1.5',
        kept: large.took / small.took <= 1.5,
      },
      {
        what: 'one edit in a calendar of 2,000 entries until all 200 windows over it show it, in seconds for each hundred windows',
        measured: `answered after ${(saved / 1000).toFixed(1)} s, all fetched after ${(shown / 1000).toFixed(1)} s`,
        ratio: shown / 2000,
        budget: '≤ 8',
        kept: shown / 2000 <= 8,
      },
    ];
  } finally {
    if (server.exitCode === null) server.kill();
    await sequelize.close();
  }
}
