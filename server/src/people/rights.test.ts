import type { CallName } from '@zonal/core/api';
import { EMPTY_CONTENT } from '@zonal/core/entries';
import { CALL_RIGHTS, may, type Who } from '@zonal/core/rights';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { UserRow, WindowRow, WishRow } from '../db/models';
import { TestClient, colleague, freshDatabase, makeTo, testServer, windowInput } from '../testing';

let server: Awaited<ReturnType<typeof testServer>>;
let steward: TestClient;
const clients = {} as Record<Exclude<Who, 'steward'> | 'stranger', TestClient>;
const ids = {} as Record<string, string>;
let serial = 0;
let open: Place;
let hidden: Place;

beforeAll(async () => {
  server = await testServer(await freshDatabase());
  steward = new TestClient(server.base);
  await steward.signIn();
  for (const who of ['publisher', 'editor', 'reader', 'house', 'stranger'] as const) {
    const made = await colleague(server.base, who);
    clients[who] = made.client;
    ids[who] = made.id;
  }
  [open, hidden] = [await place(), await place('shut')];
});
afterAll(() => server.close());

const DAY = new Date(Date.now() + 86_400_000).toISOString().slice(0, 10);
const input = (parts: object = {}) => ({
  ...EMPTY_CONTENT,
  title: 'Talks',
  start: { kind: 'zoned', at: `${DAY}T10:00:00`, zone: 'America/Halifax' },
  end: { kind: 'zoned', at: `${DAY}T11:00:00`, zone: 'America/Halifax' },
  recurrence: null,
  overrides: [],
  ...parts,
});

/** A calendar with an entry and a window; everybody is to it what they are called, and the house sees it tinted. */
async function place(houseGlass = 'tinted') {
  const name = `Calendar ${++serial}`;
  const plate = { plate: 'CA', colour: 'teal', zone: 'America/Halifax', description: '' };
  const { body: calendar } = await steward.call('POST', '/calendars', { ...plate, name });
  const steady = await UserRow.findOne({ where: { role: 'steward' } });
  const people = [
    { userId: steady!.id, standing: 'publisher', glass: null },
    { userId: ids['publisher']!, standing: 'publisher', glass: null },
    { userId: ids['editor']!, standing: 'editor', glass: null },
    { userId: ids['reader']!, standing: 'reader', glass: 'clear' },
  ];
  const kept = await steward.call('PUT', `/calendars/${calendar.id}/people`, {
    people,
    houseGlass,
    known: false,
    labelHolds: [],
    version: 1,
  });
  expect(kept.status).toBe(200);
  const { body: entry } = await steward.call('POST', `/calendars/${calendar.id}/entries`, input());
  const { body: window } = await steward.call(
    'POST',
    '/windows',
    windowInput(calendar.id, 'tinted', { name }),
  );
  return { calendar, entry, window, people };
}

type Place = Awaited<ReturnType<typeof place>>;
type Make = (place: Place, client: TestClient) => Made | Promise<Made>;
type Made = readonly [path: string, body?: unknown, type?: string];

const sheetOf = async ({ window }: Place, client: TestClient) => {
  const items = [{ windowId: window.id, keyId: window.keys[0].id }];
  const made = await client.call('POST', '/sheets', { name: `Sheet ${++serial}`, note: '', items });
  const id =
    made.status < 300
      ? made.body.id
      : (await steward.call('POST', '/sheets', { name: 'S', note: '', items })).body.id;
  return { id, items };
};
/** An edit of one's own, in a state; who may not write has none. */
const editOf = async (
  { calendar }: Place,
  client: TestClient,
  state: 'staged' | 'applied' | 'taken-back' = 'staged',
) => {
  const changes = [{ version: 0, calendarId: calendar.id, entry: input() }];
  const made = await client.call('POST', '/edits', { label: 'x', staged: state === 'staged', changes });
  if (made.status >= 300) return '7b0bbe40-0000-4000-8000-000000000000';
  if (state === 'taken-back') await client.call('POST', `/edits/${made.body.id}/take-back`);
  return made.body.id;
};
/** The push of a key, which a steward has set up. */
const havingPush = async ({ window }: Place) => {
  const path = `/keys/${window.keys[0].id}/push`;
  await steward.call('PUT', path, { address: 'https://system.invalid/in', version: 0 });
  return [path] as const;
};
/** One grey dot (PNG). */
const PICTURE = Buffer.from(
  'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAAAAAA6fptVAAAACklEQVR4nGNoAAAAggCBd81ytgAAAABJRU5ErkJggg==',
  'base64',
);
const plate = { plate: 'CB', colour: 'teal', zone: 'America/Halifax', description: '' };
const mailServer = { host: 'mail.example', port: 25, secure: false, account: '', sender: 'a@house.example' };
const keyInput = { madeOutTo: 'X', audience: 'street', cap: null, contact: '', notes: '', expiresAt: null };

