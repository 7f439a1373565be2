import { EMPTY_CONTENT } from '@zonal/core/entries';
import { gunzipSync } from 'node:zlib';
import { request } from 'node:http';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { TestClient, eventually, freshDatabase, testServer, windowInput as anyWindow } from './testing';

let server: Awaited<ReturnType<typeof testServer>>;
let second: Awaited<ReturnType<typeof testServer>>;
let client: TestClient;

beforeAll(async () => {
  const database = await freshDatabase();
  server = await testServer(database);
  second = await testServer(database);
  client = new TestClient(server.base);
  expect((await client.signIn()).body).toMatchObject({ user: { name: 'Ida' } });
});

afterAll(async () => {
  await server?.close();
  await second?.close();
});

let serial = 0;

async function calendar(): Promise<any> {
  const name = `Calendar ${++serial}`;
  const input = { name, description: '', zone: 'America/Halifax', plate: 'CA', colour: 'teal' };
  const { status, body } = await client.call('POST', '/calendars', input);
  expect(status).toBe(201);
  return body;
}

/** A day in the coming week, so that it is within every horizon. */
const DAY = new Date(Date.now() + 5 * 86_400_000).toISOString().slice(0, 10);

const entryInput = (parts: object = {}) => ({
  ...EMPTY_CONTENT,
  title: 'Lock inspection',
  description: 'Bring the long ladder',
  start: { kind: 'zoned', at: `${DAY}T09:00:00`, zone: 'America/Halifax' },
  end: { kind: 'zoned', at: `${DAY}T10:00:00`, zone: 'America/Halifax' },
  recurrence: null,
  overrides: [],
  ...parts,
});

const windowInput = (calendarId: string, glass: string, parts: object = {}) =>
  anyWindow(calendarId, glass, { name: `Window ${++serial}`, ...parts });

async function opened(
  glass: string,
): Promise<{ cal: any; entry: any; window: any; feed: string; see: string }> {
  const cal = await calendar();
  const entry = (await client.call('POST', `/calendars/${cal.id}/entries`, entryInput())).body;
  const { status, body: window } = await client.call('POST', '/windows', windowInput(cal.id, glass));
  expect(status).toBe(201);
  const { token } = window.keys[0];
  return { cal, entry, window, feed: `/feed/${token}.ics`, see: `/see/${token}` };
}

const get = (path: string, headers: Record<string, string> = {}, base = server.base) =>
  fetch(base + path, { headers });
const textOf = async (path: string, base = server.base) => (await get(path, {}, base)).text();

describe('signing in', () => {
  it('refuses a wrong password, and everything without a session or without the token', async () => {
    const stranger = new TestClient(server.base);
    expect((await stranger.signIn('wrong')).body.code).toBe('sign-in-failed');
    expect((await stranger.call('GET', '/calendars')).body.code).toBe('not-signed-in');
    const forged = new TestClient(server.base);
    await forged.signIn();
    forged.withoutToken();
    expect((await forged.call('POST', '/calendars', {})).body.code).toBe('csrf-missing');
  });

  it('ends with the session', async () => {
    const other = new TestClient(server.base);
    await other.signIn();
    expect((await other.call('GET', '/calendars')).status).toBe(200);
    expect((await other.call('DELETE', '/session')).status).toBe(204);
    expect((await other.call('GET', '/calendars')).body.code).toBe('not-signed-in');
  });
});

