import { EMPTY_CONTENT } from '@zonal/core/entries';
import {
  EMPTY_SHELF,
  memoryOf,
  NO_MEMORY,
  remember,
  shelved,
  shownBy,
  syncRequest,
} from '@zonal/core/followers';
import { POLL_FORMS, unpackPolls } from '@zonal/core/reach';
import { createDAVClient, type DAVCalendar } from 'tsdav';
import { QueryTypes } from 'sequelize';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { WindowRow } from '../db/models';
import { eventually, quayServer, windowInput, type TestClient, type testServer } from '../testing';

let server: Awaited<ReturnType<typeof testServer>>;
let client: TestClient;
let calendarId: string;
let window: any;
let key: any;

const day = new Date(Date.now() + 86_400_000).toISOString().slice(0, 10);
const write = async (title: string, hour: number) => {
  const at = (h: number) => ({ kind: 'zoned', at: `${day}T${h}:00:00`, zone: 'America/Halifax' });
  const times = { start: at(hour), end: at(hour + 1), recurrence: null, overrides: [] };
  return (
    await client.call('POST', `/calendars/${calendarId}/entries`, { ...EMPTY_CONTENT, title, ...times })
  ).body;
};

beforeAll(async () => {
  ({ server, client, calendarId } = await quayServer());
  await write('Market', 10);
  await write('Film', 20);
  window = (await client.call('POST', '/windows', windowInput(calendarId, 'tinted'))).body;
  key = window.keys[0];
});
afterAll(() => server.close());

const NS = 'xmlns="DAV:" xmlns:C="urn:ietf:params:xml:ns:caldav"';
const LOOK = `<propfind ${NS}><prop><getetag/></prop></propfind>`;

function ask(method: string, path: string, headers: Record<string, string> = {}, body?: string) {
  return fetch(server.base + path, { method, headers, redirect: 'manual', ...(body ? { body } : {}) });
}
const at = (below = '', token = key.token) => `/dav/${token}/${below}`;
const another = async (madeOutTo: string) => {
  const input = { madeOutTo, audience: 'street', cap: null, contact: '', notes: '', expiresAt: null };
  const { body } = await client.call('POST', `/windows/${window.id}/keys`, input);
  return body.keys.find((k: any) => k.madeOutTo === madeOutTo);
};

describe('an independent client', () => {
  const clientFor = (serverUrl: string) =>
    createDAVClient({
      serverUrl,
      credentials: { username: key.token, password: 'anything' },
      authMethod: 'Basic',
      defaultAccountType: 'caldav',
    });
  const titlesIn = (objects: { data?: string }[]) =>
    objects.map(({ data }) => /SUMMARY:(.*)/.exec(data!)![1]!.trim()).sort();

  it('finds the calendar from the server’s name and a key, and reads it', async () => {
    const dav = await clientFor(server.base);
    const calendars = await dav.fetchCalendars();
    expect(calendars.map((c) => [new URL(c.url).pathname, c.displayName])).toEqual([[at(), 'Window']]);
    expect(calendars[0]!.components).toEqual(['VEVENT']);
    expect(calendars[0]!.reports).toContain('syncCollection');
    const objects = await dav.fetchCalendarObjects({ calendar: calendars[0]! });
    expect(titlesIn(objects)).toEqual(['Film', 'Market']);
    // Before both of them, on either side of a clock change.
    const timeRange = { start: `${day}T08:00:00Z`, end: `${day}T12:00:00Z` };
    expect(titlesIn(await dav.fetchCalendarObjects({ calendar: calendars[0]!, timeRange }))).toEqual([]);
    for (const { etag, url } of objects) expect((await fetch(url)).headers.get('etag')).toBe(etag);
  });

  it('learns of what came, changed and left, by the token and by tags', async () => {
    const dav = await clientFor(`${server.base}${at()}`);
    const fetchObjects = ({ collection }: { collection: DAVCalendar }) =>
      dav.fetchCalendarObjects({ calendar: collection });
    const held = async () => {
      const [calendar] = (await dav.fetchCalendars()) as [DAVCalendar];
      const objects = await dav.fetchCalendarObjects({ calendar });
      return { ...calendar, objects, objectMultiGet: dav.calendarMultiGet, fetchObjects } as any;
    };
    const synced = async (collection: DAVCalendar, method: 'basic' | 'webdav') => {
      const { objects } = (await dav.smartCollectionSync({
        collection,
        method,
        detailedResult: true,
      })) as unknown as { objects: Record<'created' | 'updated' | 'deleted', { data?: string }[]> };
      return [titlesIn(objects.created), titlesIn(objects.updated), objects.deleted.length];
    };
    const before = await held();
    const walk = await write('Walk', 14);
    expect(await dav.isCollectionDirty({ collection: before })).toMatchObject({ isDirty: true });
    for (const method of ['basic', 'webdav'] as const)
      expect(await synced(before, method)).toEqual([['Walk'], [], 0]);
    const after = await held();
    await client.call('DELETE', `/entries/${walk.id}?version=${walk.version}`);
    for (const method of ['basic', 'webdav'] as const)
      expect(await synced(after, method)).toEqual([[], [], 1]);
  });

  it('is refused where it writes, with an error that says why, and nothing changes', async () => {
    const dav = await clientFor(`${server.base}${at()}`);
    const [calendar] = (await dav.fetchCalendars()) as [DAVCalendar];
    const before = await (await ask('GET', new URL(key.feed).pathname)).text();
    const refused = await dav.createCalendarObject({
      calendar,
      filename: 'x.ics',
      iCalString: 'BEGIN:VCALENDAR',
    });
    expect(refused.status).toBe(403);
    expect(await refused.text()).toContain('<D:need-privileges>');
    for (const method of [
      'DELETE',
      'PROPPATCH',
      'MKCALENDAR',
      'MKCOL',
      'MOVE',
      'COPY',
      'LOCK',
      'POST',
      'ACL',
    ])
      expect((await ask(method, at('x.ics'))).status).toBe(403);
    expect(await (await ask('GET', new URL(key.feed).pathname)).text()).toBe(before);
  });
});