/** How each call is made; those that are made with no calendar, or that no right is asked for, are not here. */
const CALLS: Partial<Record<CallName, Make>> = {
  'PUT /calendars/:id': ({ calendar }) => [
    `/calendars/${calendar.id}`,
    { ...plate, name: `New ${++serial}`, version: 1 },
  ],
  'DELETE /calendars/:id': ({ calendar }) => [`/calendars/${calendar.id}?windows=take-out`],
  'PUT /calendars/:id/archive': ({ calendar }) => [`/calendars/${calendar.id}/archive`, { archived: false }],
  'POST /calendars/:id/zone': ({ calendar }) => [
    `/calendars/${calendar.id}/zone`,
    { zone: 'Europe/Lisbon', keep: 'clock-times' },
  ],
  'GET /calendars/:id/impact': ({ calendar }) => [`/calendars/${calendar.id}/impact`],
  'POST /calendars/:id/lock-down': ({ calendar }) => [`/calendars/${calendar.id}/lock-down`],
  'DELETE /calendars/:id/lock-down': ({ calendar }) => [`/calendars/${calendar.id}/lock-down`],
  'GET /calendars/:id/people': ({ calendar }) => [`/calendars/${calendar.id}/people`],
  'PUT /calendars/:id/people': ({ calendar, people }) => [
    `/calendars/${calendar.id}/people`,
    { people, houseGlass: 'tinted', known: false, labelHolds: [], version: 2 },
  ],
  'GET /calendars/:id/entries': ({ calendar }) => [`/calendars/${calendar.id}/entries`],
  'POST /calendars/:id/entries': ({ calendar }) => [`/calendars/${calendar.id}/entries`, input()],
  'POST /calendars/:id/images': ({ calendar }) => [`/calendars/${calendar.id}/images`, PICTURE, 'image/png'],
  'GET /entries/:id': ({ entry }) => [`/entries/${entry.id}`],
  'GET /entries/:id/history': ({ entry }) => [`/entries/${entry.id}/history`],
  'PUT /entries/:id': ({ entry }) => [`/entries/${entry.id}`, { ...input({ title: 'Other' }), version: 1 }],
  'DELETE /entries/:id': ({ entry }) => [`/entries/${entry.id}?version=1`],
  'POST /edits': ({ calendar }) => [
    '/edits',
    { label: 'x', changes: [{ version: 0, calendarId: calendar.id, entry: input() }] },
  ],
  'POST /edits/:id/changes': async (at, client) => [
    `/edits/${await editOf(at, client)}/changes`,
    { changes: [{ version: 0, calendarId: at.calendar.id, entry: input() }] },
  ],
  'DELETE /edits/:id': async (at, client) => [`/edits/${await editOf(at, client)}`],
  'POST /edits/:id/apply': async (at, client) => [`/edits/${await editOf(at, client)}/apply`],
  'POST /edits/:id/take-back': async (at, client) => [
    `/edits/${await editOf(at, client, 'applied')}/take-back`,
  ],
  'POST /edits/:id/again': async (at, client) => [`/edits/${await editOf(at, client, 'taken-back')}/again`],
  'GET /windows/:id': ({ window }) => [`/windows/${window.id}`],
  'POST /windows': ({ calendar }) => ['/windows', windowInput(calendar.id, 'tinted')],
  'PUT /windows/:id': ({ window, calendar }) => [
    `/windows/${window.id}`,
    { ...windowInput(calendar.id, 'tinted'), version: 1 },
  ],
  'PUT /windows/:id/draft': ({ window }) => [
    `/windows/${window.id}/draft`,
    { body: { name: 'x' }, version: 0 },
  ],
  'DELETE /windows/:id/draft': ({ window }) => [`/windows/${window.id}/draft`],
  'POST /windows/:id/schedule': async ({ window }) => {
    await steward.call('PUT', `/windows/${window.id}/draft`, { body: { name: 'x' }, version: 0 });
    return [`/windows/${window.id}/schedule`, { at: null }];
  },
  'GET /windows/:id/versions': ({ window }) => [`/windows/${window.id}/versions`],
  'DELETE /windows/:id/sources/:calendarId': ({ window, calendar }) => [
    `/windows/${window.id}/sources/${calendar.id}`,
  ],
  'PUT /windows/:id/closing': ({ window }) => [
    `/windows/${window.id}/closing`,
    { at: null, farewell: false, was: null },
  ],
  'POST /windows/:id/close': ({ window }) => [`/windows/${window.id}/close`],
  'POST /windows/:id/open': ({ window }) => [`/windows/${window.id}/open`],
  'DELETE /windows/:id': async ({ window }) => {
    await WindowRow.update({ closedAt: new Date() }, { where: { id: window.id } });
    return [`/windows/${window.id}`];
  },
  'GET /keys/:id/revision': ({ window }) => [`/keys/${window.keys[0].id}/revision`],
  'POST /windows/:id/keys': ({ window }) => [`/windows/${window.id}/keys`, keyInput],
  'PUT /keys/:id': ({ window }) => [`/keys/${window.keys[0].id}`, { ...keyInput, version: 1 }],
  'PUT /keys/:id/embed': ({ window }) => [
    `/keys/${window.keys[0].id}/embed`,
    { look: {}, hosts: [], version: 1 },
  ],
  'POST /keys/:id/turn': ({ window }) => [`/keys/${window.keys[0].id}/turn`, { graceDays: 1 }],
  'POST /keys/:id/withdraw': ({ window }) => [`/keys/${window.keys[0].id}/withdraw`],
  'POST /keys/:id/bring-back': ({ window }) => [`/keys/${window.keys[0].id}/bring-back`],
  'GET /keys/:id/ledger': ({ window }) => [`/keys/${window.keys[0].id}/ledger`],
  'GET /keys/:id/ledger/:number': async ({ window }) => {
    await fetch(server.base + new URL(window.keys[0].feed).pathname);
    return [`/keys/${window.keys[0].id}/ledger/1`];
  },
  'GET /keys/:id/push': ({ window }) => [`/keys/${window.keys[0].id}/push`],
  'PUT /keys/:id/push': ({ window }) => [
    `/keys/${window.keys[0].id}/push`,
    { address: 'https://system.invalid/in', version: 0 },
  ],
  'PUT /keys/:id/push/state': async (at) => {
    const [path] = await havingPush(at);
    return [`${path}/state`, { paused: true }];
  },
  'POST /keys/:id/push/secret': async (at) => [`${(await havingPush(at))[0]}/secret`],
  'POST /keys/:id/push/test': async (at) => [`${(await havingPush(at))[0]}/test`],
  'DELETE /keys/:id/push': havingPush,
  'GET /windows/:id/reach': ({ window }) => [`/windows/${window.id}/reach`],
  'PUT /windows/:id/alerts': ({ window }) => [
    `/windows/${window.id}/alerts`,
    { kind: 'late', keyId: null, muted: true },
  ],
  'PUT /windows/:id/urgent': ({ window }) => [`/windows/${window.id}/urgent`, { by: null }],
  'POST /windows/:id/reach/mail': ({ window }) => [
    `/windows/${window.id}/reach/mail`,
    { keyIds: [window.keys[0].id], words: '' },
  ],
  'POST /sheets': ({ window }) => [
    '/sheets',
    { name: 'x', note: '', items: [{ windowId: window.id, keyId: window.keys[0].id }] },
  ],
  'POST /sheets/check': ({ window }) => [
    '/sheets/check',
    { items: [{ windowId: window.id, keyId: window.keys[0].id }] },
  ],
  'PUT /sheets/:id': async (at, client) => {
    const { id, items } = await sheetOf(at, client);
    return [`/sheets/${id}`, { name: 'y', note: '', items, version: 1 }];
  },
  'POST /sheets/:id/turn': async (at, client) => [`/sheets/${(await sheetOf(at, client)).id}/turn`],
  'POST /sheets/:id/withdraw': async (at, client) => [`/sheets/${(await sheetOf(at, client)).id}/withdraw`],
  'POST /sheets/:id/bring-back': async (at, client) => [
    `/sheets/${(await sheetOf(at, client)).id}/bring-back`,
  ],
  'PUT /directory/:id/desk': ({ calendar }) => [`/directory/${calendar.id}/desk`, { onDesk: true }],
  'POST /calendars/:id/wishes': ({ calendar }) => [
    `/calendars/${calendar.id}/wishes`,
    { standing: 'reader', glass: 'clear', reason: 'x' },
  ],
  'POST /wishes/:id': async ({ calendar }) => {
    const row = { calendarId: calendar.id, standing: 'reader' as const, glass: 'clear' as const, reason: '' };
    const asker = await colleague(server.base, `asker${++serial}`);
    const { id } = await WishRow.create({ ...row, userId: asker.id, state: 'open' });
    return [`/wishes/${id}`, { grant: true, standing: 'reader', glass: 'tinted' }];
  },
  'POST /ceilings/requests': ({ calendar }) => [
    '/ceilings/requests',
    { calendarId: calendar.id, audience: 'street', glass: 'clear', reason: 'x' },
  ],
};

