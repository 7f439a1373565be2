import { EMPTY_CONTENT } from '@zonal/core/entries';
import { DEMANDS } from '@zonal/core/glass';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { type TestClient, freshDatabase, testServer, windowInput, quayServer } from '../testing';

let databaseUrl: string;
let server: Awaited<ReturnType<typeof testServer>>;
let client: TestClient;
let calendarId: string;
let key: { id: string; version: number; see: string; embed: string; feed: string };

const tomorrow = new Date(Date.now() + 86_400_000).toISOString().slice(0, 10);
const at = (hour: number) => ({ kind: 'zoned', at: `${tomorrow}T${hour}:00:00`, zone: 'America/Halifax' });

async function openWindow(parts: object) {
  const { body } = await client.call('POST', '/windows', windowInput(calendarId, 'tinted', parts));
  return body.keys[0] as typeof key;
}

beforeAll(async () => {
  databaseUrl = await freshDatabase();
  ({ server, client, calendarId } = await quayServer(databaseUrl));
  const rule = { rule: 'FREQ=DAILY;COUNT=3', dates: [], exceptDates: [] };
  const entry = { ...EMPTY_CONTENT, start: at(10), end: at(12), overrides: [] };
  for (const [title, recurrence] of [
    ['Market', rule],
    ['Parade', null],
  ])
    await client.call('POST', `/calendars/${calendarId}/entries`, { ...entry, title, recurrence });
  key = await openWindow({ name: 'On the quay' });
});
afterAll(() => server.close());

function ask(address: string, headers: Record<string, string> = {}) {
  const { pathname, search } = new URL(address);
  return fetch(`${server.base}${pathname}${search}`, { headers });
}

/** Returns what a program that unfolds and reads lines finds in a feed: the address of each entry, by title. */
async function linksIn(feed: string): Promise<Record<string, string>> {
  const text = (await (await ask(feed)).text()).replace(/\r\n[ \t]/g, '');
  const events = text.split('BEGIN:VEVENT').slice(1);
  const value = (event: string, name: string) => new RegExp(`^${name}:(.*)\r$`, 'm').exec(event)?.[1] ?? '';
  return Object.fromEntries(events.map((e) => [value(e, 'SUMMARY'), value(e, 'URL')]));
}

describe('an entry', () => {
  it('leads from each key’s feed to its page below that key’s address, and from there to a file of it', async () => {
    const links = await linksIn(key.feed);
    expect(links['Parade']).toMatch(new RegExp(`^${key.see.replaceAll('.', '\\.')}/[0-9a-f-]{36}$`));
    const page = await ask(links['Parade']!);
    expect(page.status).toBe(200);
    expect(page.headers.get('vary')).toBe('Accept-Encoding, Accept-Language');
    const text = await page.text();
    expect(text).toContain('Parade');
    expect(text).not.toContain('Market');
    const [, file] = /href="(\/copy\/[^"]+)" download>Add just this one/.exec(text)!;
    const ics = await ask(`${server.base}${file}`);
    expect(ics.headers.get('content-disposition')).toBe('attachment; filename="parade.ics"');
    expect(await ics.text()).toContain('SUMMARY:Parade');
    const jCal = await (await ask(key.feed.replace('.ics', '.json'))).json();
    expect(JSON.stringify(jCal)).toContain(JSON.stringify(['url', {}, 'uri', links['Parade']]));
  });

  it('is told by each key with its own address alone, also where the feeds share all else', async () => {
    const { body } = await client.call('GET', '/windows');
    const own = body.find((w: { keys: { see: string }[] }) => w.keys[0]?.see === key.see);
    const { body: made } = await client.call('POST', `/windows/${own.id}/keys`, {
      madeOutTo: 'Town site',
      audience: 'street',
      cap: null,
      contact: '',
      notes: '',
      expiresAt: null,
      confirmed: [...DEMANDS],
    });
    const second = made.keys.find((k: { see: string }) => k.see !== key.see);
    const links = await linksIn(second.feed);
    expect(links['Parade']).toContain(`${second.see}/`);
    expect(Object.values(await linksIn(key.feed)).every((l) => l.startsWith(`${key.see}/`))).toBe(true);
    const text = await (await ask(second.feed)).text();
    expect(text).not.toContain(new URL(key.see).pathname.split('/').at(-1));
  });

  it('that is not there is a page that says so, and a file that is none', async () => {
    const gone = '00000000-0000-8000-8000-000000000000';
    const page = await ask(`${key.see}/${gone}`, { 'accept-language': 'de' });
    expect(page.status).toBe(404);
    expect(await page.text()).toContain('Das wird hier nicht gezeigt');
    const file = await ask(`${key.see.replace('/see/', '/copy/')}/${gone}.ics`);
    expect([file.status, file.headers.get('content-type')]).toEqual([404, 'text/plain; charset=utf-8']);
  });
});

