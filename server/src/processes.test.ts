import { EMPTY_CONTENT } from '@zonal/core/entries';
import { hostname } from 'node:os';
import { Client } from 'pg';
import { QueryTypes } from 'sequelize';
import { afterAll, beforeAll, beforeEach, describe, expect, it, onTestFinished } from 'vitest';
import { connect, storeOptions } from './db/connect';
import {
  TestClient,
  cuttableProxy,
  databaseWithAccount,
  eventually,
  serverProcess,
  startingProcess,
  windowInput,
  type ServerProcess,
} from './testing';

/** How long a process serves without hearing the database, in seconds. */
const UNHEARD = 15;

let database: string;
let proxied: string;
let proxy: Awaited<ReturnType<typeof cuttableProxy>>;
let first: ServerProcess;
let second: ServerProcess;
let client: TestClient;
let serial = 0;

const day = (n: number) => new Date(Date.now() + n * 86_400_000).toISOString().slice(0, 10);
const start = (url: string) => serverProcess(url, { UNHEARD_SECONDS: String(UNHEARD) });

beforeAll(async () => {
  database = await databaseWithAccount();
  const url = new URL(database);
  proxy = await cuttableProxy(new URL(url));
  url.port = String(proxy.port);
  proxied = url.href;
  first = await start(database);
  second = await start(proxied);
  client = new TestClient(first.base);
  await client.signIn();
});

afterAll(async () => {
  await first?.stop('SIGKILL');
  await second?.stop('SIGKILL');
  proxy?.close();
});

/** A window that both processes show, with one entry. */
async function opened() {
  const name = `Quay ${++serial}`;
  const input = { name, description: '', zone: 'UTC', plate: 'QU', colour: 'teal' };
  const calendar = (await client.call('POST', '/calendars', input)).body;
  const entry = (
    await client.call('POST', `/calendars/${calendar.id}/entries`, {
      ...EMPTY_CONTENT,
      title: 'Market',
      start: { kind: 'date', date: day(2) },
      end: { kind: 'date', date: day(3) },
      recurrence: null,
      overrides: [],
    })
  ).body;
  const made = await client.call(
    'POST',
    '/windows',
    windowInput(calendar.id, 'tinted', { name, hostZone: 'UTC' }),
  );
  if (made.status !== 201) throw new Error(JSON.stringify(made.body));
  const key = made.body.keys[0];
  const seen = async (at: ServerProcess) => {
    const answer = await fetch(`${at.base}/feed/${key.token}.ics`);
    const text = await answer.text();
    return answer.status === 200 ? (text.includes('Market') ? 'shown' : 'empty') : answer.status;
  };
  await eventually(async () => expect(await seen(second)).toBe('shown'));
  return { calendar, entry, window: made.body, key, seen };
}
type Opened = Awaited<ReturnType<typeof opened>>;

/** Everything that takes something away, and what readers get then. */
const WITHDRAWALS: Record<
  string,
  { act: (o: Opened) => Promise<{ status: number; body: any }>; then: unknown }
> = {
  'deleting an entry': {
    act: ({ entry }) => client.call('DELETE', `/entries/${entry.id}?version=${entry.version}`),
    then: 'empty',
  },
  'holding an entry': {
    act: ({ entry: { id, uid: _u, calendarId: _c, imported: _i, ...rest } }) =>
      client.call('PUT', `/entries/${id}`, { ...rest, hold: 'keep-in' }),
    then: 'empty',
  },
  'closing a window': { act: ({ window }) => client.call('POST', `/windows/${window.id}/close`), then: 410 },
  'a lock-down': {
    act: ({ calendar }) => client.call('POST', `/calendars/${calendar.id}/lock-down`),
    then: 'empty',
  },
  'a ceiling': {
    act: ({ calendar }) =>
      client.call('PUT', '/ceilings', {
        calendarId: calendar.id,
        audience: 'street',
        glass: 'shut',
        confirmed: ['most-vanishes'],
      }),
    then: 'empty',
  },
  'a narrower glass': {
    act: ({ window, calendar }) =>
      client.call('PUT', `/windows/${window.id}`, {
        ...windowInput(calendar.id, 'shut', { name: window.wording.name, hostZone: 'UTC' }),
        version: window.version,
      }),
    then: 'empty',
  },
  'a filter': {
    act: ({ window, calendar }) =>
      client.call('PUT', `/windows/${window.id}`, {
        ...windowInput(calendar.id, 'tinted', {
          name: window.wording.name,
          hostZone: 'UTC',
          filter: { field: 'label', value: 'none' },
        }),
        version: window.version,
      }),
    then: 'empty',
  },
  'taking a calendar out': {
    act: ({ calendar }) => client.call('DELETE', `/calendars/${calendar.id}?windows=take-out`),
    then: 410,
  },
};

