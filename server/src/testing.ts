import { BLANK_WINDOW, DEMANDS, type Glass } from '@zonal/core/glass';
import type { Standing } from '@zonal/core/rights';
import { spawn, type ChildProcess } from 'node:child_process';
import { randomBytes, randomInt } from 'node:crypto';
import { createConnection, createServer, type Socket } from 'node:net';
import { Client } from 'pg';
import type { Config } from './config';
import { connect } from './db/connect';
import { migrate } from './db/migrate';
import { MailRow, StandingRow, UserRow } from './db/models';
import { contentOf } from './db/outbox';
import { hashPassword } from './people/passwords';
import { startServer, type RunningServer } from './server';

export const PASSWORD = 'tide-and-time';
export const EMAIL = 'ida@ostrel.example';

/** Returns the address of a new, empty database on the test cluster. */
export async function freshDatabase(): Promise<string> {
  const cluster = process.env['TEST_DATABASE_URL'];
  if (!cluster) throw new Error('TEST_DATABASE_URL is not set: run the tests with npm test.');
  const name = `t_${randomBytes(6).toString('hex')}`;
  const client = new Client({ connectionString: cluster });
  await client.connect();
  await client.query(`CREATE DATABASE ${name}`);
  await client.end();
  return cluster.replace(/\/[^/]*$/, `/${name}`);
}

/** Returns the address of a new database with all tables and one account, for server processes. */
export async function databaseWithAccount(): Promise<string> {
  const database = await freshDatabase();
  const sequelize = connect(database, { patient: true });
  await migrate(sequelize);
  const passwordHash = await hashPassword(PASSWORD);
  await UserRow.create({ name: 'Ida', email: EMAIL, role: 'steward', passwordHash });
  await sequelize.close();
  return database;
}

/** Starts a server on a free port, with one account. */
export async function testServer(
  databaseUrl: string,
  parts: Partial<Config> = {},
): Promise<RunningServer & { base: string }> {
  const server = await startServer({
    databaseUrl,
    host: '127.0.0.1',
    port: 0,
    publicUrl: 'http://window.example',
    sessionSecret: 'a secret of the tests',
    keysSecret: 'a secret of the tests',
    webFolder: '',
    outsideFolder: new URL('../../core/assets', import.meta.url).pathname,
    tryOut: '',
    mailServer: null,
    postbox: '',
    jobs: null,
    telling: { settle: 0, gap: 0 },
    hub: '',
    pushAllowed: [],
    proxies: 0,
    demoAccounts: null,
    refusedAccounts: [],
    unheard: 600_000,
    room: 256 * 1024 * 1024,
    answersFile: '',
    threads: null,
    ...parts,
  });
  if (!(await UserRow.count())) {
    await UserRow.create({
      name: 'Ida',
      email: EMAIL,
      role: 'steward',
      passwordHash: await hashPassword(PASSWORD),
    });
  }
  return { ...server, base: `http://127.0.0.1:${server.port}` };
}

/** Returns a window on calendars, as the API takes it; large effects are confirmed. */
export function windowInput(calendarIds: string | readonly string[], glass: string, parts: object = {}) {
  const sources = [calendarIds]
    .flat()
    .map((calendarId) => ({ calendarId, glass, fields: [], as: 'Harbour' }));
  return {
    ...BLANK_WINDOW,
    name: 'Window',
    description: 'What goes on',
    busyWord: 'Taken',
    hostZone: 'America/Halifax',
    horizon: { kind: 'rolling', pastDays: 30, nextDays: 90 },
    tellTentative: false,
    sources,
    confirmed: [...DEMANDS],
    ...parts,
  };
}

export type Answer = { status: number; body: any };

/** A signed-in client of the API. */
export class TestClient {
  private readonly cookies = new Map<string, string>();
  private csrf = '';

  constructor(readonly base: string) {}

  /** Signs in, as a client at another address if one is named and the server trusts a proxy. */
  async signIn(password = PASSWORD, email = EMAIL, from?: string): Promise<Answer> {
    const more = from ? { 'x-forwarded-for': from } : {};
    await this.call('GET', '/session');
    return this.call('POST', '/session', { email, password }, 'application/json', more);
  }

  async call(
    method: string,
    path: string,
    body?: unknown,
    type = 'application/json',
    more: Record<string, string> = {},
  ): Promise<Answer> {
    const response = await fetch(`${this.base}/api${path}`, {
      method,
      headers: {
        ...this.headers(),
        ...(body === undefined ? {} : { 'content-type': type }),
        ...more,
      },
      ...(body === undefined
        ? {}
        : { body: type === 'application/json' ? JSON.stringify(body) : (body as BodyInit) }),
    });
    for (const set of response.headers.getSetCookie()) {
      const [pair] = set.split(';');
      this.cookies.set(pair!.slice(0, pair!.indexOf('=')), pair!);
    }
    const text = await response.text();
    const parsed = text ? JSON.parse(text) : null;
    if (parsed?.csrf) this.csrf = parsed.csrf;
    return { status: response.status, body: parsed };
  }

  /** What its requests carry. */
  headers(): Record<string, string> {
    return { cookie: [...this.cookies.values()].join('; '), 'x-csrf-token': this.csrf };
  }

  withoutToken(): void {
    this.csrf = '';
  }
}

/** Starts a server with somebody signed in, and a calendar of the quay. */
export async function quayServer(databaseUrl?: string, parts: Partial<Config> = {}) {
  const server = await testServer(databaseUrl ?? (await freshDatabase()), parts);
  const client = new TestClient(server.base);
  await client.signIn();
  const plate = { plate: 'QU', colour: 'teal', zone: 'America/Halifax', description: '' };
  const { body } = await client.call('POST', '/calendars', { ...plate, name: 'Quay' });
  return { server, client, calendarId: String(body.id) };
}