it('is offered by the feed, by its own answer, and to people as a page', async () => {
  const feed = await ask('HEAD', new URL(key.feed).pathname);
  expect(feed.headers.get('link')).toContain(`${key.dav}>; rel="subscribe-caldav"`);
  const offered = await ask('OPTIONS', at());
  expect([offered.status, offered.headers.get('dav')]).toEqual([200, '1, access-control, calendar-access']);
  expect(offered.headers.get('allow')).toBe('OPTIONS, GET, HEAD, PROPFIND, REPORT');
  const person = await ask('GET', at(), { accept: 'text/html' });
  expect([person.status, person.headers.get('location')]).toEqual([303, `${key.see}/follow`]);
  const page = await (await ask('GET', `${new URL(key.see).pathname}/follow`)).text();
  expect(page).toContain(key.dav);
  const whole = await ask('GET', at());
  expect(await whole.text()).toBe(await (await ask('GET', new URL(key.feed).pathname)).text());
});

it('is found from its well-known place by whoever has a key, and by nobody else', async () => {
  const known = await ask('PROPFIND', '/.well-known/caldav');
  expect([known.status, known.headers.get('location')]).toEqual([301, '/dav/']);
  const basic = (name: string, word: string) => ({
    authorization: `Basic ${Buffer.from(`${name}:${word}`).toString('base64')}`,
  });
  const body = `<propfind ${NS}><prop><current-user-principal/></prop></propfind>`;
  for (const given of [basic(key.token, ''), basic('somebody', key.token)]) {
    const found = await ask('PROPFIND', '/dav/', given, body);
    expect(found.status).toBe(207);
    const text = await found.text();
    expect(text).toContain(`<D:href>${at('account/')}</D:href>`);
    // What was asked is what answers.
    expect(/<D:response><D:href>([^<]+)</.exec(text)![1]).toBe('/dav/');
  }
  for (const given of [{}, basic('somebody', 'nothing'), { authorization: 'Bearer x' }]) {
    const asked = await ask('PROPFIND', '/dav/', given, body);
    expect([asked.status, asked.headers.get('www-authenticate')]).toEqual([
      401,
      expect.stringMatching(/^Basic /),
    ]);
  }
});

it('says of requests that cannot be what is wrong with them', async () => {
  const bomb = '<!DOCTYPE p [<!ENTITY a "a">]><propfind xmlns="DAV:"><allprop/></propfind>';
  expect((await ask('PROPFIND', at(), {}, bomb)).status).toBe(400);
  expect((await ask('PROPFIND', at(), {}, '<')).status).toBe(400);
  expect((await ask('PROPFIND', at(), {}, `<a>${'x'.repeat(600_000)}</a>`)).status).toBe(413);
  expect((await ask('REPORT', at(), {}, '<a/>')).status).toBe(403);
  for (const below of ['none.ics', 'a/b', '%E0%A4%A'])
    expect((await ask('PROPFIND', at(below), {}, LOOK)).status).toBe(404);
  for (const method of ['PROPFIND', 'REPORT', 'PUT', 'OPTIONS', 'GET'])
    expect((await ask(method, at('', 'nothing-of-that-name'))).status).toBe(404);
});

