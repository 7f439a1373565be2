import { EMPTY_CONTENT } from '@zonal/core/entries';
import { createServer, type ServerResponse } from 'node:http';
import type { AddressInfo } from 'node:net';
import PostalMime from 'postal-mime';
import { Sequelize } from 'sequelize';
import { afterEach, describe, expect, it } from 'vitest';
import { connect } from '../db/connect';
import { migrate } from '../db/migrate';
import { UserRow } from '../db/models';
import { hashPassword } from '../people/passwords';
import {
  EMAIL,
  PASSWORD,
  TestClient,
  eventually,
  freshDatabase,
  serverProcess,
  windowInput,
} from '../testing';
import { mailServer } from '../testingMail';

/* Real processes against one database: whoever is told of changes is told by one of them, also where another one dies. */

const opened: { close: () => unknown }[] = [];
afterEach(async () => {
  for (const one of opened.splice(0).reverse()) await one.close();
});

/** A system that notes which messages came, and answers the first of them never. */
async function stallingSystem() {
  const came: string[] = [];
  const held: ServerResponse[] = [];
  const server = createServer((req, res) => {
    req.resume();
    came.push(String(req.headers['webhook-id']));
    if (came.length > 1) res.writeHead(204).end();
    else held.push(res);
  });
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  opened.push({
    close: () => {
      server.closeAllConnections();
      return new Promise<void>((resolve) => server.close(() => resolve()));
    },
  });
  return { came, origin: `http://127.0.0.1:${(server.address() as AddressInfo).port}` };
}

async function house() {
  const post = await mailServer();
  opened.push(post);
  const system = await stallingSystem();
  const databaseUrl = await freshDatabase();
  const sequelize: Sequelize = connect(databaseUrl, { patient: true });
  opened.push(sequelize);
  await migrate(sequelize);
  const passwordHash = await hashPassword(PASSWORD);
  await UserRow.create({ name: 'Ida', email: EMAIL, role: 'steward', passwordHash });
  const env = {
    SMTP_URL: `smtp://127.0.0.1:${post.port}`,
    MAIL_FROM: 'calendars@ostrel.example',
    // Stand-ins are near.
    DEMO_ACCOUNTS: '[]',
    HOST_SITE_URL: system.origin,
    JOB_LOOK_SECONDS: '1',
    JOB_LOST_SECONDS: '3',
    JOB_AGAIN_SECONDS: '1',
    NOTICE_SETTLE_SECONDS: '0',
    NOTICE_GAP_SECONDS: '0',
  };
  const start = async () => {
    const one = await serverProcess(databaseUrl, env);
    opened.push({ close: () => one.stop() });
    return one;
  };
  const first = await start();
  const client = new TestClient(first.base);
  await client.signIn();
  const plate = { plate: 'QU', colour: 'teal', zone: 'UTC', description: '' };
  const { body: calendar } = await client.call('POST', '/calendars', { ...plate, name: 'Quay' });
  const day = (n: number) => new Date(Date.now() + n * 86_400_000).toISOString().slice(0, 10);
  const date = (n: number) => ({ kind: 'date', date: day(n) });
  const write = (by: TestClient, title: string) =>
    by.call('POST', `/calendars/${calendar.id}/entries`, {
      ...{ ...EMPTY_CONTENT, title, recurrence: null, overrides: [] },
      ...{ start: date(2), end: date(3) },
    });
  await write(client, 'Market');
  const { body: window } = await client.call('POST', '/windows', windowInput(calendar.id, 'tinted'));
  const [key] = window.keys;
  await fetch(`${first.base}/feed/${key.token}.ics`);
  return { post, system, start, first, client, write, key };
}

describe('with several processes', () => {
  it('a system is told of a change though the process that told it died, and as of the same message', async () => {
    const { system, start, first, client, write, key } = await house();
    await client.call('PUT', `/keys/${key.id}/push`, { address: `${system.origin}/in`, version: 0 });
    await write(client, 'Auction');
    await eventually(async () => expect(system.came).toHaveLength(1));
    const second = await start();
    await first.stop('SIGKILL');
    await eventually(async () => expect(system.came.length).toBeGreaterThan(1));
    expect(new Set(system.came).size).toBe(1);
    const other = new TestClient(second.base);
    await other.signIn();
    await eventually(async () => {
      const { body: push } = await other.call('GET', `/keys/${key.id}/push`);
      expect([push.state, push.told, push.waits]).toEqual(['on', 2, false]);
    });
  });

  it('a reader gets one mail of each change', async () => {
    const { post, start, first, client, write, key } = await house();
    const second = await start();
    const said = { at: key.token, mail: 'reader@far.example', way: 'at-once', lang: 'en' };
    await fetch(`${second.base}/notices`, { method: 'POST', body: new URLSearchParams(said) });
    await eventually(async () => expect(post.taken).toHaveLength(1));
    const { text } = await PostalMime.parse(post.taken[0]!);
    const { pathname } = new URL(/http:\S+confirm\S+/.exec(text!)![0]);
    expect((await fetch(first.base + pathname, { method: 'POST' })).status).toBe(200);
    const other = new TestClient(second.base);
    await other.signIn();
    for (const [i, by] of [client, other, client].entries()) {
      await write(by, `Change ${i}`);
      await eventually(async () => expect(post.taken.length).toBeGreaterThan(i + 1));
    }
    const texts = await Promise.all(
      post.taken.slice(1).map(async (raw) => (await PostalMime.parse(raw)).text!),
    );
    const told = texts.flatMap((one) => [...one.matchAll(/Change \d/g)].map(([what]) => what));
    expect(told).toEqual(['Change 0', 'Change 1', 'Change 2']);
  });
});