/** Makes an account of somebody who is no steward, and signs them in. */
export async function colleague(base: string, name: string) {
  const email = `${name.toLowerCase()}@ostrel.example`;
  const account = { name, email, role: 'member' as const };
  const { id } = await UserRow.create({ ...account, passwordHash: await hashPassword(PASSWORD) });
  const client = new TestClient(base);
  await client.signIn(PASSWORD, email);
  return { id, email, client };
}

/** Makes somebody something to a calendar. */
export async function makeTo(
  calendarId: string,
  userId: string,
  standing: Standing,
  glass: Glass | null = null,
): Promise<void> {
  await StandingRow.upsert({ calendarId, userId, standing, glass, byId: null, since: new Date() });
}

/** Returns what was written to an address, oldest first, while no mail is handed over: text, HTML, and its secret. */
export async function lettersTo(recipient: string) {
  const rows = await MailRow.findAll({ where: { recipient }, order: [['createdAt', 'ASC']] });
  return rows.map((row) => {
    const { text, html } = contentOf(row);
    return { kind: row.kind, subject: row.subject, text, html, token: /#([\w-]+)/.exec(text)?.[1] ?? '' };
  });
}

/** Stands between server and database, and can cut every connection, or let nothing through without a word. */
export async function cuttableProxy(target: URL) {
  const sockets = new Set<Socket>();
  let cut = false;
  let silent = false;
  const proxy = createServer((from) => {
    if (cut) return void from.destroy();
    const to = createConnection({ host: target.hostname, port: Number(target.port) });
    for (const socket of [from, to]) {
      sockets.add(socket);
      socket.on('error', () => undefined);
      socket.on('close', () => {
        sockets.delete(socket);
        from.destroy();
        to.destroy();
      });
    }
    if (!silent) from.pipe(to).pipe(from);
  });
  await new Promise<void>((resolve) => proxy.listen(0, '127.0.0.1', resolve));
  return {
    port: (proxy.address() as { port: number }).port,
    cut(off: boolean) {
      cut = off;
      if (off) for (const socket of sockets) socket.destroy();
    },
    silence(on: boolean) {
      silent = on;
      for (const socket of sockets) {
        if (on) socket.unpipe().pause();
        else socket.destroy();
      }
    },
    close: () => {
      for (const socket of sockets) socket.destroy();
      proxy.close();
    },
  };
}

/** How long a test waits for a state: far longer than it takes on a busy machine. */
const PATIENCE_MS = Number(process.env['PATIENCE_SECONDS'] ?? 180) * 1000;

/** Waits until a check no longer throws. Throws its last error when that takes too long: three minutes, if nothing else is set. */
export async function eventually(check: () => Promise<void>): Promise<void> {
  const end = performance.now() + PATIENCE_MS;
  for (;;) {
    try {
      return await check();
    } catch (error) {
      if (performance.now() > end) throw error;
      await new Promise((resolve) => setTimeout(resolve, 40));
    }
  }
}

/** A server process of its own. */
export interface ServerProcess {
  readonly base: string;
  readonly child: ChildProcess;
  stop(signal?: NodeJS.Signals): Promise<void>;
}

/** Ports below those that outgoing connections get from the system: none takes the port before its server has started. */
const SERVER_PORTS = { from: 10_000, to: 32_000 };

async function freePort(): Promise<number> {
  const server = createServer();
  const port = randomInt(SERVER_PORTS.from, SERVER_PORTS.to);
  const isFree = await new Promise<boolean>((resolve) => {
    server.once('error', () => resolve(false));
    server.listen(port, '127.0.0.1', () => resolve(true));
  });
  if (!isFree) return freePort();
  await new Promise((resolve) => server.close(resolve));
  return port;
}

/** Starts the built server as a process of its own, and waits until it is ready. */
export async function serverProcess(
  databaseUrl: string,
  env: Readonly<Record<string, string | undefined>> = {},
): Promise<ServerProcess> {
  const { ready, ...server } = await startingProcess(databaseUrl, env);
  await ready;
  return server;
}

/** Starts the built server as a process of its own; `ready` rejects if it ends before it is ready. */
export async function startingProcess(
  databaseUrl: string,
  env: Readonly<Record<string, string | undefined>> = {},
  output: 'inherit' | 'pipe' = 'inherit',
): Promise<ServerProcess & { readonly ready: Promise<unknown> }> {
  const main = process.env['SERVER_MAIN'];
  if (!main) throw new Error('SERVER_MAIN is not set: run the tests with npm test.');
  const port = await freePort();
  const child = spawn(process.execPath, [main], {
    stdio: ['ignore', output, output, 'ipc'],
    env: {
      ...process.env,
      DATABASE_URL: databaseUrl,
      PORT: String(port),
      PUBLIC_URL: 'http://window.example',
      SESSION_SECRET: 'a secret of the tests',
      OUTSIDE_FOLDER: new URL('../../core/assets', import.meta.url).pathname,
      LOG_LEVEL: process.env['LOG_LEVEL'] ?? 'fatal',
      ...env,
    },
  });
  const gone = new Promise<void>((resolve) => child.once('exit', () => resolve()));
  const ready = Promise.race([
    new Promise((resolve) => child.once('message', resolve)),
    gone.then(() => Promise.reject(new Error('The server ended before it was ready.'))),
  ]);
  const stop = async (signal: NodeJS.Signals = 'SIGTERM') => {
    child.kill(signal);
    await gone;
  };
  return { base: `http://127.0.0.1:${port}`, child, stop, ready };
}
