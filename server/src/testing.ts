import { DEMANDS, INCLUDE_ALL, PLAIN_TITLE, USUAL_SWITCHES } from '@zonal/core/glass';
import { randomBytes } from 'node:crypto';
import { Client } from 'pg';
import type { Config } from './config';
import { UserRow } from './db/models';
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
    webFolder: '',
    outsideFolder: new URL('../../core/assets', import.meta.url).pathname,
    proxies: 0,
    demoAccounts: null,
    unheard: 600_000,
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
    name: 'Window',
    description: 'What goes on',
    language: '',
    topic: '',
    contact: '',
    translations: [],
    colour: 'steelblue',
    busyWord: 'Taken',
    dueAs: 'all-day',
    titlePattern: PLAIN_TITLE,
    hostZone: 'America/Halifax',
    horizon: { kind: 'rolling', pastDays: 30, nextDays: 90 },
    filter: null,
    include: INCLUDE_ALL,
    labelHolds: [],
    rounding: 0,
    tellTentative: false,
    switches: USUAL_SWITCHES,
    listed: false,
    sources,
    confirmed: [...DEMANDS],
    ...parts,
  };
}

export type Answer = { status: number; body: any };

/** A signed-in client of the API. */
export class TestClient {
  private cookie = '';
  private csrf = '';

  constructor(private readonly base: string) {}

  async signIn(password = PASSWORD, email = EMAIL): Promise<Answer> {
    await this.call('GET', '/session');
    return this.call('POST', '/session', { email, password });
  }

  async call(method: string, path: string, body?: unknown, type = 'application/json'): Promise<Answer> {
    const response = await fetch(`${this.base}/api${path}`, {
      method,
      headers: {
        cookie: this.cookie,
        'x-csrf-token': this.csrf,
        ...(body === undefined ? {} : { 'content-type': type }),
      },
      ...(body === undefined
        ? {}
        : { body: type === 'application/json' ? JSON.stringify(body) : (body as BodyInit) }),
    });
    const set = response.headers.getSetCookie().at(-1);
    if (set) this.cookie = set.split(';')[0]!;
    const text = await response.text();
    const parsed = text ? JSON.parse(text) : null;
    if (parsed?.csrf) this.csrf = parsed.csrf;
    return { status: response.status, body: parsed };
  }

  /** What its requests carry. */
  headers(): Record<string, string> {
    return { cookie: this.cookie, 'x-csrf-token': this.csrf };
  }

  withoutToken(): void {
    this.csrf = '';
  }
}

/** Waits until a check holds; fails with its last error after five seconds, or as many milliseconds as told. */
export async function eventually(check: () => Promise<void>, within = 5000): Promise<void> {
  const end = Date.now() + within;
  for (;;) {
    try {
      return await check();
    } catch (error) {
      if (Date.now() > end) throw error;
      await new Promise((resolve) => setTimeout(resolve, 40));
    }
  }
}
