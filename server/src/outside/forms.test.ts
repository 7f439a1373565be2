import { EMPTY_CONTENT } from '@zonal/core/entries';
import { FORMS, FORM_NAMES } from '@zonal/core/forms';
import { request, type IncomingHttpHeaders } from 'node:http';
import { gunzipSync } from 'node:zlib';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { type TestClient, type testServer, windowInput, quayServer } from '../testing';

let server: Awaited<ReturnType<typeof testServer>>;
let client: TestClient;
let calendarId: string;
let window: any;

beforeAll(async () => {
  ({ server, client, calendarId } = await quayServer());
  const day = new Date(Date.now() + 86_400_000).toISOString().slice(0, 10);
  const at = (hour: number) => ({ kind: 'zoned', at: `${day}T${hour}:00:00`, zone: 'America/Halifax' });
  const entry = {
    ...EMPTY_CONTENT,
    title: 'Market',
    start: at(10),
    end: at(12),
    recurrence: null,
    overrides: [],
  };
  await client.call('POST', `/calendars/${calendarId}/entries`, entry);
  window = (await client.call('POST', '/windows', windowInput(calendarId, 'tinted', { name: 'On the quay' })))
    .body;
});
afterAll(() => server.close());

interface Told {
  readonly status: number;
  readonly headers: IncomingHttpHeaders;
  readonly body: Buffer;
}

/** Asks as programs do, with nothing added or unpacked on the way. */
function ask(address: string, headers: Record<string, string> = {}, method = 'GET'): Promise<Told> {
  const path = new URL(address).pathname;
  return new Promise((resolve, reject) => {
    request(`${server.base}${path}`, { method, headers, agent: false }, (res) => {
      const parts: Buffer[] = [];
      res.on('data', (part: Buffer) => parts.push(part));
      res.on('end', () =>
        resolve({ status: res.statusCode!, headers: res.headers, body: Buffer.concat(parts) }),
      );
    })
      .on('error', reject)
      .end();
  });
}

describe.each(FORM_NAMES)('the form %s', (name) => {
  const { contentType, ending, shared } = FORMS[name];
  const address = () => window.keys[0][name] as string;

  it('has its type, its file name and its caching, and is open to other sites only where it is meant for them', async () => {
    const { status, headers } = await ask(address());
    expect(status).toBe(200);
    expect(headers).toMatchObject({
      'content-type': contentType,
      'cache-control': 'public, no-cache',
      vary: name === 'feed' ? 'Accept-Encoding, Prefer, Sync-Token' : 'Accept-Encoding',
      'x-content-type-options': 'nosniff',
      'x-robots-tag': 'noindex, nofollow',
    });
    const file =
      name === 'copy'
        ? /^attachment; filename="on-the-quay-copy-[\d-]+\.ics"$/
        : `inline; filename="on-the-quay.${ending}"`;
    expect(headers['content-disposition']).toEqual(
      typeof file === 'string' ? file : expect.stringMatching(file),
    );
    expect(headers['access-control-allow-origin']).toBe(shared ? '*' : undefined);
  });

  it('answers HEAD as GET without its bytes, packs them on request, and sends none that are held', async () => {
    const plain = await ask(address());
    const head = await ask(address(), {}, 'HEAD');
    expect(head.body.length).toBe(0);
    expect(head.headers['content-length']).toBe(String(plain.body.length));
    const packed = await ask(address(), { 'accept-encoding': 'gzip' });
    expect(packed.headers['content-encoding']).toBe('gzip');
    // A copy tells its moment.
    if (name !== 'copy') expect(gunzipSync(packed.body).equals(plain.body)).toBe(true);
    if (name === 'copy') return;
    const held = await ask(address(), { 'if-none-match': plain.headers.etag! });
    expect([held.status, held.body.length]).toEqual([304, 0]);
    expect((await ask(address(), { 'if-none-match': '"other"' })).status).toBe(200);
  });

  it('is not there for an unknown key, and gone for a closed window', async () => {
    const { token } = window.keys[0];
    const unknown = await ask(address().replace(token, `${token.slice(0, -1)}x`));
    expect([unknown.status, unknown.body.toString()]).toEqual([
      404,
      expect.stringContaining('no window here'),
    ]);
    await client.call('POST', `/windows/${window.id}/close`);
    expect((await ask(address())).status).toBe(410);
    await client.call('POST', `/windows/${window.id}/open`);
    expect((await ask(address())).status).toBe(200);
  });
});