describe('calendars and entries', () => {
  it('names every field that is not accepted', async () => {
    const { status, body } = await client.call('POST', '/calendars', {
      name: '',
      zone: 'Moon/Base',
      extra: 1,
    });
    expect(status).toBe(422);
    expect(body.code).toBe('input-invalid');
    for (const field of ['name', 'zone', 'plate', 'extra']) expect(body.message).toContain(field);
  });

  it('refuses times and rules that cannot be, each with its code', async () => {
    const cal = await calendar();
    const post = async (parts: object) =>
      (await client.call('POST', `/calendars/${cal.id}/entries`, entryInput(parts))).body.code;
    expect(await post({ end: { kind: 'zoned', at: `${DAY}T08:00:00`, zone: 'America/Halifax' } })).toBe(
      'end-before-start',
    );
    expect(await post({ end: { kind: 'date', date: DAY } })).toBe('start-end-differ');
    expect(await post({ start: { kind: 'date', date: '2026-02-30' } })).toBe('input-invalid');
    expect(await post({ recurrence: { rule: 'FREQ=NEVER', dates: [], exceptDates: [] } })).toBe(
      'rule-invalid',
    );
    expect(await post({ recurrence: { rule: 'FREQ=SECONDLY', dates: [], exceptDates: [] } })).toBe(
      'rule-invalid',
    );
  });

  it('detects two changes of one entry and gives back both versions', async () => {
    const cal = await calendar();
    const { body: entry } = await client.call('POST', `/calendars/${cal.id}/entries`, entryInput());
    const first = await client.call(
      'PUT',
      `/entries/${entry.id}`,
      entryInput({ title: 'First', version: 1 }),
    );
    expect(first.body).toMatchObject({ title: 'First', version: 2 });
    const late = await client.call(
      'PUT',
      `/entries/${entry.id}`,
      entryInput({ title: 'Second', version: 1 }),
    );
    expect(late.status).toBe(409);
    expect(late.body).toMatchObject({
      code: 'version-conflict',
      details: { current: { title: 'First', version: 2 }, yours: { title: 'Second' } },
    });
    expect((await client.call('DELETE', `/entries/${entry.id}?version=1`)).status).toBe(409);
    expect((await client.call('DELETE', `/entries/${entry.id}?version=2`)).status).toBe(204);
    for (const id of [entry.id, 'x', '-'.repeat(36)]) {
      expect((await client.call('GET', `/entries/${id}`)).body.code).toBe('not-found');
    }
  });

  it('finds the entries of a stretch, endless series among them', async () => {
    const cal = await calendar();
    const add = (parts: object) => client.call('POST', `/calendars/${cal.id}/entries`, entryInput(parts));
    const at = (d: string) => ({ kind: 'zoned', at: `${d}T09:00:00`, zone: 'UTC' });
    await add({ title: 'Once', start: at('2024-03-01'), end: at('2024-03-02') });
    await add({
      title: 'Endless',
      start: at('2020-01-01'),
      end: at('2020-01-02'),
      recurrence: { rule: 'FREQ=MONTHLY', dates: [], exceptDates: [] },
    });
    const titles = async (from: string, to: string) =>
      (await client.call('GET', `/calendars/${cal.id}/entries?from=${from}&to=${to}`)).body.map(
        (e: any) => e.title,
      );
    expect(await titles('2024-02-27', '2024-03-03')).toEqual(['Endless', 'Once']);
    expect(await titles('2025-02-27', '2025-03-03')).toEqual(['Endless']);
    const refused = await client.call('GET', `/calendars/${cal.id}/entries?from=2025-03-03&to=2025-01-01`);
    expect(refused.body.code).toBe('range-invalid');
  });
});

