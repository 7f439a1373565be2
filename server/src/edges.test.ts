import { EMPTY_CONTENT } from '@zonal/core/entries';
import { request } from 'node:http';
import { connect } from 'node:net';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { configFrom } from './config';
import { UserRow } from './db/models';
import { hashPassword } from './people/passwords';
import { EMAIL, PASSWORD, TestClient, freshDatabase, testServer, windowInput } from './testing';

let server: Awaited<ReturnType<typeof testServer>>;
let client: TestClient;
let calendarId: string;
let token: string;
let windowId: string;

const day = (n: number) => new Date(Date.now() + n * 86_400_000).toISOString().slice(0, 10);
const entryInput = (parts: object = {}) => ({
  ...EMPTY_CONTENT,
  title: 'Lock inspection',
  start: { kind: 'date', date: day(2) },
  end: { kind: 'date', date: day(3) },
  recurrence: null,
  overrides: [],
  ...parts,
});

beforeAll(async () => {
  server = await testServer(await freshDatabase());
  client = new TestClient(server.base);
  await client.signIn();
  const input = { name: 'Quay', description: '', zone: 'America/Halifax', plate: 'QU', colour: 'teal' };
  calendarId = (await client.call('POST', '/calendars', input)).body.id;
  await client.call('POST', `/calendars/${calendarId}/entries`, entryInput());
  const window = (await client.call('POST', '/windows', windowInput(calendarId, 'clear'))).body;
  [windowId, token] = [window.id, window.keys[0].token];
});

afterAll(() => server?.close());

interface Sent {
  readonly method?: string;
  readonly path: string;
  readonly headers?: Record<string, string>;
  readonly body?: string | Buffer;
}

/** Sends a request as it stands, odd as it may be; a connection that is cut is an error. */
function send({
  method = 'GET',
  path,
  headers = {},
  body,
}: Sent): Promise<{ status: number; text: string; type: string }> {
  return new Promise((resolve, reject) => {
    const req = request({ host: '127.0.0.1', port: server.port, method, path, headers }, (res) => {
      const chunks: Buffer[] = [];
      res.on('data', (chunk: Buffer) => chunks.push(chunk));
      res.on('end', () =>
        resolve({
          status: res.statusCode!,
          text: Buffer.concat(chunks).toString(),
          type: String(res.headers['content-type']),
        }),
      );
    });
    req.on('error', reject);
    req.end(body);
  });
}

const PARTS = [
  '%',
  '%E0%A4%A',
  '%00',
  '%0d%0aSet-Cookie:x=1',
  '..',
  '..%2f..',
  '-1',
  '0',
  '1e9',
  '99999999999999999999',
  'null',
  'undefined',
  'constructor',
  '__proto__',
  '%F0%9F%9A%A2',
  'a'.repeat(3000),
  "'%20OR%201=1--",
];
const VALUES = [
  '',
  'abc',
  '-1',
  '1.5',
  '1e400',
  '99999999999',
  '%00',
  '%',
  '-271821-04-20T00:00:00Z',
  '+275760-09-13',
  '0000-01-01',
  '9999-12-31T23:59:59Z',
  'NaN',
];

function deep(depth: number): string {
  return '{"a":'.repeat(depth) + '1' + '}'.repeat(depth);
}
const BODIES: readonly (string | Buffer)[] = [
  '',
  '{',
  'null',
  '[]',
  '[[]]',
  '3',
  '"text"',
  '{"a":1}',
  '{"__proto__":{"x":1}}',
  '{"constructor":{"prototype":{}}}',
  deep(30),
  deep(20_000),
  '['.repeat(100_000),
  '{"name":"\\u0000"}',
  '{"name":"\\ud800"}',
  '{"version":1e99}',
  '{"version":"abc"}',
  '{"version":-1}',
  '{"changes":[[]],"label":"x"}',
  '{"changes":{"0":{}},"label":"x"}',
  '{"body":[]}',
  '{"sources":[[]],"filter":[],"horizon":[]}',
  '{"at":"+275760-09-13T00:00:00Z"}',
  '{"expiresAt":"-271821-04-20T00:00:00Z"}',
  Buffer.from([0xff, 0xfe, 0x00]),
  Buffer.from([0x1f, 0x8b, 0x08, 0x00]),
];