it('a closed window says since when it is, and whom to ask, and nothing else of itself', async () => {
  const parts = { name: 'Winter berths', contact: 'Lock <office>, channel 12' };
  const { body } = await client.call('POST', '/windows', windowInput(calendarId, 'tinted', parts));
  await client.call('POST', `/windows/${body.id}/close`);
  const zone = { timeZone: 'America/Halifax' };
  const year = new Date().toLocaleDateString('en-CA', zone).slice(0, 4);
  const page = await ask(body.keys[0].see);
  const text = page.body.toString();
  expect(page.status).toBe(410);
  expect(text).toMatch(new RegExp(`has not been published since \\w{3}, \\d+ \\w{3} ${year}`));
  expect(text).toContain('Questions: Lock &lt;office&gt;, channel 12');
  expect(text).not.toContain('Winter berths');
  const feed = await ask(body.keys[0].feed);
  expect([feed.status, feed.headers['content-type']]).toEqual([410, expect.stringContaining('text/plain')]);
  expect(feed.body.toString()).toContain('Questions: Lock <office>, channel 12');
});

describe('a page’s address alone', () => {
  const tell = async (query: Record<string, string>) => {
    const answer = await fetch(`${server.base}/oembed?${new URLSearchParams(query).toString()}`);
    return { status: answer.status, type: answer.headers.get('content-type'), text: await answer.text() };
  };

  it('leads a site to the embed: the page names where, in both formats, within the size that is asked for', async () => {
    const { see, embed } = window.keys[0];
    const page = (await ask(see)).body.toString();
    const found = [...page.matchAll(/<link rel="alternate" type="(\S+)\+oembed" href="([^"]+)"/g)];
    expect(found.map((m) => m[1])).toEqual(['application/json', 'text/xml']);
    for (const [, type, href] of found) {
      const { search } = new URL(href!.replaceAll('&amp;', '&'));
      const answer = await fetch(`${server.base}/oembed${search}`);
      expect(answer.headers.get('content-type')).toContain(type);
      expect(await answer.text()).toContain(new URL(embed).pathname);
    }
    const told = JSON.parse((await tell({ url: see })).text);
    expect(told).toMatchObject({
      version: '1.0',
      type: 'rich',
      title: 'On the quay',
      width: 680,
      height: 640,
    });
    expect(told.html).toMatch(/^<iframe src="http:\/\/window\.example\/embed\/[\w-]+" title="On the quay"/);
    const small = JSON.parse((await tell({ url: embed, maxwidth: '300', maxheight: '200' })).text);
    expect(small).toMatchObject({ width: 300, height: 200 });
    expect(JSON.parse((await tell({ url: see, maxwidth: '-3', maxheight: 'x' })).text).width).toBe(680);
  });

  it('is data there too, whatever the window is called', async () => {
    const name = `"><script>alert(1)</script> & 'tide' ]]>`;
    const { body } = await client.call('POST', '/windows', windowInput(calendarId, 'tinted', { name }));
    const { see } = body.keys[0];
    const { html, title } = JSON.parse((await tell({ url: see })).text);
    expect(title).toBe(name);
    expect(html).not.toContain('<script>');
    const xml = await tell({ url: see, format: 'xml' });
    expect(xml.type).toContain('text/xml');
    expect(xml.text).not.toContain('<script>');
    expect(xml.text.match(/</g)).toHaveLength(xml.text.match(/>/g)!.length);
  });

  it('is refused where it leads nowhere, is none of ours, or is asked for in another format', async () => {
    const { see, token, id } = window.keys[0];
    for (const url of [`${see}x`, see.replace('window.example', 'other.example'), 'no address', ''])
      expect((await tell({ url })).status, url).toBe(404);
    expect((await tell({})).status).toBe(404);
    expect((await tell({ url: see, format: 'yaml' })).status).toBe(501);
    const turned = (await client.call('POST', `/keys/${id}/turn`, { graceDays: 2 })).body.keys[0];
    const { html } = JSON.parse((await tell({ url: see })).text);
    expect([html.includes(turned.token), html.includes(token)]).toEqual([true, false]);
    await client.call('POST', `/keys/${id}/withdraw`);
    expect((await tell({ url: see })).status).toBe(410);
  });
});
