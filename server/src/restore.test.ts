import { EMPTY_CONTENT } from '@zonal/core/entries';
import { spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { connect } from './db/connect';
import { MailRow } from './db/models';
import {
  TestClient,
  databaseWithAccount,
  eventually,
  serverProcess,
  windowInput,
  type ServerProcess,
} from './testing';

let database: string;
let folder: string;
let server: ServerProcess;
let client: TestClient;
let calendarId: string;

const start = async () => {
  server = await serverProcess(database);
  client = new TestClient(server.base);
  await client.signIn();
};
beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), 'zonal-backup-'));
  database = await databaseWithAccount();
  await start();
  const plate = { name: 'Quay', description: '', zone: 'UTC', plate: 'QU', colour: 'teal' };
  calendarId = (await client.call('POST', '/calendars', plate)).body.id;
});
afterAll(async () => {
  await server?.stop('SIGKILL');
  rmSync(folder, { recursive: true, force: true });
});

const day = (n: number) => new Date(Date.now() + n * 86_400_000).toISOString().slice(0, 10);
const write = async (title: string) => {
  const made = await client.call('POST', `/calendars/${calendarId}/entries`, {
    ...{ ...EMPTY_CONTENT, title, recurrence: null, overrides: [] },
    ...{ start: { kind: 'date', date: day(2) }, end: { kind: 'date', date: day(3) } },
  });
  expect(made.status).toBe(201);
};

/** Runs one of the commands on the database of the test; returns its status and all that it prints. */
const command = (script: string, ...args: string[]) => {
  const path = new URL(`../../scripts/${script}.mjs`, import.meta.url).pathname;
  const env = { ...process.env, DATABASE_URL: database };
  const { status, stdout, stderr } = spawnSync(process.execPath, [path, ...args], { env, encoding: 'utf8' });
  return { status, output: stdout + stderr };
};

/** Each way in which a program that synchronises asks for what has changed since a token. */
const WAYS: Record<
  string,
  (token: string, since: string | null) => Promise<{ status: number; text: string; token: string }>
> = {
  'the subscription upgrade': async (key, since) => {
    const headers = { prefer: 'subscribe-enhanced-get', ...(since ? { 'sync-token': since } : {}) };
    const response = await fetch(`${server.base}/feed/${key}.ics`, { headers });
    const text = await response.text();
    return { status: response.status, text, token: response.headers.get('sync-token') ?? '' };
  },
  CalDAV: async (key, since) => {
    const body = `<sync-collection xmlns="DAV:" xmlns:C="urn:ietf:params:xml:ns:caldav"><sync-token>${since ?? ''}</sync-token>
      <sync-level>1</sync-level><prop><getetag/><C:calendar-data/></prop></sync-collection>`;
    const response = await fetch(`${server.base}/dav/${key}/`, {
      method: 'REPORT',
      body,
      headers: { 'content-type': 'application/xml' },
    });
    const text = await response.text();
    return { status: response.status, text, token: /<(?:\w+:)?sync-token>([^<]+)</.exec(text)?.[1] ?? '' };
  },
};
const REFUSED = { 'the subscription upgrade': 409, CalDAV: 403 } as const;

describe('a back-up that is restored', () => {
  it('gives the same bytes again; programs that hold something newer read everything once more', async () => {
    const { body } = await client.call(
      'POST',
      '/windows',
      windowInput(calendarId, 'tinted', { hostZone: 'UTC' }),
    );
    const { token } = body.keys[0];
    await write('Kept');
    const forms = ['.ics', '.json', '.csv', '.atom', '.ifb'];
    const bytes = async () => {
      const answers: string[] = [];
      for (const form of forms)
        answers.push(await (await fetch(`${server.base}/feed/${token}${form}`)).text());
      return answers;
    };
    await eventually(async () => expect((await bytes())[0]).toContain('Kept'));
    const before = await bytes();
    const held: Record<string, { kept: string; lost: string }> = {};
    for (const [way, ask] of Object.entries(WAYS))
      held[way] = { kept: (await ask(token, null)).token, lost: '' };
    const store = connect(database);
    await MailRow.create({
      kind: 'test',
      recipient: 'a@b.example',
      subject: '',
      content: null,
      state: 'waiting',
    });
    await store.close();

    const file = join(folder, 'house.backup');
    const made = command('backup', file);
    expect(made, made.output).toMatchObject({ status: 0 });
    expect(command('backup', file).output).toContain('is there already');

    await write('Lost');
    await eventually(async () => expect((await bytes())[0]).toContain('Lost'));
    for (const [way, ask] of Object.entries(WAYS)) held[way]!.lost = (await ask(token, null)).token;

    // Nothing is replaced by accident, and nothing under a server that runs.
    expect(command('restore', file).output).toContain('--replace');
    expect(command('restore', '--replace', file).output).toContain('Stop them');
    await server.stop();
    const restored = command('restore', '--replace', file);
    expect(restored, restored.output).toMatchObject({ status: 0 });
    await start();
    await eventually(async () => expect(await bytes()).toEqual(before));

    // The next revision has the number of the one that was lost.
    await write('Found');
    await eventually(async () => expect((await bytes())[0]).toContain('Found'));
    for (const [way, ask] of Object.entries(WAYS)) {
      const { kept, lost } = held[way]!;
      const since = await ask(token, kept);
      expect([way, since.text.includes('Found'), since.text.includes('Kept')]).toEqual([way, true, false]);
      expect([way, (await ask(token, lost)).status]).toEqual([way, REFUSED[way as keyof typeof REFUSED]]);
    }
    const mails = (await client.call('GET', '/post')).body;
    expect(JSON.stringify(mails)).toContain('may have been sent before');
  });

  it('is noticed by a server that goes on, as after a fail-over that lost the last changes', async () => {
    const { body } = await client.call(
      'POST',
      '/windows',
      windowInput(calendarId, 'tinted', { name: 'Other' }),
    );
    const { token } = body.keys[0];
    // It concerns no view, so what is stored of views is as old as the log will be.
    const plate = { name: 'Lost', description: '', zone: 'UTC', plate: 'LO', colour: 'teal' };
    expect((await client.call('POST', '/calendars', plate)).status).toBe(201);
    const store = connect(database);
    // The last change is gone, and the next one gets its number.
    await store.query(`DELETE FROM changes WHERE id = (SELECT max(id) FROM changes)`);
    await store.query(`SELECT setval('changes_id_seq', (SELECT max(id) FROM changes))`);
    await store.close();
    // Only once: another change would have a number that is new to the server anyway.
    await write('Afterwards');
    await eventually(async () => {
      expect((await fetch(`${server.base}/healthz`)).status).toBe(200);
      expect(await (await fetch(`${server.base}/feed/${token}.ics`)).text()).toContain('Afterwards');
    });
  });
});
