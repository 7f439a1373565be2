import { EMPTY_CONTENT } from '@zonal/core/entries';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { mkdtempSync, mkdirSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import {
  EMAIL,
  PASSWORD,
  TestClient,
  eventually,
  freshDatabase,
  quayServer,
  startingProcess,
  windowInput,
} from './testing';

let folder: string;
let quay: Awaited<ReturnType<typeof quayServer>>;
let token: string;

beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), 'zonal-web-'));
  mkdirSync(join(folder, 'assets'));
  writeFileSync(join(folder, 'index.html'), '<!doctype html><meta name="csp-nonce" content="__NONCE__">');
  writeFileSync(join(folder, 'assets', 'main.js'), '');
  writeFileSync(join(folder, 'mark.svg'), '<svg xmlns="http://www.w3.org/2000/svg"/>');
  quay = await quayServer(undefined, { webFolder: folder });
  const day = new Date(Date.now() + 86_400_000).toISOString().slice(0, 10);
  const at = (hour: number) => ({ kind: 'zoned', at: `${day}T${hour}:00:00`, zone: 'America/Halifax' });
  const entry = {
    ...EMPTY_CONTENT,
    title: 'Market',
    start: at(10),
    end: at(11),
    recurrence: null,
    overrides: [],
  };
  await quay.client.call('POST', `/calendars/${quay.calendarId}/entries`, entry);
  const input = windowInput(quay.calendarId, 'tinted', { name: 'Market days', listed: true });
  token = (await quay.client.call('POST', '/windows', input)).body.keys[0].token;
});
afterAll(async () => {
  await quay.server.close();
  rmSync(folder, { recursive: true, force: true });
});

/** Every kind of path that the server answers, well or not. */
const PATHS = () => [
  '/',
  '/windows',
  '/index.html',
  '/%69ndex.html',
  '//index.html',
  '/assets/../index.html',
  '/assets/%2e%2e/index.html',
  '/index.html/',
  '/assets/main.js',
  '/mark.svg',
  '/nothing.js',
  '/api/session',
  '/api/openapi.json',
  '/api/nothing',
  '/livez',
  '/healthz',
  '/outside/outside.css',
  '/outside/nothing.css',
  '/board',
  '/board.opml',
  '/board.atom',
  '/sitemap.xml',
  '/robots.txt',
  '/see/nothing',
  '/see/%',
  '/links/nothing',
  '/links/%',
  '/notices/confirm/nothing',
  '/notices/confirm/%',
  '/notices/stop/%',
  '/oembed?url=nothing',
  `/oembed?url=${encodeURIComponent(`http://window.example/see/${token}`)}`,
  ...['see', 'embed'].flatMap((form) =>
    ['', '/follow', '/settings', '/nothing'].map((p) => `/${form}/${token}${p}`),
  ),
  ...['ics', 'ifb', 'json', 'csv', 'atom', 'nothing'].map((ending) => `/feed/${token}.${ending}`),
  `/copy/${token}.ics`,
  `/dav/${token}/`,
];

describe('every answer', () => {
  it('carries a content policy, and stands in no frame unless it is an embed', async () => {
    for (const path of PATHS()) {
      // Asked twice: the second answer of a feed comes from memory.
      for (let i = 0; i < 2; i++) {
        const { headers, status } = await fetch(quay.server.base + path, { redirect: 'manual' });
        const policy = headers.get('content-security-policy') ?? '';
        expect(policy, path).toContain('default-src');
        expect(headers.get('x-content-type-options'), path).toBe('nosniff');
        expect(status, path).toBeLessThan(500);
        const ancestors = /frame-ancestors ([^;]*)/.exec(policy)?.[1];
        if (!path.startsWith('/embed/')) expect(["'none'", "'self'"], path).toContain(ancestors);
      }
    }
  });

  it('that is the application’s page has a nonce of its own and is kept by no cache for long', async () => {
    for (const path of ['/', '/index.html', '/%69ndex.html', '/windows']) {
      const answer = await fetch(quay.server.base + path);
      if (answer.status !== 200) continue;
      expect(await answer.text(), path).not.toContain('__NONCE__');
      expect(answer.headers.get('cache-control'), path).toBe('no-cache');
    }
  });
});