describe.each(Object.entries(WITHDRAWALS))('%s', (_name, { act, then }) => {
  it('acts in every process when it is answered', async () => {
    const scene = await opened();
    const { status } = await act(scene);
    expect([200, 204]).toContain(status);
    expect(await scene.seen(first)).toBe(then);
    expect(await scene.seen(second)).toBe(then);
  });
});

describe.each([
  ['falls silent', { off: () => proxy.silence(true), on: () => proxy.silence(false) }],
  ['is cut off', { off: () => proxy.cut(true), on: () => proxy.cut(false) }],
] as const)('a process whose connection to the store %s', (_what, { off, on }) => {
  const scenes: [string, Opened][] = [];

  beforeEach(async () => {
    scenes.length = 0;
    for (const name of Object.keys(WITHDRAWALS)) scenes.push([name, await opened()]);
  });

  it('is named in the answer, serves for its time only, and then shows what is true', async () => {
    off();
    let named = 0;
    for (const [name, scene] of scenes) {
      const { status, body } = await WITHDRAWALS[name]!.act(scene);
      // As long as the other process serves what it knew, the answer names it and says until when.
      if ((await scene.seen(second)) === 'shown') {
        expect([name, status, body?.unconfirmed?.servers]).toEqual([name, 202, 1]);
        expect(Date.parse(body.unconfirmed.until)).toBeLessThan(Date.now() + UNHEARD * 1000);
        named++;
      }
      expect([name, await scene.seen(first)]).toEqual([name, WITHDRAWALS[name]!.then]);
    }
    expect(named).toBeGreaterThan(0);
    // It stops by itself, says so where it is asked, and lives.
    await eventually(async () => {
      for (const [, { seen }] of scenes) expect([503, 410]).toContain(await seen(second));
    });
    expect((await fetch(`${second.base}/livez`)).status).toBe(200);
    await eventually(async () => expect((await fetch(`${second.base}/healthz`)).status).toBe(503));
    expect((await fetch(`${first.base}/healthz`)).status).toBe(200);
    on();
    await eventually(async () => {
      for (const [name, { seen }] of scenes)
        expect([name, await seen(second)]).toEqual([name, WITHDRAWALS[name]!.then]);
      expect((await fetch(`${second.base}/healthz`)).status).toBe(200);
    });
  });
});

it('a process that falls silent while it holds the lock of changes stops nobody for long', async () => {
  const scene = await opened();
  const url = new URL(proxied);
  const holder = new Client({ connectionString: url.href, ...storeOptions() });
  holder.on('error', () => undefined);
  await holder.connect();
  await holder.query('BEGIN');
  await holder.query('SELECT pg_advisory_xact_lock(4311)');
  // It says nothing any more, and never lets go by itself.
  await eventually(async () => {
    const { status } = await WITHDRAWALS['closing a window']!.act(scene);
    expect([200, 202]).toContain(status);
  });
  expect(await scene.seen(first)).toBe(410);
  await holder.end().catch(() => undefined);
});

it('one that is killed is not waited for once another one starts on its machine, and loses nothing', async () => {
  const scene = await opened();
  await second.stop('SIGKILL');
  second = await start(proxied);
  // What was cut off in the middle of something is let go of by the store within seconds.
  await eventually(async () => expect(await scene.seen(second)).toBe('shown'));
  // 202 would name a process that has not confirmed.
  expect((await WITHDRAWALS['closing a window']!.act(scene)).status).toBe(200);
  await first.stop('SIGKILL');
  first = await start(database);
  expect(await scene.seen(first)).toBe(410);
  client = new TestClient(first.base);
  await client.signIn();
});

