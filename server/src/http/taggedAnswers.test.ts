import { afterAll, beforeAll, expect, it } from 'vitest';
import { TestClient, freshDatabase, testServer } from '../testing';

let server: Awaited<ReturnType<typeof testServer>>;
let client: TestClient;

beforeAll(async () => {
  server = await testServer(await freshDatabase());
  client = new TestClient(server.base);
  await client.signIn();
});
afterAll(() => server?.close());

const plate = { plate: 'CA', colour: 'teal', zone: 'America/Halifax' };

it('answers 304 to a client that holds the answer already, and compresses long ones', async () => {
  const description = 'Boats that come and go. '.repeat(60);
  const made = await client.call('POST', '/calendars', { ...plate, name: 'Quay', description });
  expect(made.status).toBe(201);
  const ask = (headers: Record<string, string> = {}) =>
    fetch(`${server.base}/api/calendars`, { headers: { ...client.headers(), ...headers } });
  const first = await ask();
  const tag = first.headers.get('etag')!;
  expect(tag).toMatch(/^W\/"[\w-]{43}"$/);
  expect(first.headers.get('content-encoding')).toMatch(/^(br|gzip|deflate)$/);
  expect(first.headers.get('cache-control')).toBe('no-store');
  expect(await first.json()).toMatchObject([{ name: 'Quay' }]);
  const held = await ask({ 'if-none-match': tag, 'cache-control': 'no-cache' });
  expect([held.status, await held.text()]).toEqual([304, '']);
  await client.call('POST', '/calendars', { ...plate, plate: 'LO', name: 'Lock', description: '' });
  const changed = await ask({ 'if-none-match': `"other", ${tag}` });
  expect(changed.status).toBe(200);
  expect(await changed.json()).toHaveLength(2);
});

it('never compresses what holds the token of a session', async () => {
  const { headers } = await fetch(`${server.base}/api/session`, {
    headers: { ...client.headers(), 'accept-encoding': 'gzip' },
  });
  expect([headers.get('content-encoding'), headers.get('etag')]).toEqual([null, null]);
});