it('lets the application’s workers load what they need', async () => {
  const { headers } = await fetch(`${quay.server.base}/assets/main.js`);
  expect(headers.get('content-security-policy')).toContain("default-src 'self'");
});

describe('input at fault', () => {
  it('is refused with a code, and never blamed on the server', async () => {
    const propfind = (start: string) =>
      `<?xml version="1.0"?><C:calendar-query xmlns:D="DAV:" xmlns:C="urn:ietf:params:xml:ns:caldav"><D:prop/>
       <C:filter><C:comp-filter name="VCALENDAR"><C:comp-filter name="VEVENT"><C:time-range start="${start}"/>
       </C:comp-filter></C:comp-filter></C:filter></C:calendar-query>`;
    const report = async (start: string) => {
      const headers = { depth: '1', 'content-type': 'application/xml' };
      const path = `${quay.server.base}/dav/${token}/`;
      return (await fetch(path, { method: 'REPORT', headers, body: propfind(start) })).status;
    };
    expect(await report('20260101T000000Z')).toBe(207);
    expect(await report('20161231T235960Z')).toBe(207);
    for (const odd of ['20260231T000000Z', '20261301T000000Z', '20260101T250000Z', '2026'])
      expect(await report(odd), odd).toBe(403);

    const { body } = await quay.client.call('GET', '/windows');
    for (const at of [
      '2027-W10',
      '2027-W10-3',
      '2027-070',
      '2027-03-14',
      '2027-02-31T00:00:00Z',
      '99999-01-01T00:00:00Z',
    ]) {
      const answer = await quay.client.call('PUT', `/windows/${body[0].id}/closing`, {
        at,
        farewell: false,
        was: null,
      });
      expect([answer.status, answer.body.code], at).toEqual([422, 'input-invalid']);
    }
    const long = new URLSearchParams({ mail: 'x'.repeat(30_000) });
    expect((await fetch(`${quay.server.base}/notices`, { method: 'POST', body: long })).status).toBe(422);
  });
});

describe('the log', () => {
  it('holds no cookie, token, key or value of a statement, not even at its most detailed', async () => {
    const database = await freshDatabase();
    const server = await startingProcess(database, { LOG_LEVEL: 'debug' }, 'pipe');
    let output = '';
    for (const stream of [server.child.stdout!, server.child.stderr!])
      stream.on('data', (part: Buffer) => (output += part.toString()));
    await server.ready;
    const first = /#(\S+)/.exec(output)![1]!;
    const client = new TestClient(server.base);
    await client.call('GET', '/session');
    const steward = {
      name: 'Ida',
      email: EMAIL,
      password: PASSWORD,
      house: 'Trust',
      zone: 'UTC',
      country: '',
    };
    const made = await client.call('POST', '/passes/first', { ...steward, token: first });
    expect(made.status, JSON.stringify(made.body)).toBe(200);
    const calendar = { name: 'Quay', description: '', zone: 'UTC', plate: 'QU', colour: 'teal' };
    const { body: quayCalendar } = await client.call('POST', '/calendars', calendar);
    const { body: window } = await client.call('POST', '/windows', windowInput(quayCalendar.id, 'tinted'));
    const key = window.keys[0].token;
    const secret = 'authorization-of-somebody';
    for (const path of [`/see/${key}`, `/feed/${key}.ics`, `/embed/${key}/follow`, `/dav/${key}/`])
      await fetch(server.base + path, { headers: { authorization: `Bearer ${secret}` } });
    // A statement that the database refuses.
    const value = 'value-of-a-statement';
    await client.call('PUT', '/account', { name: `${value}\u0000` });
    await eventually(() => Promise.resolve(expect(output).toContain('/embed/…/follow')));
    const { cookie, 'x-csrf-token': csrf } = client.headers() as Record<string, string>;
    await server.stop();
    const told = output.replace(/There is no account yet[\s\S]*?#\S+/, '');
    for (const hidden of [cookie!.split('=')[1]!, csrf!, key, secret, value, PASSWORD, first])
      expect(told.includes(hidden), hidden).toBe(false);
  });
});