it('the pages below an address are there for page and embed, with the code of the way to follow', async () => {
  for (const below of ['/follow', '/settings', '?find=market', '?show=week']) {
    for (const address of [key.see, key.embed]) {
      const { status, headers } = await ask(`${address}${below}`);
      expect([below, status, headers.get('x-robots-tag')]).toEqual([below, 200, 'noindex, nofollow']);
    }
  }
  const code = await ask(`${key.see}/follow.svg`);
  expect([code.status, code.headers.get('content-type')]).toEqual([200, 'image/svg+xml; charset=utf-8']);
  expect(await code.text()).toContain('<svg');
});

it('comes in Brotli for those that like it best, first and again', async () => {
  for (const address of [key.see, key.feed]) {
    for (let i = 0; i < 2; i++) {
      const answer = await ask(address, { 'accept-encoding': 'br' });
      expect(answer.headers.get('content-encoding')).toBe('br');
      expect(await answer.text()).toContain('Parade');
    }
  }
});

it.each([
  ['fr-CA', 'fr-CA', 'Il n’y a pas de fenêtre ici'],
  ['de', 'de', 'Hier ist kein Fenster'],
  ['nl, es;q=0.5', 'es', 'Aquí no hay ninguna ventana'],
  ['nl', 'en-GB', 'There is no window here'],
])('an address that leads nowhere says so to readers of %s', async (accepted, lang, title) => {
  const page = await ask(`${server.base}/see/nobody`, { 'accept-language': accepted });
  expect([page.status, page.headers.get('vary')]).toEqual([404, 'Accept-Language']);
  const text = await page.text();
  expect(text).toContain(`<html lang="${lang}">`);
  expect(text).toContain(`<h1>${title}</h1>`);
  const feed = await ask(`${server.base}/feed/nobody.ics`, { 'accept-language': accepted });
  expect(await feed.text()).toContain(title);
});

it('addresses that lead nowhere answer alike, however near they are to one that leads somewhere', async () => {
  const token = new URL(key.see).pathname.split('/').at(-1)!;
  const last = token.at(-1) === 'a' ? 'b' : 'a';
  const tokens = [
    'nobody',
    token.slice(0, -1),
    `${token}a`,
    token.slice(0, -1) + last,
    token.toUpperCase(),
    '%E0%A4%A',
    'a%00b',
    'x'.repeat(3000),
  ];
  const told = async (path: string) => {
    const { pathname } = new URL(path, server.base);
    const answer = await fetch(server.base + pathname);
    const headers = [...answer.headers].filter(([name]) => !/^(date|ratelimit.*)$/.test(name));
    return JSON.stringify([answer.status, headers, await answer.text()]);
  };
  for (const pathOf of [
    (t: string) => `/see/${t}`,
    (t: string) => `/embed/${t}`,
    (t: string) => `/see/${t}/follow`,
    (t: string) => `/feed/${t}.ics`,
    (t: string) => `/copy/${t}.ics`,
    (t: string) => `/copy/${t}/00000000-0000-8000-8000-000000000000.ics`,
  ]) {
    const answers = await Promise.all(tokens.map((t) => told(pathOf(t))));
    expect(JSON.parse(answers[0]!)[0]).toBe(404);
    expect(new Set(answers).size, pathOf('…')).toBe(1);
  }
  // Nor do endings and places tell anything that there are none of.
  expect(await told(`/feed/${token}.xyz`)).toBe(await told('/feed/nobody.ics'));
  expect(await told(`/see/${token}/a/b`)).toBe(await told('/see/nobody/a/b'));
});

