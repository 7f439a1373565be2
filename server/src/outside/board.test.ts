import { DEMANDS } from '@zonal/core/glass';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { type TestClient, type testServer, windowInput, quayServer } from '../testing';

let server: Awaited<ReturnType<typeof testServer>>;
let client: TestClient;
let calendarId: string;

beforeAll(async () => {
  ({ server, client, calendarId } = await quayServer());
});
afterAll(() => server.close());

const FILES = ['/board', '/board.opml', '/board.atom', '/sitemap.xml'];
const ask = (path: string, headers: Record<string, string> = {}) => fetch(server.base + path, { headers });
const told = () => Promise.all(FILES.map(async (path) => (await ask(path)).text()));
const robots = async (path: string) => (await ask(path)).headers.get('x-robots-tag');

async function open(name: string, listed: boolean, parts: object = {}) {
  const input = { ...windowInput(calendarId, 'tinted', { name, ...parts }), listed, confirmed: [...DEMANDS] };
  const { status, body } = await client.call('POST', '/windows', input);
  expect(status).toBe(201);
  return body;
}
const publish = (window: any, parts: object) =>
  client.call('PUT', `/windows/${window.id}`, {
    ...windowInput(calendarId, 'tinted', { name: window.wording.name }),
    ...{ version: window.version, confirmed: [...DEMANDS] },
    ...parts,
  });