describe('every call of the API', () => {
  const asked = (Object.entries(CALL_RIGHTS) as [CallName, (typeof CALL_RIGHTS)[CallName]][]).flatMap(
    ([name, right]) => (typeof right === 'object' ? [{ name, ...right }] : []),
  );

  it('that asks for a right is tried here', () => {
    const missing = asked.map((a) => a.name).filter((n) => !CALLS[n]);
    expect(missing).toEqual([]);
  });

  it.each(asked)('$name is let through by the table, and by nothing else', async ({ name, deed }) => {
    const all: readonly [Who, TestClient][] = [
      ['house', clients.house],
      ['reader', clients.reader],
      ['editor', clients.editor],
      ['publisher', clients.publisher],
      ['steward', steward],
    ];
    for (const [who, client] of all) {
      // Who may not changes nothing, so one will do for all of them.
      const at = may(deed, who) ? await place() : open;
      const [path, body, type] = await CALLS[name]!(at, client);
      const answer = await client.call(name.split(' ')[0]!, path, body, type);
      const told = `${who}: ${answer.status} ${JSON.stringify(answer.body).slice(0, 200)}`;
      if (may(deed, who)) expect(answer.status, told).toBeLessThan(300);
      else {
        expect([403, 404, 422], told).toContain(answer.status);
        expect(['not-allowed', 'not-found', 'link-unknown', 'source-missing'], told).toContain(
          answer.body.code,
        );
      }
    }
    // Of a calendar that nobody lets them see, they learn not even that it is there.
    const [path, body, type] = await CALLS[name]!(hidden, clients.stranger);
    const answer = await clients.stranger.call(name.split(' ')[0]!, path, body, type);
    expect(
      ['not-found', 'link-unknown', 'source-missing'],
      `${answer.status} ${JSON.stringify(answer.body)}`,
    ).toContain(answer.body.code);
  });

  it.each(asked)('$name does not say whether there is what the asker may not know of', async ({ name }) => {
    const none = '7b0bbe40-0000-4000-8000-000000000000';
    // The stranger sees nothing of the one place; the reader sees entries of the other, and no windows.
    const unknown: readonly [TestClient, Place, (keyof Place)[]][] = [
      [clients.stranger, hidden, ['calendar', 'entry', 'window']],
      [clients.reader, open, ['window']],
    ];
    for (const [client, at, parts] of unknown) {
      const [path, body, type] = await CALLS[name]!(at, client);
      const ids = parts.flatMap((part) => [
        at[part].id,
        ...(part === 'window' ? [at.window.keys[0].id] : []),
      ]);
      const without = (text: string) => ids.reduce((t, id) => t.replaceAll(id, none), text);
      if (without(path) === path) continue;
      const method = name.split(' ')[0]!;
      const there = await client.call(method, path, body, type);
      const other = body === undefined || type ? body : JSON.parse(without(JSON.stringify(body)));
      const missing = await client.call(method, without(path), other, type);
      expect([there.status, there.body]).toEqual([missing.status, missing.body]);
    }
  });

  it.each(
    Object.entries(CALL_RIGHTS)
      .filter(([, right]) => right === 'steward')
      .map(([name]) => name),
  )('%s is a steward’s', async (name) => {
    const path = name.split(' ')[1]!.replace(/:id|:name/, '7b0bbe40-0000-4000-8000-000000000000');
    const house = (await steward.call('GET', '/house')).body;
    const bodies: Record<string, unknown> = {
      'PUT /house': house,
      'PUT /ceilings': { calendarId: null, audience: 'street', glass: 'clear' },
      'POST /ceilings/requests/:id': { grant: false },
      'PUT /people/:id/steward': { steward: true },
      'PUT /people/:id/rest': { rested: true },
      'POST /invitations': { emails: ['new@ostrel.example'], steward: false, standings: [] },
      'PUT /invitations/:id': { steward: true, standings: [], version: 1 },
      'PUT /post/server': { ...mailServer, password: null, version: 0 },
    };
    const answer = await clients.publisher.call(name.split(' ')[0]!, path, bodies[name]);
    expect([answer.status, answer.body.code]).toEqual([403, 'steward-only']);
  });

  it('says who could do what one may not', async () => {
    const { calendar } = await place();
    const answer = await clients.reader.call('POST', `/calendars/${calendar.id}/entries`, input());
    expect(answer.body.message).toBe(
      'To write entries in this calendar you need to be an editor of the calendar, a publisher of the calendar or a steward of the house. Ask one of them to do it or to give you the right.',
    );
    const german = { 'accept-language': 'de-AT, en;q=0.5' };
    const path = `/calendars/${calendar.id}/entries`;
    const refused = await clients.reader.call('POST', path, input(), 'application/json', german);
    expect(refused.body.message).toContain('Einträge in diesem Kalender schreiben');
    expect(refused.body.message).toContain('die Verwaltung des Hauses');
  });

  it('lets nobody in who is not signed in', async () => {
    for (const [name, right] of Object.entries(CALL_RIGHTS)) {
      if (right === 'anybody') continue;
      const [method, form] = name.split(' ') as [string, string];
      const path = form.replace(/:\w+/g, '7b0bbe40-0000-4000-8000-000000000000');
      const answer = await new TestClient(server.base).call(method, path, method === 'GET' ? undefined : {});
      expect([401, 403], name).toContain(answer.status);
    }
  });
});

