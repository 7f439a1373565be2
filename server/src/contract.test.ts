import type { CallName } from '@zonal/core/api';
import { EMPTY_CONTENT } from '@zonal/core/entries';
import { Ajv } from 'ajv';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { KeyRow } from './db/models';
import {
  EMAIL,
  PASSWORD,
  TestClient,
  eventually,
  freshDatabase,
  lettersTo,
  testServer,
  windowInput,
} from './testing';

interface Schemas {
  readonly calls: Readonly<Record<string, object | null>>;
  readonly schemas: Readonly<Record<string, object>>;
}

let server: Awaited<ReturnType<typeof testServer>>;
let client: TestClient;
let answers: Schemas;
const folder = mkdtempSync(join(tmpdir(), 'zonal-contract-'));

beforeAll(async () => {
  // What the build writes down of core's types.
  const maker = '../../scripts/lib/answerSchemas.mjs';
  answers = ((await import(maker)) as { answerSchemas: () => Schemas }).answerSchemas();
  const answersFile = join(folder, 'answers.json');
  writeFileSync(answersFile, JSON.stringify(answers));
  const demoAccounts = [{ name: 'Ida', email: EMAIL, password: PASSWORD, role: 'steward' }];
  server = await testServer(await freshDatabase(), { answersFile, demoAccounts });
  client = new TestClient(server.base);
  await client.signIn();
});
afterAll(async () => {
  await server.close();
  rmSync(folder, { recursive: true });
});

/** Makes a call that succeeds, and checks that its answer is what core's types say; returns it. */
async function told(name: CallName, path: string, body?: unknown, type?: string): Promise<any> {
  const answer = await client.call(name.split(' ')[0]!, path, body, type);
  expect(answer.status, `${name}: ${JSON.stringify(answer.body)}`).toBeLessThan(300);
  const schema = answers.calls[name];
  expect(schema, name).not.toBe(undefined);
  if (schema === null) expect(answer.body, name).toBe(null);
  else {
    const ajv = new Ajv({ strict: false, allErrors: true });
    for (const [key, one] of Object.entries(answers.schemas))
      ajv.addSchema(one, `#/components/schemas/${key}`);
    const fits = ajv.compile(schema!);
    expect(fits(answer.body), `${name}: ${JSON.stringify(fits.errors)}`).toBe(true);
  }
  seen.add(name);
  return answer.body;
}
const seen = new Set<CallName>();