describe('odd requests', () => {
  it(
    'to every route of the description are refused with a code: never an error of ours, never a connection cut',
    { timeout: 240_000 },
    async () => {
      const api = await (await fetch(`${server.base}/api/openapi.json`)).json();
      const session = client.headers();
      const failures: string[] = [];
      let sent = 0;
      const questions: Sent[] = [];
      const check = async (what: Sent) => {
        sent++;
        const told = await send({ ...what, headers: { ...session, ...what.headers } }).catch(
          (error: Error) => ({ status: 0, text: String(error), type: '' }),
        );
        if (told.status < 200 || told.status >= 500)
          failures.push(
            `${what.method} ${what.path.slice(0, 80)} ${String(what.body).slice(0, 60)}: ${told.status} ${told.text.slice(0, 100)}`,
          );
        if (told.status >= 400 && told.type.includes('json'))
          expect(JSON.parse(told.text)).toHaveProperty('code');
      };
      for (const [path, methods] of Object.entries(api.paths) as [string, Record<string, any>][]) {
        for (const [lower, operation] of Object.entries(methods)) {
          const method = lower.toUpperCase();
          // A stream answers and stays open; the session of this test is needed to the end.
          if (path === '/api/changes' || (path === '/api/session' && method === 'DELETE')) continue;
          const with_ = (part: string) => path.replace(/\{\w+\}/g, part);
          const known = with_(path.includes('windows') ? windowId : calendarId);
          if (path.includes('{')) for (const part of PARTS) questions.push({ method, path: with_(part) });
          const names = (operation.parameters ?? [])
            .filter((p: any) => p.in === 'query')
            .map((p: any) => p.name);
          for (const name of [...names, 'version'])
            for (const value of VALUES)
              if (method !== 'DELETE')
                questions.push({ method, path: `${known}?${name}=${value}&${name}=twice` });
          if (!operation.requestBody) continue;
          for (const body of BODIES)
            questions.push({ method, path: known, body, headers: { 'content-type': 'application/json' } });
          for (const type of [
            'text/plain',
            'application/json; charset=utf-7',
            'multipart/form-data',
            'application/x-www-form-urlencoded',
          ])
            questions.push({ method, path: known, body: 'a=1', headers: { 'content-type': type } });
          for (const encoding of ['gzip', 'br', 'zstd', 'nonsense'])
            questions.push({
              method,
              path: known,
              body: 'not packed',
              headers: { 'content-type': 'application/json', 'content-encoding': encoding },
            });
        }
      }
      const ask = async () => {
        for (let what = questions.shift(); what; what = questions.shift()) await check(what);
      };
      // Some at once: most of the time goes by waiting for the database.
      await Promise.all(Array.from({ length: 6 }, ask));
      expect(failures).toEqual([]);
      expect(sent).toBeGreaterThan(1000);
    },
  );

  it('from outside are answered as such', async () => {
    for (const part of PARTS)
      for (const path of [
        `/see/${part}`,
        `/embed/${part}`,
        `/feed/${part}.ics`,
        `/copy/${part}.ics`,
        `/copy/${part}`,
        `/feed/${token}.${part}`,
      ]) {
        const { status } = await send({ path });
        expect([path, status >= 400 && status < 500]).toEqual([path, true]);
      }
    for (const value of [...VALUES, ...PARTS])
      for (const name of ['tz', 'from', 'show', 'lang', 'theme', 'nothing']) {
        const { status } = await send({ path: `/see/${token}?${name}=${value}&from=${value}` });
        expect([name, value, status]).toEqual([name, value, 200]);
      }
    for (const extension of ['constructor', 'toString', '__proto__', 'hasOwnProperty', 'ics.', ''])
      expect((await send({ path: `/feed/${token}.${extension}` })).status).toBe(404);
    for (const header of [
      'if-none-match',
      'if-modified-since',
      'accept-encoding',
      'accept-language',
      'range',
      'cookie',
      'user-agent',
    ])
      for (const value of [
        '',
        '*',
        ',,,',
        '"',
        'W/',
        'a'.repeat(4000),
        'gzip;q=abc',
        '\u00ff\u00fe',
        'Thu, 99 Foo 2026',
        'bytes=5-1',
      ])
        expect(
          (await send({ path: `/feed/${token}.ics`, headers: { [header]: value } })).status,
        ).toBeLessThan(400);
  });

  it('with a token that is not in ASCII, or of another length, are refused as any wrong one', async () => {
    const { cookie } = client.headers();
    for (const sent of ['ü'.repeat(32), '\u00ff', 'short', 'x'.repeat(5000)]) {
      const told = await send({
        method: 'POST',
        path: '/api/calendars',
        headers: { cookie: cookie!, 'x-csrf-token': sent, 'content-type': 'application/json' },
        body: '{}',
      });
      expect([told.status, JSON.parse(told.text).code]).toEqual([403, 'csrf-missing']);
    }
  });

  it('never reach the store with what it cannot take', async () => {
    const input = (parts: object) =>
      client.call('POST', `/calendars/${calendarId}/entries`, entryInput(parts));
    const content = { ...EMPTY_CONTENT, title: 'x' };
    const override = {
      slot: { kind: 'date', date: day(2) },
      start: { kind: 'date', date: day(2) },
      end: { kind: 'date', date: day(3) },
    };
    const recurrence = { rule: 'FREQ=DAILY;COUNT=3', dates: [], exceptDates: [] };
    for (const parts of [
      { attachments: [[]] },
      { people: [[]] },
      { people: [['a']] },
      { properties: [null] },
      { labels: 'abc' },
      { recurrence: [] },
      { overrides: [[]] },
      { recurrence, overrides: [{ ...override, content: [] }] },
      { recurrence, overrides: [{ ...override, content: { ...content, attachments: [[]] } }] },
      { kept: [['x', [], 'text', 'y']] },
      { kept: [{}] },
      { kept: [['x\r\nATTENDEE', {}, 'text', 'y']] },
      { kept: [['x', {}, 'text']].map(() => 'x') },
      { title: 'a\u0000b' },
      { description: '\ud800' },
      { start: [] },
      { start: { kind: 'zoned', at: `${day(2)}T10:00:00`, zone: 'PST' } },
      {
        recurrence: {
          ...recurrence,
          exceptDates: [{ kind: 'zoned', at: `${day(2)}T10:00:00`, zone: 'PST' }],
        },
      },
      {
        start: { kind: 'zoned', at: '2026-12-01T10:00:00', zone: 'America/Halifax' },
        end: { kind: 'zoned', at: '9999-12-29T11:00:00', zone: 'America/Halifax' },
        recurrence: { ...recurrence, rule: 'FREQ=DAILY' },
      },
    ]) {
      const { status, body } = await input(parts);
      expect([JSON.stringify(parts).slice(0, 80), status]).toEqual([JSON.stringify(parts).slice(0, 80), 422]);
      expect(body.message).not.toContain('…');
    }
    // Zones are stored in their one spelling.
    const odd = await input({
      start: { kind: 'zoned', at: `${day(2)}T10:00:00`, zone: 'canada/atlantic' },
      end: { kind: 'zoned', at: `${day(2)}T11:00:00`, zone: 'AMERICA/HALIFAX' },
    });
    expect(odd.body.start.zone).toBe('America/Halifax');
    expect(odd.body.end.zone).toBe('America/Halifax');
  });
});

