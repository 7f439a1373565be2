import { EMPTY_CONTENT } from '@zonal/core/entries';
import { afterAll, expect, it } from 'vitest';
import { TestClient, cuttableProxy, eventually, freshDatabase, testServer, windowInput } from './testing';

let server: Awaited<ReturnType<typeof testServer>>;
let proxy: Awaited<ReturnType<typeof cuttableProxy>>;

afterAll(async () => {
  await server?.close();
  proxy?.close();
});

it('goes on serving the last known bytes while the database is away, refuses edits clearly, and recovers', async () => {
  const url = new URL(await freshDatabase());
  proxy = await cuttableProxy(new URL(url));
  url.port = String(proxy.port);
  server = await testServer(url.href);
  const client = new TestClient(server.base);
  await client.signIn();
  const input = { name: 'Quay', description: '', zone: 'UTC', plate: 'QU', colour: 'teal' };
  const calendar = (await client.call('POST', '/calendars', input)).body;
  const day = new Date(Date.now() + 86_400_000).toISOString().slice(0, 10);
  const entry = {
    ...EMPTY_CONTENT,
    title: 'Market',
    start: { kind: 'date', date: day },
    end: { kind: 'date', date: new Date(Date.now() + 2 * 86_400_000).toISOString().slice(0, 10) },
    recurrence: null,
    overrides: [],
  };
  await client.call('POST', `/calendars/${calendar.id}/entries`, entry);
  const window = (
    await client.call(
      'POST',
      '/windows',
      windowInput(calendar.id, 'tinted', { hostZone: 'UTC', listed: true }),
    )
  ).body;
  const { token } = window.keys[0];
  const feed = await (await fetch(`${server.base}/feed/${token}.ics`)).text();
  expect(feed).toContain('Market');

  proxy.cut(true);
  expect(await (await fetch(`${server.base}/feed/${token}.ics`)).text()).toBe(feed);
  expect((await fetch(`${server.base}/see/${token}`)).status).toBe(200);
  const refused = await client.call('POST', `/calendars/${calendar.id}/entries`, {
    ...entry,
    title: 'Lost?',
  });
  expect(refused.status).toBe(503);
  expect(refused.body.code).toBe('storage-away');

  proxy.cut(false);
  await eventually(async () => {
    const saved = await client.call('POST', `/calendars/${calendar.id}/entries`, { ...entry, title: 'Fair' });
    expect(saved.status).toBe(201);
  });
  await eventually(async () => {
    expect(await (await fetch(`${server.base}/feed/${token}.ics`)).text()).toContain('SUMMARY:Fair');
  });
});