describe('the answers of the API', () => {
  it('are what core says that they are, call by call, and nothing more', async () => {
    const plate = { plate: 'QU', colour: 'teal', zone: 'America/Halifax', description: '' };
    const { id } = await told('POST /calendars', '/calendars', { ...plate, name: 'Quay' });
    await told('PUT /calendars/:id', `/calendars/${id}`, { ...plate, name: 'Quays', version: 1 });
    await told('PUT /calendars/:id/archive', `/calendars/${id}/archive`, { archived: false });
    const at = (hour: number) => ({
      kind: 'zoned',
      at: `${new Date(Date.now() + 86_400_000).toISOString().slice(0, 10)}T${hour}:00:00`,
      zone: 'America/Halifax',
    });
    const written = {
      ...EMPTY_CONTENT,
      title: 'Market',
      labels: ['fair'],
      people: [{ name: 'Crew', address: '', group: true }],
      kept: [['x-note', {}, 'text', 'kept']],
      start: at(10),
      end: at(12),
      recurrence: { rule: 'FREQ=DAILY;COUNT=9', dates: [], exceptDates: [] },
      overrides: [{ slot: at(10), start: at(11), end: at(12), content: EMPTY_CONTENT }],
    };
    const entry = await told('POST /calendars/:id/entries', `/calendars/${id}/entries`, written);
    await told('PUT /entries/:id', `/entries/${entry.id}`, { ...written, place: 'Quay 2', version: 1 });
    await told('GET /entries/:id', `/entries/${entry.id}`);
    await told('GET /entries/:id/history', `/entries/${entry.id}/history`);
    await told('GET /calendars/:id/entries', `/calendars/${id}/entries`);
    const dot = Buffer.from(
      'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAAAAAA6fptVAAAACklEQVR4nGNoAAAAggCBd81ytgAAAABJRU5ErkJggg==',
      'base64',
    );
    const image = await told('POST /calendars/:id/images', `/calendars/${id}/images`, dot, 'image/png');
    const shown = await fetch(`${server.base}/api/calendars/${id}/images/${image.name}`, {
      headers: client.headers(),
    });
    expect(shown.headers.get('content-type')).toBe('image/webp');
    seen.add('GET /calendars/:id/images/:name');
    await told('GET /find', '/find?text=market&in=text');
    const change = { version: 0, calendarId: id, entry: { ...written, recurrence: null, overrides: [] } };
    const staged = await told('POST /edits', '/edits', { label: 'Two', changes: [], staged: true });
    await told('POST /edits/:id/changes', `/edits/${staged.id}/changes`, { changes: [change] });
    await told('POST /edits/:id/apply', `/edits/${staged.id}/apply`);
    await told('POST /edits/:id/take-back', `/edits/${staged.id}/take-back`);
    await told('POST /edits/:id/again', `/edits/${staged.id}/again`);
    await told('DELETE /edits/:id', `/edits/${staged.id}`);

    const input = windowInput(id, 'clear', { filter: { field: 'label', value: 'fair' } });
    const window = await told('POST /windows', '/windows', input);
    await told('PUT /windows/:id', `/windows/${window.id}`, { ...input, version: 1, name: 'Other' });
    await told('PUT /windows/:id/draft', `/windows/${window.id}/draft`, { body: { name: '' }, version: 0 });
    await told('POST /windows/:id/schedule', `/windows/${window.id}/schedule`, { at: null });
    await told('GET /windows', '/windows');
    await told('GET /windows/:id', `/windows/${window.id}`);
    await told('GET /windows/:id/versions', `/windows/${window.id}/versions`);
    await told('DELETE /windows/:id/draft', `/windows/${window.id}/draft`);
    const key = window.keys[0];
    await fetch(`${server.base}/feed/${key.token}.ics`);
    await told('GET /keys/:id/revision', `/keys/${key.id}/revision`);
    const [line] = await told('GET /keys/:id/ledger', `/keys/${key.id}/ledger`);
    await told('GET /keys/:id/ledger/:number', `/keys/${key.id}/ledger/${line.number}`);
    // Once the program that has just looked is counted.
    await eventually(async () => {
      const { body } = await client.call('GET', `/windows/${window.id}/reach`);
      expect(body.keys[0].subscribers).toHaveLength(1);
    });
    await KeyRow.sequelize!.query(
      `INSERT INTO alerts (kind, window_id, say, since) VALUES ('late', :id, 'x', now())`,
      { replacements: { id: window.id } },
    );
    await told('GET /windows/:id/reach', `/windows/${window.id}/reach`);
    await told('GET /reach', '/reach');
    await told('GET /reach/knowing', '/reach/knowing?by=2999-01-01T00:00:00Z');
    await told('GET /alerts', '/alerts');
    const muted = { kind: 'late', keyId: null, muted: true };
    await told('PUT /windows/:id/alerts', `/windows/${window.id}/alerts`, muted);
    const by = '2999-01-01T00:00:00Z';
    await told('PUT /windows/:id/urgent', `/windows/${window.id}/urgent`, { by });
    await told('POST /windows/:id/reach/mail', `/windows/${window.id}/reach/mail`, {
      keyIds: [key.id],
      words: '',
    });
    const push = `/keys/${key.id}/push`;
    const address = 'https://system.invalid/in';
    await told('PUT /keys/:id/push', push, { address, version: 0 });
    await told('POST /keys/:id/push/test', `${push}/test`);
    await told('GET /keys/:id/push', push);
    await told('PUT /keys/:id/push/state', `${push}/state`, { paused: true });
    await told('POST /keys/:id/push/secret', `${push}/secret`);
    await told('DELETE /keys/:id/push', push);
    const wanted = { madeOutTo: 'Town site', audience: 'street', cap: null, contact: '', notes: '' };
    const end = { ...wanted, expiresAt: null };
    await told('PUT /keys/:id', `/keys/${key.id}`, { ...end, version: key.version });
    await told('POST /windows/:id/keys', `/windows/${window.id}/keys`, { ...end, cap: 'frosted' });
    await told('PUT /keys/:id/embed', `/keys/${key.id}/embed`, {
      look: { show: 'week', parts: 'turn' },
      hosts: ['town.example'],
      version: key.version + 1,
    });
    await told('POST /keys/:id/turn', `/keys/${key.id}/turn`, { graceDays: 3 });
    await told('POST /keys/:id/withdraw', `/keys/${key.id}/withdraw`);
    await told('POST /keys/:id/bring-back', `/keys/${key.id}/bring-back`);
    const items = [{ windowId: window.id, keyId: key.id }];
    await told('POST /sheets/check', '/sheets/check', { items });
    const sheet = await told('POST /sheets', '/sheets', { name: 'Agents', note: '', items });
    await told('PUT /sheets/:id', `/sheets/${sheet.id}`, { name: 'All', note: '', items: [], version: 1 });
    await told('POST /sheets/:id/turn', `/sheets/${sheet.id}/turn`);
    await told('POST /sheets/:id/withdraw', `/sheets/${sheet.id}/withdraw`);
    await told('POST /sheets/:id/bring-back', `/sheets/${sheet.id}/bring-back`);
    await told('GET /sheets', '/sheets');
    await told('PUT /windows/:id/closing', `/windows/${window.id}/closing`, {
      at: '2999-01-01T00:00:00Z',
      farewell: true,
      was: null,
    });
    await told('POST /windows/:id/close', `/windows/${window.id}/close`);
    await told('POST /windows/:id/open', `/windows/${window.id}/open`);

    const { body: short } = await client.call(
      'POST',
      '/windows',
      windowInput(id, 'tinted', { name: 'Soon gone' }),
    );
    await client.call('POST', `/windows/${short.id}/close`);
    await told('DELETE /windows/:id', `/windows/${short.id}`);

    const [{ id: own }] = await told('GET /people', '/people');
    await told('PUT /people/:id/steward', `/people/${own}/steward`, { steward: true });
    await told('POST /people/:id/password-address', `/people/${own}/password-address`);
    await told('PUT /people/:id/rest', `/people/${own}/rest`, { rested: false });
    const ask = { emails: ['new@ostrel.example', 'other@ostrel.example'], steward: false };
    const reads = [{ calendarId: id, standing: 'reader', glass: 'tinted' }];
    const asked = await told('POST /invitations', '/invitations', { ...ask, standings: reads });
    const [one, other] = ask.emails.map((email) => asked.find((i: any) => i.email === email));
    await told('PUT /invitations/:id', `/invitations/${one.id}`, {
      steward: false,
      standings: [],
      version: 1,
    });
    await told('POST /invitations/:id/resend', `/invitations/${one.id}/resend`);
    await told('DELETE /invitations/:id', `/invitations/${other.id}`);
    await told('GET /invitations', '/invitations');
    const { token } = (await lettersTo(one.email)).at(-1)!;
    await told('POST /passes', '/passes', { token });
    const newcomer = { token, name: 'New', password: 'a word of their own' };
    const came = new TestClient(server.base);
    await came.call('GET', '/session');
    expect((await came.call('POST', '/passes/invitation', newcomer)).status).toBe(200);
    seen.add('POST /passes/invitation');
    await told('GET /account', '/account');
    await told('PUT /account', '/account', { name: 'Ida' });
    await told('PUT /account/password', '/account/password', { password: PASSWORD, next: `${PASSWORD}s` });
    await told('PUT /account/password', '/account/password', { password: `${PASSWORD}s`, next: PASSWORD });
    await told('POST /account/address', '/account/address', {
      email: 'i@ostrel.example',
      password: PASSWORD,
    });
    await told('POST /forgotten', '/forgotten', { email: one.email });
    await told('GET /journal', '/journal?area=keys');
    const post = await told('GET /post', '/post');
    const mailServer = {
      host: 'mail.example',
      port: 25,
      secure: false,
      account: '',
      sender: 'a@house.example',
    };
    await told('PUT /post/server', '/post/server', { ...mailServer, password: 'x', version: post.version });
    const { mails } = await told('POST /post/test', '/post/test');
    await told('POST /post/:id/again', `/post/${mails[0].id}/again`);
    await told('DELETE /post/server', '/post/server');
    const people = await told('GET /calendars/:id/people', `/calendars/${id}/people`);
    await told('PUT /calendars/:id/people', `/calendars/${id}/people`, {
      people: people.people.map(({ userId, standing, glass }: any) => ({ userId, standing, glass })),
      houseGlass: 'frosted',
      known: true,
      labelHolds: [{ label: 'fair', hold: 'frost' }],
      version: people.version,
    });
    await told('GET /standings', '/standings');
    await told('GET /directory', '/directory');
    await told('PUT /directory/:id/desk', `/directory/${id}/desk`, { onDesk: true });
    const wishing = { standing: 'reader', glass: 'clear', reason: 'x' };
    await came.call('POST', `/calendars/${id}/wishes`, wishing);
    const [wished] = await told('GET /wishes', '/wishes');
    await told('POST /wishes/:id', `/wishes/${wished.id}`, { ...wishing, reason: undefined, grant: true });
    const [mine] = (await came.call('POST', `/calendars/${id}/wishes`, wishing)).body;
    expect((await came.call('DELETE', `/wishes/${mine.id}`)).status).toBe(200);
    seen.add('POST /calendars/:id/wishes').add('DELETE /wishes/:id');
    const two = await told('POST /calendars', '/calendars', { ...plate, name: 'Second', plate: 'SE' });
    const both = await told(
      'POST /windows',
      '/windows',
      windowInput([id, two.id], 'tinted', { name: 'Both' }),
    );
    await told('DELETE /windows/:id/sources/:calendarId', `/windows/${both.id}/sources/${two.id}`);

    const wish = { calendarId: id, audience: 'street', glass: 'tinted' };
    await told('PUT /ceilings', '/ceilings', { ...wish, confirmed: ['most-vanishes'] });
    const { requests } = await told('POST /ceilings/requests', '/ceilings/requests', {
      ...wish,
      reason: 'x',
    });
    await told('POST /ceilings/requests/:id', `/ceilings/requests/${requests[0].id}`, { grant: false });
    const another = { calendarId: id, audience: 'house', glass: 'clear', reason: '' };
    const [withdrawn] = (await client.call('POST', '/ceilings/requests', another)).body.requests;
    await told('DELETE /ceilings/requests/:id', `/ceilings/requests/${withdrawn.id}`);
    await told('GET /ceilings', '/ceilings');
    await told('POST /calendars/:id/lock-down', `/calendars/${id}/lock-down`);
    await told('GET /calendars', '/calendars');
    await told('DELETE /calendars/:id/lock-down', `/calendars/${id}/lock-down`);
    await told('GET /calendars/:id/impact', `/calendars/${id}/impact`);
    const house = await told('GET /house', '/house');
    await told('PUT /house', '/house', { ...house, watchWords: ['salary'] });
    await told('GET /house/watch', '/house/watch');
    await told('GET /labels', '/labels');
    await told('GET /demo', '/demo');
    await told('POST /calendars/:id/zone', `/calendars/${id}/zone`, { zone: 'UTC', keep: 'clock-times' });
    await told('DELETE /entries/:id', `/entries/${entry.id}?version=3`);
    await told('DELETE /calendars/:id', `/calendars/${id}?windows=take-out`);
    await told('DELETE /labels/:name', '/labels/fair');
    await told('GET /session', '/session');
    await told('POST /session', '/session', { email: EMAIL, password: PASSWORD });
    const [firstMail] = await lettersTo('i@ostrel.example');
    await told('POST /passes/address', '/passes/address', { token: firstMail!.token });
    const forgotten = (await lettersTo(one.email)).find((l) => l.kind === 'password');
    const renewed = { token: forgotten!.token, password: 'another word of mine' };
    await told('POST /passes/password', '/passes/password', renewed);
    await told('DELETE /session', '/session');
    await client.call('GET', '/session');
    await told('POST /session', '/session', { email: one.email, password: renewed.password });
    const { devices } = await told('GET /account', '/account');
    await told('DELETE /account/devices/:id', `/account/devices/${devices[0].id}`);
    await client.signIn(PASSWORD, 'i@ostrel.example');
    await told('DELETE /account/devices', '/account/devices');
    // It is made where there is no account yet: firstStart.test.ts.
    seen.add('POST /passes/first');
    const left = (Object.keys(answers.calls) as CallName[]).filter((name) => !seen.has(name));
    expect(left, 'calls that nobody made').toEqual(['GET /changes']);
  });

  it('stand in the description, every call with its own', async () => {
    const api: any = await (await fetch(`${server.base}/api/openapi.json`)).json();
    const described = Object.entries(api.paths).flatMap(([path, methods]) =>
      Object.keys(methods as object).map((method) => {
        const form = path.replace(/^\/api/, '').replace(/\{(\w+)\}/g, ':$1');
        return `${method.toUpperCase()} ${form}`;
      }),
    );
    expect(described.sort()).toEqual(Object.keys(answers.calls).sort());
    const ledger = api.paths['/api/keys/{id}/ledger'].get.responses['200'].content['application/json'].schema;
    expect(ledger).toMatchObject({
      type: 'array',
      items: { $ref: '#/components/schemas/Answer.LedgerLine' },
    });
    expect(Object.keys(api.components.schemas['Answer.LedgerLine'].properties)).toContain('windowVersion');
    const images = api.paths['/api/calendars/{id}/images'].post.requestBody.content;
    expect(Object.keys(images)).toContain('image/png');
    const named = [...JSON.stringify(api).matchAll(/"#\/components\/schemas\/([\w.]+)"/g)].map((m) => m[1]!);
    expect(named.filter((name) => !(name in api.components.schemas))).toEqual([]);
  });
});
