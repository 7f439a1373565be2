import { EMPTY_CONTENT } from '@zonal/core/entries';
import { FORMS, FORM_NAMES } from '@zonal/core/forms';
import { request, type IncomingHttpHeaders } from 'node:http';
import { gunzipSync } from 'node:zlib';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { TestClient, freshDatabase, testServer, windowInput } from '../testing';

let server: Awaited<ReturnType<typeof testServer>>;
let client: TestClient;
let window: any;

beforeAll(async () => {
  server = await testServer(await freshDatabase());
  client = new TestClient(server.base);
  await client.signIn();
  const plate = { plate: 'QU', colour: 'teal', zone: 'America/Halifax', description: '' };
  const calendar = (await client.call('POST', '/calendars', { ...plate, name: 'Quay' })).body;
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
  await client.call('POST', `/calendars/${calendar.id}/entries`, entry);
  window = (
    await client.call('POST', '/windows', windowInput(calendar.id, 'tinted', { name: 'On the quay' }))
  ).body;
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
      vary: 'Accept-Encoding',
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