it('nothing below an address outlives it', async () => {
  const ended = await openWindow({ name: 'Short' });
  const links = await linksIn(ended.feed);
  const withdrawn = await client.call('POST', `/keys/${ended.id}/withdraw`, {
    version: ended.version,
    confirmed: [...DEMANDS],
  });
  expect(withdrawn.status).toBe(200);
  const uid = links['Parade']!.split('/').at(-1);
  for (const below of ['', '/follow', '/settings', '/follow.svg', `/${uid}`])
    expect((await ask(`${ended.see}${below}`)).status, below).toBe(410);
  expect((await ask(`${ended.see.replace('/see/', '/copy/')}/${uid}.ics`)).status).toBe(410);
});

describe('the embed of a key', () => {
  const keep = (of: typeof key, body: object) => client.call('PUT', `/keys/${of.id}/embed`, body);
  const policy = async (address: string) =>
    /frame-ancestors ([^;]*)/.exec((await ask(address)).headers.get('content-security-policy')!)![1];

  it('looks as is held with the key, unless its address says otherwise; the page does not', async () => {
    const own = await openWindow({ name: 'Held' });
    const look = { show: 'week', lang: 'fr', parts: 'title,turn', theme: 'dark' };
    const { status, body } = await keep(own, { look, hosts: [], version: own.version });
    expect(status).toBe(200);
    expect(body.keys[0]).toMatchObject({ look, hosts: [], version: own.version + 1 });
    const embed = await (await ask(own.embed)).text();
    expect(embed).toContain('data-theme="dark"');
    expect(embed).toContain('class="week"');
    expect(embed).toContain('Semaine du');
    expect(embed).not.toContain('<footer');
    expect(await (await ask(`${own.embed}?show=list&lang=de`)).text()).toMatch(
      /class="list"[^]*Später|Später[^]*class="list"/,
    );
    expect(await (await ask(own.see)).text()).toContain('data-theme="auto"');
    const late = await keep(own, { look: {}, hosts: [], version: own.version });
    expect([late.status, late.body.code]).toEqual([409, 'version-conflict']);
  });

  it('stands in all sites, or in those alone that are named, from the moment that it is answered', async () => {
    const own = await openWindow({ name: 'Framed' });
    expect(await policy(own.embed)).toBe('*');
    const hosts = ['town.example', 'https://*.parish.example/news'];
    const { body } = await keep(own, { look: {}, hosts, version: own.version });
    expect(body.keys[0].hosts).toEqual(['https://town.example', 'https://*.parish.example']);
    expect(await policy(own.embed)).toBe("https://town.example https://*.parish.example 'self'");
    expect(await policy(`${own.embed}/follow`)).toContain('https://town.example');
  });

  it.each([
    [{ look: { show: 'year' }, hosts: [] }, 'look-invalid'],
    [{ look: {}, hosts: ['x.example; script-src *'] }, 'host-invalid'],
    [{ look: [], hosts: [] }, 'input-invalid'],
    [{ look: {}, hosts: Array(21).fill('a.example') }, 'input-invalid'],
  ])('is not kept as %j', async (parts, code) => {
    const { status, body } = await keep(key, { ...parts, version: 1 });
    expect([status, body.code]).toEqual([422, code]);
  });

  it('stands nowhere else after a start either, while what it shows is not worked out yet', async () => {
    const own = await openWindow({ name: 'Started' });
    await keep(own, { look: {}, hosts: ['town.example'], version: own.version });
    await server.close();
    server = await testServer(databaseUrl);
    expect(await policy(own.embed)).toContain('https://town.example');
  });
});