it('what is asked of it is counted: a look holds what was held, what is fetched is held from then on', async () => {
  const own = await another('Counted');
  const sync = (token: string) => ask('REPORT', at('', own.token), {}, syncRequest({ token }));
  const look = () => ask('PROPFIND', at('', own.token), { depth: '0' }, LOOK);
  await look();
  const first = await (await sync('')).text();
  const shelf = shelved(EMPTY_SHELF, first)!;
  const late = await write('Late', 16);
  await look();
  const second = shelved(shelf, await (await sync(shelf.token)).text())!;
  const whole = remember(
    'replace-all',
    NO_MEMORY,
    await (await ask('GET', new URL(own.feed).pathname)).text(),
  );
  expect(shownBy('replace-all', memoryOf(second))).toEqual(shownBy('replace-all', whole));
  await client.call('DELETE', `/entries/${late.id}?version=${late.version}`);
  const kept = () =>
    WindowRow.sequelize!.query<{ day: string; polls: Buffer }>(
      'SELECT p.polls FROM polls p JOIN subscribers s ON s.id = p.subscriber_id WHERE s.key_id = :id ORDER BY s.id, p.day',
      { replacements: { id: own.id }, type: QueryTypes.SELECT },
    );
  await eventually(async () => {
    const polls = (await kept()).flatMap(({ polls }) => unpackPolls(polls, 0));
    const dav = polls.filter((p) => p.form === 'dav').map((p) => [p.had, p.has]);
    const [n] = dav.at(1)!.slice(1) as [number];
    expect(dav).toEqual([
      [0, 0],
      [0, n],
      [n, n],
      [n, n + 1],
    ]);
  });
  expect(POLL_FORMS.indexOf('dav')).toBe(6);
});

it('a token of another view is none, and a key that was turned leads on, then ends', async () => {
  const own = await another('Turned');
  const token = shelved(
    EMPTY_SHELF,
    await (await ask('REPORT', at('', own.token), {}, syncRequest({ token: '' }))).text(),
  )!.token;
  const busy = await client.call('POST', `/windows/${window.id}/keys`, {
    ...{ madeOutTo: 'Busy', audience: 'street', cap: 'frosted', contact: '', notes: '', expiresAt: null },
  });
  const frosted = busy.body.keys.find((k: any) => k.madeOutTo === 'Busy');
  const refused = await ask('REPORT', at('', frosted.token), {}, syncRequest({ token }));
  expect([refused.status, await refused.text()]).toEqual([
    403,
    expect.stringContaining('<D:valid-sync-token>'),
  ]);
  await client.call('POST', `/keys/${own.id}/turn`, { graceDays: 7 });
  const moved = await (await ask('REPORT', at('', own.token), {}, syncRequest({ token }))).text();
  expect(moved).toContain('-moved.ics');
  expect(moved).not.toContain('404 Not Found');
  const { body } = await client.call('GET', `/windows/${window.id}`);
  const now = body.keys.find((k: any) => k.id === own.id);
  await client.call('POST', `/keys/${own.id}/withdraw`, { version: now.version });
  for (const method of ['PROPFIND', 'REPORT', 'OPTIONS', 'PUT', 'GET'])
    expect((await ask(method, at('', own.token))).status).toBe(410);
  expect((await ask('PROPFIND', '/dav/', { authorization: `Basic ${btoa(`${own.token}:`)}` })).status).toBe(
    410,
  );
});

it('who tries many keys there is slowed down', async () => {
  const authorization = `Basic ${btoa('somebody:nothing-of-that-name')}`;
  const tried: number[] = [];
  for (let i = 0; i < 125; i++) tried.push((await ask('PROPFIND', '/dav/', { authorization }, LOOK)).status);
  expect([tried[0], tried.at(-1)]).toEqual([401, 429]);
  // Whoever has one goes on.
  const own = { authorization: `Basic ${btoa(`${key.token}:`)}` };
  expect((await ask('PROPFIND', '/dav/', own, LOOK)).status).toBe(207);
});
