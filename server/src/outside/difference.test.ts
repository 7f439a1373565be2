import { EMPTY_CONTENT } from '@zonal/core/entries';
import { NO_MEMORY, remember, rememberDifference, shownBy } from '@zonal/core/followers';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { KeyUseRow } from '../db/models';
import { eventually, quayServer, windowInput, type TestClient, type testServer } from '../testing';
import { revisionOfToken, syncToken } from './syncToken';

let server: Awaited<ReturnType<typeof testServer>>;
let client: TestClient;
let calendarId: string;
let window: any;

const draft = (title: string, hour: number) => {
  const day = new Date(Date.now() + 86_400_000).toISOString().slice(0, 10);
  const at = (h: number) => ({ kind: 'zoned', at: `${day}T${h}:00:00`, zone: 'America/Halifax' });
  return { ...EMPTY_CONTENT, title, start: at(hour), end: at(hour + 1), recurrence: null, overrides: [] };
};
const write = async (title: string, hour: number) =>
  (await client.call('POST', `/calendars/${calendarId}/entries`, draft(title, hour))).body;

beforeAll(async () => {
  ({ server, client, calendarId } = await quayServer());
  await write('Market', 10);
  window = (await client.call('POST', '/windows', windowInput(calendarId, 'tinted'))).body;
});
afterAll(() => server.close());

const ENHANCED = { prefer: 'subscribe-enhanced-get' };

async function ask(headers: Record<string, string> = {}, feed: string = window.keys[0].feed) {
  const response = await fetch(server.base + new URL(feed).pathname, { headers });
  const { status } = response;
  return {
    status,
    headers: response.headers,
    token: response.headers.get('sync-token') ?? '',
    text: await response.text(),
  };
}

it('a token is that of its view alone', () => {
  const held = { number: 7, fingerprint: 'c0ffee' };
  const token = syncToken('one', held);
  expect(['one', 'two'].map((view) => revisionOfToken(token, view))).toEqual([held, null]);
  expect(revisionOfToken(token.replaceAll('"', ''), 'one')).toEqual(held);
  expect(['', '"data:,7"', '7', 'data:,7-x'].map((t) => revisionOfToken(t, 'one'))).toEqual([
    null,
    null,
    null,
    null,
  ]);
});

it('answers what may be done at an address alike, whether or not there is anything', async () => {
  const question = (path: string) =>
    fetch(server.base + path, {
      method: 'OPTIONS',
      headers: { origin: 'https://far.example', 'access-control-request-headers': 'if-none-match' },
    });
  const { pathname } = new URL(window.keys[0].feed);
  for (const [path, shared] of [
    [pathname, null],
    [pathname.replace('.ics', '.json'), '*'],
    ['/feed/nobody-has-this-key.json', '*'],
    [new URL(window.keys[0].see).pathname, null],
    ['/see/nobody-has-this-key', null],
  ] as const) {
    const { status, headers } = await question(path);
    expect([status, headers.get('allow')]).toEqual([204, 'GET, HEAD, OPTIONS']);
    expect(headers.get('access-control-allow-origin'), path).toBe(shared);
    expect(headers.get('access-control-allow-headers')).toBe(shared && 'If-None-Match, If-Modified-Since');
  }
});

describe('a program that asks only for what has changed', () => {
  it('is offered to, gets everything first, and then what came, changed and left', async () => {
    const plain = await ask();
    expect(plain.headers.get('link')).toMatch(/^<http.*\.ics>; rel="subscribe-enhanced-get"/);
    expect(plain.headers.get('vary')).toBe('Accept-Encoding, Prefer, Sync-Token');
    expect([plain.token, plain.headers.get('preference-applied')]).toEqual(['', null]);
    const first = await ask(ENHANCED);
    expect([first.status, first.text]).toEqual([200, plain.text]);
    expect(first.headers.get('preference-applied')).toBe('subscribe-enhanced-get');
    let memory = remember('replace-all', NO_MEMORY, first.text);

    const same = await ask({ ...ENHANCED, 'sync-token': first.token });
    expect([same.status, same.token, same.text]).toEqual([304, first.token, '']);
    expect(same.headers.get('etag')).toBe(first.headers.get('etag'));
    expect(same.headers.get('vary')).toBe(plain.headers.get('vary'));

    const film = await write('Film', 20);
    await write('Walk', 14);
    const second = await ask({ ...ENHANCED, 'sync-token': first.token });
    expect(second.text.match(/SUMMARY:.*/g)!.sort()).toEqual(['SUMMARY:Film', 'SUMMARY:Walk']);
    memory = rememberDifference(memory, second.text);

    await client.call('DELETE', `/entries/${film.id}?version=${film.version}`);
    const third = await ask({ ...ENHANCED, 'sync-token': second.token });
    expect(third.text).toMatch(/STATUS:DELETED/);
    expect(third.text).not.toMatch(/SUMMARY|CANCELLED/);
    memory = rememberDifference(memory, third.text);
    const whole = remember('replace-all', NO_MEMORY, (await ask()).text);
    expect(shownBy('replace-all', memory)).toEqual(shownBy('replace-all', whole));
    expect(shownBy('replace-all', memory)).toHaveLength(2);
    // Each of them is a poll.
    const counted = async () => Number((await KeyUseRow.findByPk(window.keys[0].id))?.count);
    await eventually(async () => expect(await counted()).toBe(6));
  });

  it('is told by a token that is none, or of another view, to ask for everything again', async () => {
    const input = {
      madeOutTo: 'Busy',
      audience: 'street',
      cap: 'frosted',
      contact: '',
      notes: '',
      expiresAt: null,
    };
    const { body } = await client.call('POST', `/windows/${window.id}/keys`, input);
    const other = (await ask(ENHANCED, body.keys.at(-1).feed)).token;
    for (const token of ['"data:,1-aaaaaaaaaaaa"', 'nonsense', other]) {
      const refused = await ask({ ...ENHANCED, 'sync-token': token });
      expect([refused.status, refused.token]).toEqual([409, '']);
      expect(refused.headers.get('content-type')).toMatch('application/xml');
      expect(refused.text).toContain('<error xmlns="DAV:"><valid-sync-token/></error>');
    }
  });

  it('learns at once that its address is no more, and that it goes on elsewhere', async () => {
    const input = {
      madeOutTo: 'Turned',
      audience: 'street',
      cap: null,
      contact: '',
      notes: '',
      expiresAt: null,
    };
    const { body } = await client.call('POST', `/windows/${window.id}/keys`, input);
    const key = body.keys.at(-1);
    const { token } = await ask(ENHANCED, key.feed);
    const turned = await client.call('POST', `/keys/${key.id}/turn`, { graceDays: 7 });
    expect(turned.status).toBe(200);
    const moved = await ask({ ...ENHANCED, 'sync-token': token }, key.feed);
    expect(moved.status).toBe(200);
    expect(moved.text).toContain('-moved');
    const now = turned.body.keys.find((k: any) => k.id === key.id);
    await client.call('POST', `/keys/${key.id}/withdraw`, { version: now.version });
    expect((await ask({ ...ENHANCED, 'sync-token': token }, key.feed)).status).toBe(410);
  });

  it('asks in vain where it asks for something else, or somewhere else', async () => {
    const plain = await ask({ prefer: 'return=minimal' });
    expect([plain.status, plain.token]).toEqual([200, '']);
    const table = await ask(ENHANCED, window.keys[0].table);
    expect([table.status, table.token]).toEqual([200, '']);
    expect((await ask(ENHANCED, 'http://w.example/feed/nothing-of-that-name.ics')).status).toBe(404);
  });
});