describe('the notice board', () => {
  it('has listed windows, at an address with their name, and nothing of unlisted ones', async () => {
    await open('Secret meetings', false, { description: 'Whispers' });
    const listed = await open('Ferry times', true, { description: 'When it leaves' });
    expect(listed.listedSee).toBe('http://window.example/see/ferry-times');
    for (const text of await told()) {
      expect(text).toContain('http://window.example/see/ferry-times');
      expect(text).not.toMatch(/secret|whispers/i);
      for (const key of listed.keys) expect(text).not.toContain(key.token);
    }
    for (const path of [
      '/see/ferry-times',
      '/embed/ferry-times',
      '/feed/ferry-times.ics',
      '/see/ferry-times/follow',
    ]) {
      expect((await ask(path)).status, path).toBe(200);
      expect(await robots(path), path).toBeNull();
    }
    expect((await ask('/see/secret-meetings')).status).toBe(404);
    const page = await (await ask('/see/ferry-times')).text();
    expect(page).toContain('<link rel="canonical" href="http://window.example/see/ferry-times">');
    expect((await ask('/see/ferry-times')).headers.get('referrer-policy')).toBe('no-referrer');
  });

  it('search engines may list neither unlisted pages nor those of partners or of keys with a cap', async () => {
    const listed = await open('Pier works', true);
    const key = { madeOutTo: 'Agents', contact: '', notes: '', expiresAt: null, confirmed: [...DEMANDS] };
    const path = (token: string) => `/see/${token}`;
    for (const parts of [
      { audience: 'partners', cap: null },
      { audience: 'street', cap: 'frosted' },
    ])
      await client.call('POST', `/windows/${listed.id}/keys`, { ...key, ...parts });
    const { body } = await client.call('GET', `/windows/${listed.id}`);
    const [first, ...rest] = body.keys;
    expect(await robots(path(first.token))).toBeNull();
    expect(await (await ask(path(first.token))).text()).toContain(
      'href="http://window.example/see/pier-works"',
    );
    for (const { token } of rest) {
      expect(await robots(path(token))).toBe('noindex, nofollow');
      expect(await (await ask(path(token))).text()).not.toMatch(/og:|canonical/);
    }
  });

  it('lets go of a window at once when it is unlisted, closed, or taken up again', async () => {
    let window = await open('Tide walks', true);
    const on = async () => (await told()).map((text) => text.includes('/see/tide-walks'));
    expect(await on()).toEqual([true, true, true, true]);
    const refused = await publish(window, { listed: false, confirmed: [] });
    expect(refused.body).toMatchObject({ code: 'confirm-needed' });
    expect(refused.body.details.demands).toContain('public-address-ends');

    // Its readers see until when the public address works; nobody else finds it any more.
    window = (await publish(window, { listed: false })).body;
    expect(Date.parse(window.publicUntil) - Date.parse(window.unlistedAt)).toBe(14 * 86_400_000);
    expect(await on()).toEqual([false, false, false, false]);
    const kept = await ask('/see/tide-walks?lang=en');
    expect([kept.status, kept.headers.get('x-robots-tag')]).toEqual([200, 'noindex, nofollow']);
    expect(await kept.text()).toContain('This address of “Tide walks” ends on');
    expect(await (await ask('/feed/tide-walks.ics')).text()).toMatch(/UID:\S+-unlisted\r\n/);
    expect(await (await ask(`/feed/${window.keys[0].token}.ics`)).text()).not.toContain('-unlisted');

    const sooner = await publish(window, { listed: false, publicGraceDays: 0, confirmed: [] });
    expect(sooner.body).toMatchObject({
      code: 'confirm-needed',
      details: { demands: ['public-address-ends'] },
    });
    window = (await publish(window, { listed: false, publicGraceDays: 0 })).body;
    const [page, feed] = [await ask('/see/tide-walks?lang=en'), await ask('/feed/tide-walks.ics')];
    expect([page.status, feed.status]).toEqual([410, 410]);
    expect(await page.text()).toContain('This calendar is no longer public');
    expect(await feed.text()).toContain('Ask the publisher for an address of your own.');
    expect(await robots(`/see/${window.keys[0].token}`)).toBe('noindex, nofollow');
    window = (await publish(window, { listed: true })).body;
    expect(await on()).toEqual([true, true, true, true]);
    await client.call('POST', `/windows/${window.id}/close`);
    expect(await on()).toEqual([false, false, false, false]);
    expect((await ask('/see/tide-walks')).status).toBe(410);
  });

  it('names a window when it is first listed, by what only listed windows have', async () => {
    const first = await open('Night swims', false);
    const second = await open('Night swims', true);
    expect([first.slug, second.slug]).toEqual([null, 'night-swims']);
    const renamed = { name: 'Moon swims' };
    const later = await publish(first, { ...renamed, listed: true });
    expect(later.body.listedSee).toBe('http://window.example/see/moon-swims');
    // It keeps the name, and nobody else gets it, also once it is unlisted.
    const unlisted = await publish(later.body, { ...renamed, listed: false, publicGraceDays: 0 });
    expect(unlisted.body.slug).toBe('moon-swims');
    expect((await open('Moon swims', true)).slug).toBe('moon-swims-2');
    expect((await ask('/see/moon-swims')).status).toBe(410);
  });

  it('tells names and descriptions as they go out in every form', async () => {
    await open('Bell\u0007 buoys', true, { description: 'one\u2028two\u0001' });
    const [page, ...files] = await told();
    expect(page).toContain('>Bell buoys</a>');
    expect(page).toContain('one two');
    for (const text of [page!, ...files]) expect(text).not.toMatch(/[\u0001\u0007\u2028]/);
  });

  it('says first what listing means', async () => {
    const window = await open('Lamp rounds', false);
    const refused = await publish(window, { listed: true, confirmed: [] });
    expect([refused.status, refused.body.code]).toEqual([409, 'confirm-needed']);
    expect(refused.body.details.demands).toContain('first-listed');
  });

  it('is found, compressed, compared and cached as all else', async () => {
    const page = await ask('/board?find=ferry', { 'accept-language': 'de' });
    expect(await page.text()).toContain('Anschlagbrett');
    expect(page.headers.get('vary')).toBe('Accept-Encoding, Accept-Language');
    expect(await (await ask('/board?find=nothing')).text()).not.toContain('/see/');
    const etag = (await ask('/board.atom', { 'accept-encoding': 'gzip' })).headers.get('etag')!;
    expect((await ask('/board.atom', { 'if-none-match': etag })).status).toBe(304);
    expect((await fetch(`${server.base}/board`, { method: 'HEAD' })).status).toBe(200);
    expect(await (await ask('/robots.txt')).text()).toContain('Sitemap: http://window.example/sitemap.xml');
  });
});