describe('what goes outside', () => {
  it('is let through the glass in every form, and no more', async () => {
    for (const [glass, title, description] of [
      ['frosted', false, false],
      ['tinted', true, false],
      ['clear', true, true],
    ] as const) {
      const { window } = await opened(glass);
      const { token } = window.keys[0];
      for (const path of [
        `/feed/${token}.ics`,
        `/copy/${token}.ics`,
        `/see/${token}?show=list`,
        `/embed/${token}`,
      ]) {
        const text = (await textOf(path)).replace(/\r\n /g, '');
        expect(text.includes('Lock inspection'), `${glass} ${path}`).toBe(title);
        expect(text.includes('Bring the long ladder'), `${glass} ${path}`).toBe(description);
        if (glass === 'frosted') expect(text).toContain('Taken');
      }
      const busy = await textOf(`/feed/${token}.ifb`);
      expect(busy).toContain('FREEBUSY;FBTYPE=BUSY:');
      expect(busy).not.toContain('Lock');
    }
  });

  it('shows an edit soon, in both processes, with the same bytes', async () => {
    const { entry, feed, see } = await opened('tinted');
    await eventually(async () => expect((await get(feed, {}, second.base)).status).toBe(200));
    const before = await get(feed);
    expect(await textOf(feed, second.base)).toBe(await before.text());
    await client.call(
      'PUT',
      `/entries/${entry.id}`,
      entryInput({ title: 'Sluice closed', version: entry.version }),
    );
    for (const base of [server.base, second.base]) {
      await eventually(async () => expect(await textOf(feed, base)).toContain('SUMMARY:Sluice closed'));
      await eventually(async () => expect(await textOf(`${see}?show=list`, base)).toContain('Sluice closed'));
    }
    const after = await get(feed);
    expect(after.headers.get('etag')).not.toBe(before.headers.get('etag'));
    const text = await after.text();
    expect(text).toContain('SEQUENCE:1');
    expect(await textOf(feed, second.base)).toBe(text);
  });

  it('makes no revision of a change that readers cannot see', async () => {
    const { entry, feed } = await opened('tinted');
    const etag = (await get(feed)).headers.get('etag');
    await client.call('PUT', `/entries/${entry.id}`, entryInput({ description: 'Changed', version: 1 }));
    await server.publisher.catchUp();
    const again = await get(feed);
    expect(again.headers.get('etag')).toBe(etag);
    expect(await again.text()).toContain('SEQUENCE:0');
  });

  it('answers 304 to whoever has these bytes, in each encoding', async () => {
    const { feed } = await opened('tinted');
    const raw = (headers: Record<string, string>) =>
      new Promise<{ status: number; headers: any; body: Buffer }>((resolve, reject) => {
        request(server.base + feed, { headers }, (res) => {
          const parts: Buffer[] = [];
          res.on('data', (part: Buffer) => parts.push(part));
          res.on('end', () =>
            resolve({ status: res.statusCode!, headers: res.headers, body: Buffer.concat(parts) }),
          );
        })
          .on('error', reject)
          .end();
      });
    const plain = await raw({});
    const packed = await raw({ 'accept-encoding': 'gzip, br' });
    expect(packed.headers['content-encoding']).toBe('gzip');
    expect(gunzipSync(packed.body).equals(plain.body)).toBe(true);
    expect(packed.headers.etag).not.toBe(plain.headers.etag);
    for (const tag of [
      plain.headers.etag,
      packed.headers.etag,
      `W/${plain.headers.etag}`,
      `"x", ${plain.headers.etag}`,
    ]) {
      const again = await raw({ 'if-none-match': tag });
      expect(again.status).toBe(304);
      expect(again.body.length).toBe(0);
    }
    expect((await raw({ 'if-none-match': '"r1-other"' })).status).toBe(200);
    expect((await raw({ 'accept-encoding': 'gzip;q=0' })).headers['content-encoding']).toBeUndefined();
    expect(plain.headers).toMatchObject({
      'content-type': 'text/calendar; charset=utf-8',
      'cache-control': 'public, no-cache',
      vary: 'Accept-Encoding, Prefer, Sync-Token',
      'x-robots-tag': 'noindex, nofollow',
    });
  });

  it('answers 404 for an unknown key, 410 once the window is closed, and as before once it is open again', async () => {
    const { window, feed, see } = await opened('tinted');
    const { token } = window.keys[0];
    const paths = [feed, `/feed/${token}.ifb`, `/copy/${token}.ics`, see, `/embed/${token}`];
    const before = await textOf(feed);
    for (const path of paths) {
      expect((await get(path)).status).toBe(200);
      expect((await get(path.replace(token, 'x'.repeat(27)))).status).toBe(404);
    }
    await client.call('POST', `/windows/${window.id}/close`);
    for (const path of paths) {
      const gone = await get(path);
      expect(gone.status).toBe(410);
      const text = await gone.text();
      expect(text).toContain('closed');
      expect(text).not.toContain('Lock inspection');
    }
    const refused = await client.call(
      'PUT',
      `/windows/${window.id}`,
      windowInput(window.sources[0].calendarId, 'clear'),
    );
    expect(refused.body.code).toBe('window-closed');
    await client.call('POST', `/windows/${window.id}/open`);
    expect(await textOf(feed)).toBe(before);
  });

  it('opens a frame to other sites for the embed only', async () => {
    const { window } = await opened('tinted');
    const { token } = window.keys[0];
    const policy = async (path: string) => (await get(path)).headers.get('content-security-policy');
    expect(await policy(`/see/${token}`)).toContain("frame-ancestors 'none'");
    expect(await policy(`/embed/${token}`)).toContain('frame-ancestors *');
    expect((await get(`/embed/${token}`)).headers.get('x-frame-options')).toBeNull();
  });

  it('treats texts of entries as data in every form', async () => {
    const cal = await calendar();
    const evil = '<script>alert(1)</script>\r\nX-EVIL:1\r\nEND:VEVENT';
    await client.call(
      'POST',
      `/calendars/${cal.id}/entries`,
      entryInput({ title: evil, publicLink: 'javascript:alert(1)' }),
    );
    const { body: window } = await client.call(
      'POST',
      '/windows',
      windowInput(cal.id, 'clear', { name: '"><img src=x>' }),
    );
    const { token } = window.keys[0];
    const page = await textOf(`/see/${token}?show=list&tz=%22%3E%3Cscript%3E`);
    expect(page).not.toContain('<script>alert');
    expect(page).not.toContain('"><img');
    expect(page).not.toContain('javascript:');
    const feed = await get(`/feed/${token}.ics`);
    const text = await feed.text();
    expect(text).not.toMatch(/^X-EVIL/m);
    expect(text.match(/^END:VEVENT/gm)).toHaveLength(1);
    expect(feed.headers.get('content-disposition')).toBe('inline; filename="img-src-x.ics"');
  });

  it('says when it is ready, describes its API, and tells of no demo outside demo mode', async () => {
    expect((await get('/healthz')).status).toBe(200);
    const api = (await (await get('/api/openapi.json')).json()) as any;
    expect(Object.keys(api.paths)).toContain('/api/windows/{id}/close');
    expect(api.paths['/api/calendars'].post.requestBody.content['application/json'].schema.$ref).toContain(
      'CalendarInput',
    );
    expect(api.components.schemas.CalendarInput.required).toContain('zone');
    expect((await get('/api/demo')).status).toBe(404);
  });

  it('follows a window to a host zone where it is still the day before', async () => {
    const { cal, window, see } = await opened('tinted');
    for (const [version, hostZone] of [
      [1, 'Pacific/Kiritimati'],
      [2, 'Pacific/Pago_Pago'],
    ]) {
      await client.call('PUT', `/windows/${window.id}`, windowInput(cal.id, 'tinted', { version, hostZone }));
      expect(await textOf(see)).toContain(`Times are in ${String(hostZone).replace('_', ' ')}`);
    }
  });

  it('detects two changes of one window', async () => {
    const { cal, window } = await opened('tinted');
    const put = (parts: object) =>
      client.call('PUT', `/windows/${window.id}`, windowInput(cal.id, 'frosted', parts));
    expect((await put({ version: 1 })).status).toBe(200);
    const late = await put({ version: 1 });
    expect(late.status).toBe(409);
    expect(late.body.details.current.version).toBe(2);
  });
});
