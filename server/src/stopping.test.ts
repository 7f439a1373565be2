import { once } from 'node:events';
import { createServer, type Socket } from 'node:net';
import { Client } from 'pg';
import { beforeAll, expect, it, onTestFinished } from 'vitest';
import {
  EMAIL,
  TestClient,
  cuttableProxy,
  databaseWithAccount,
  eventually,
  startingProcess,
} from './testing';

let database: string;
beforeAll(async () => {
  database = await databaseWithAccount();
});

/** Starts a process that reaches the database through a proxy, and keeps what it logs. */
async function proxiedProcess(env: Record<string, string> = {}) {
  const url = new URL(database);
  const proxy = await cuttableProxy(new URL(url));
  url.port = String(proxy.port);
  const server = await startingProcess(url.href, { LOG_LEVEL: 'warn', ...env }, 'pipe');
  const lines = { text: '' };
  for (const stream of [server.child.stdout!, server.child.stderr!])
    stream.on('data', (chunk: Buffer) => (lines.text += chunk.toString()));
  onTestFinished(async () => {
    await server.stop('SIGKILL');
    proxy.close();
  });
  await server.ready;
  const client = new TestClient(server.base);
  await client.signIn();
  return { ...server, proxy, client, lines };
}

it('goes on if the database is lost while a job is done', async () => {
  // A mail server that never answers.
  const asked: Socket[] = [];
  const mailServer = createServer((socket) => {
    socket.on('error', () => undefined);
    asked.push(socket);
  });
  mailServer.listen(0, '127.0.0.1');
  await once(mailServer, 'listening');
  onTestFinished(() => void mailServer.close());
  const { port } = mailServer.address() as { port: number };
  const { client, proxy, lines, base } = await proxiedProcess({
    SMTP_URL: `smtp://127.0.0.1:${port}`,
    MAIL_FROM: 'calendars@house.example',
  });
  await client.call('POST', '/forgotten', { email: EMAIL });
  await eventually(() => {
    expect(asked.length).toBeGreaterThan(0);
    return Promise.resolve();
  });
  proxy.cut(true);
  for (const socket of asked) socket.destroy();
  await eventually(() => {
    expect(lines.text).toContain('the outcome of a job could not be stored');
    return Promise.resolve();
  });
  proxy.cut(false);
  await eventually(async () => {
    await new TestClient(base).signIn();
    expect((await fetch(`${base}/healthz`)).status).toBe(200);
  });
  expect(lines.text).not.toContain('a thread ended');
});

it('answers an edit that is under way when it is to stop', async () => {
  const { client, child } = await proxiedProcess();
  const holder = new Client({ connectionString: database });
  await holder.connect();
  onTestFinished(() => holder.end().catch(() => undefined));
  await holder.query('BEGIN');
  // No change is made while somebody holds this lock.
  await holder.query('SELECT pg_advisory_xact_lock(4311)');
  const place = { name: 'Quay', description: '', zone: 'UTC', plate: 'QU', colour: 'teal' };
  const edit = client.call('POST', '/calendars', place);
  await eventually(async () => {
    const { rows } = await holder.query(`SELECT 1 FROM pg_locks WHERE locktype = 'advisory' AND NOT granted`);
    expect(rows).toHaveLength(1);
  });
  const gone = once(child, 'exit');
  child.kill('SIGTERM');
  await holder.query('COMMIT');
  expect((await edit).status).toBe(201);
  expect(await gone).toEqual([0, null]);
});

it('ends on SIGTERM, also while the database says nothing', async () => {
  const { child, proxy } = await proxiedProcess();
  proxy.silence(true);
  const gone = once(child, 'exit');
  child.kill('SIGTERM');
  // By itself, and not without saying that something was left.
  expect(await gone).toEqual([1, null]);
});