it('a dead process whose number another one has by now is not waited for', async () => {
  const scene = await opened();
  const store = connect(database);
  // As a container leaves it behind that was started again under its name: with the number of a process that runs.
  await store.query(
    `INSERT INTO processes (id, host, pid, birth, heard_at, change_id, serves_until)
     VALUES (gen_random_uuid(), :host, :pid, 'another start', now() - interval '1 minute', 0, now() + interval '9 minutes')`,
    { replacements: { host: hostname(), pid: first.child.pid! } },
  );
  await store.close();
  expect((await WITHDRAWALS['closing a window']!.act(scene)).status).toBe(200);
});

it('a paused process answers none of the waiting requests as it was before the pause', async () => {
  const scene = await opened();
  const store = connect(database);
  second.child.kill('SIGSTOP');
  onTestFinished(() => void second.child.kill('SIGCONT'));
  // Some ask before anything is taken away, some after.
  // A connection that was kept may have ended meanwhile.
  const ask = () => scene.seen(second).catch(() => 'no answer');
  const waiting = [1, 2, 3].map(ask);
  // A machine with much to do may have paused it before: then it serves nothing, and nobody waits for it.
  const { status } = await WITHDRAWALS['deleting an entry']!.act(scene);
  expect([200, 202]).toContain(status);
  for (let i = 0; i < 6; i++) waiting.push(ask());
  await eventually(async () => {
    const [row] = await store.query<{ long: boolean }>(
      `SELECT heard_at < now() - interval '6 seconds' AS long FROM processes WHERE pid = :pid`,
      { replacements: { pid: second.child.pid! }, type: QueryTypes.SELECT },
    );
    expect(row?.long).toBe(true);
  });
  await store.close();
  second.child.kill('SIGCONT');
  const answers = await Promise.all(waiting);
  for (const answer of answers) expect([503, 'empty', 'no answer']).toContain(answer);
  expect(answers).toContain(503);
  await eventually(async () => expect(await scene.seen(second)).toBe('empty'));
});

it('a process that starts serves nothing that was taken away before it was ready', async () => {
  const scenes: Opened[] = [];
  for (let i = 0; i < 8; i++) scenes.push(await opened());
  const third = await startingProcess(database);
  let ready = false;
  void third.ready.then(() => (ready = true));
  const gone: Opened[] = [];
  const seen = async (scene: Opened) => scene.seen(third).catch(() => 'no connection');
  const answers = new Set<unknown>();
  while (!ready || gone.length < scenes.length) {
    const next = scenes[gone.length];
    // What is answered with 202 is not confirmed by all.
    if (next && (await WITHDRAWALS['deleting an entry']!.act(next)).status !== 202) gone.push(next);
    else if (next) scenes.splice(scenes.indexOf(next), 1);
    for (const scene of gone) answers.add(await seen(scene));
  }
  expect(answers).not.toContain('shown');
  expect(gone.length).toBeGreaterThan(0);
  for (const scene of gone) expect(await scene.seen(third)).toBe('empty');
  await third.stop();
});

it('a change that is sent again under its id is done once', async () => {
  const input = { name: `Twice ${++serial}`, description: '', zone: 'UTC', plate: 'TW', colour: 'teal' };
  const calendar = (await client.call('POST', '/calendars', input)).body;
  const entry = {
    ...EMPTY_CONTENT,
    title: 'Once',
    start: { kind: 'date', date: day(2) },
    end: { kind: 'date', date: day(3) },
    recurrence: null,
    overrides: [],
  };
  const headers = { 'x-change-id': 'once-and-only-once-1' };
  const one = await client.call(
    'POST',
    `/calendars/${calendar.id}/entries`,
    entry,
    'application/json',
    headers,
  );
  const two = await client.call(
    'POST',
    `/calendars/${calendar.id}/entries`,
    entry,
    'application/json',
    headers,
  );
  expect([one.status, two.status]).toEqual([201, 201]);
  expect(two.body.id).toBe(one.body.id);
  expect((await client.call('GET', `/calendars/${calendar.id}/entries`)).body).toHaveLength(1);
  const other = await client.call(
    'POST',
    `/calendars/${calendar.id}/entries`,
    { ...entry, title: 'Other' },
    'application/json',
    headers,
  );
  expect(other.body.code).toBe('change-id-taken');
  const odd = await client.call('POST', `/calendars/${calendar.id}/entries`, entry, 'application/json', {
    'x-change-id': '!',
  });
  expect(odd.body.code).toBe('request-malformed');
});