describe('sessions', () => {
  // Tries are counted by address: those of above are another server's.
  let server: Awaited<ReturnType<typeof testServer>>;
  beforeAll(async () => {
    server = await testServer(await freshDatabase());
  });
  afterAll(() => server?.close());

  const count = async () =>
    Number((await UserRow.sequelize!.query('SELECT count(*) AS n FROM session'))[0].map((r: any) => r.n)[0]);

  it('are not stored before signing in', async () => {
    const before = await count();
    const stranger = new TestClient(server.base);
    for (let i = 0; i < 5; i++) await stranger.call('GET', '/session');
    expect((await stranger.signIn('wrong')).status).toBe(401);
    expect(await count()).toBe(before);
    expect((await stranger.signIn()).status).toBe(200);
    expect(await count()).toBe(before + 1);
  });

  it('end at once with a changed password, with an account at rest, and after the longest time', async () => {
    const email = 'wick@ostrel.example';
    const user = await UserRow.create({
      name: 'Wick',
      email,
      role: 'member',
      passwordHash: await hashPassword(PASSWORD),
    });
    const signedIn = async () => {
      const own = new TestClient(server.base);
      expect((await own.signIn(PASSWORD, email)).status).toBe(200);
      expect((await own.call('GET', '/calendars')).status).toBe(200);
      return own;
    };
    const changed = await signedIn();
    await user.update({ passwordHash: await hashPassword(PASSWORD) });
    expect((await changed.call('GET', '/calendars')).body.code).toBe('not-signed-in');
    const resting = await signedIn();
    await user.update({ restedAt: new Date() });
    expect((await resting.call('GET', '/calendars')).body.code).toBe('not-signed-in');
    expect((await new TestClient(server.base).signIn(PASSWORD, email)).body.code).toBe('account-resting');
    await user.update({ restedAt: null });
    const old = await signedIn();
    await UserRow.sequelize!.query(
      `UPDATE session SET sess = jsonb_set(sess::jsonb, '{since}', to_jsonb((sess->>'since')::bigint - 31::bigint * 86400000))::json
       WHERE sess->>'userId' = '${user.id}'`,
    );
    expect((await old.call('GET', '/calendars')).body.code).toBe('not-signed-in');
  });

  it('keep so many open streams a person, and cut them off when they end', { timeout: 30_000 }, async () => {
    const own = new TestClient(server.base);
    await own.signIn();
    const open = async () =>
      fetch(`${server.base}/api/changes`, { headers: { cookie: own.headers().cookie! } });
    const streams = [];
    for (let i = 0; i < 12; i++) streams.push(await open());
    expect(streams.map((s) => s.status)).toEqual(Array(12).fill(200));
    const refused = await open();
    expect([refused.status, (await refused.json()).code]).toEqual([429, 'too-many-streams']);
    await own.call('DELETE', '/session');
    // Each ends by itself: a text that is read to its end, or a connection that is cut.
    await Promise.all(streams.map((s) => s.text().catch(() => 'cut')));
  });

  it('are limited by account, from wherever somebody tries', async () => {
    await UserRow.create({
      name: 'Jon',
      email: 'jon@ostrel.example',
      role: 'member',
      passwordHash: await hashPassword(PASSWORD),
    });
    const stranger = new TestClient(server.base);
    const codes = new Set<string>();
    for (let i = 0; i < 25; i++) codes.add((await stranger.signIn('wrong', 'jon@ostrel.example')).body.code);
    expect(codes).toContain('too-many-tries');
    expect(EMAIL).not.toBe('jon@ostrel.example');
  });
});