describe('names of calendars', () => {
  it('are told to be taken only where one sees the calendar that has them', async () => {
    const { calendar } = await place('shut');
    const make = (client: TestClient) => client.call('POST', '/calendars', { ...plate, name: calendar.name });
    expect((await make(clients.stranger)).status).toBe(201);
    expect((await make(clients.stranger)).body.code).toBe('name-taken');
    expect((await make(clients.reader)).body.code).toBe('name-taken');
  });
});

describe('people of a calendar', () => {
  it('lose at once what is taken from them, and a calendar keeps a publisher', async () => {
    const { calendar, people } = await place('shut');
    const entries = async () =>
      (await clients.reader.call('GET', `/calendars/${calendar.id}/entries`)).status;
    expect(await entries()).toBe(200);
    const put = (list: object[], version: number) =>
      clients.publisher.call('PUT', `/calendars/${calendar.id}/people`, {
        people: list,
        houseGlass: 'shut',
        known: false,
        labelHolds: [],
        version,
      });
    expect((await put([], 2)).body.code).toBe('publisher-missing');
    expect((await put(people.slice(0, 3), 1)).body.code).toBe('version-conflict');
    const gone = [...people.slice(0, 3), { userId: calendar.id, standing: 'reader', glass: 'clear' }];
    expect((await put(gone, 2)).body.code).toBe('person-unknown');
    expect((await put(people.slice(0, 3), 2)).status).toBe(200);
    expect(await entries()).toBe(404);
    const told = (await clients.publisher.call('GET', `/calendars/${calendar.id}/people`)).body;
    expect(told.people.map((p: any) => [p.name, p.standing, p.by])).toEqual([
      ['Ida', 'publisher', 'Ida'],
      ['publisher', 'publisher', 'Ida'],
      ['editor', 'editor', 'Ida'],
    ]);
  });

  it('who publish one of a window’s calendars see it and take theirs out; all of them change it', async () => {
    const [one, other] = [await place('shut'), await place('shut')];
    const outsider = await colleague(server.base, `only${++serial}`);
    await makeTo(one.calendar.id, outsider.id, 'publisher');
    const { body: window } = await steward.call(
      'POST',
      '/windows',
      windowInput([one.calendar.id, other.calendar.id], 'tinted'),
    );
    const { client } = outsider;
    expect((await client.call('GET', '/windows')).body.map((w: any) => w.id)).toContain(window.id);
    const closing = await client.call('POST', `/windows/${window.id}/close`);
    expect(closing.body.code).toBe('not-allowed');
    const others = `/windows/${window.id}/sources/${other.calendar.id}`;
    expect((await client.call('DELETE', others)).body.code).toBe('not-found');
    const taken = await client.call('DELETE', `/windows/${window.id}/sources/${one.calendar.id}`);
    expect(taken.status).toBe(200);
    expect(taken.body.sources.map((s: any) => s.calendarId)).toEqual([other.calendar.id]);
    expect((await client.call('GET', `/windows/${window.id}`)).status).toBe(404);
  });
});