describe('the stream', () => {
  let server: Awaited<ReturnType<typeof testServer>>;
  beforeAll(async () => {
    server = await testServer(await freshDatabase());
  });
  afterAll(() => server?.close());

  it('cuts off a reader that never reads, and goes on for others', async () => {
    const own = new TestClient(server.base);
    await own.signIn();
    const socket = connect(server.port, '127.0.0.1');
    let closed = false;
    socket.on('close', () => (closed = true));
    socket.on('error', () => (closed = true));
    socket.write(`GET /api/changes HTTP/1.1\r\nHost: x\r\nCookie: ${own.headers().cookie}\r\n\r\n`);
    await new Promise((resolve) => socket.once('data', resolve));
    socket.pause();
    for (let i = 0; i < 5000 && !closed; i++) {
      server.tell({ calendarIds: [], windowIds: Array.from({ length: 2000 }, (_, n) => `window ${i} ${n}`) });
      await new Promise((resolve) => setTimeout(resolve, 2));
    }
    socket.resume();
    await new Promise((resolve) => (closed ? resolve(null) : socket.once('close', resolve)));
    expect(closed).toBe(true);
  });
});

describe('the configuration', () => {
  const env = { DATABASE_URL: 'postgres://x', SESSION_SECRET: 'a secret of the tests', OUTSIDE_FOLDER: '/' };

  it('refuses what would be unsafe, and says what to set', () => {
    expect(configFrom(env).port).toBe(4310);
    expect(() => configFrom({ ...env, PUBLIC_URL: 'https://window.example' })).toThrow('Set PROXIES');
    expect(configFrom({ ...env, PUBLIC_URL: 'https://window.example/', PROXIES: '1' }).publicUrl).toBe(
      'https://window.example',
    );
    for (const secret of ['secret', 'aaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaa', 'changemechangeme'])
      expect(() => configFrom({ ...env, SESSION_SECRET: secret })).toThrow('SESSION_SECRET is weak');
    expect(() => configFrom({ ...env, PORT: 'http' })).toThrow('PORT');
    expect(() => configFrom({ ...env, PUBLIC_URL: 'window.example' })).toThrow('PUBLIC_URL');
  });
});
