import { EMPTY_CONTENT } from '@zonal/core/entries';
import { DEMANDS, INCLUDE_ALL, USUAL_SWITCHES } from '@zonal/core/glass';
import { DAY as DAY_MS } from '@zonal/core/zones';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { DraftRow, KeyRow, KeyUseRow, LedgerRow, WindowRow } from '../db/models';
import {
  TestClient,
  eventually,
  freshDatabase,
  testServer,
  windowInput,
  colleague,
  makeTo,
} from '../testing';
import { atTime } from '../testingClock';

let server: Awaited<ReturnType<typeof testServer>>;
let client: TestClient;
let publisher: TestClient;
let publisherId: string;
let databaseUrl: string;
/** All that were started; each ends with the tests, as they share the models. */
const servers: (typeof server)[] = [];
let serial = 0;

const DAY = new Date(Date.now() + 3 * 86_400_000).toISOString().slice(0, 10);

beforeAll(async () => {
  databaseUrl = await freshDatabase();
  server = await testServer(databaseUrl);
  servers.push(server);
  client = new TestClient(server.base);
  await client.signIn();
  ({ client: publisher, id: publisherId } = await colleague(server.base, 'Ole'));
});
afterAll(async () => {
  for (const one of servers) await one.close();
});

async function calendar(): Promise<any> {
  const { status, body } = await client.call('POST', '/calendars', {
    name: `Calendar ${++serial}`,
    description: '',
    zone: 'America/Halifax',
    plate: 'CA',
    colour: 'teal',
    shape: 'square',
    pattern: 'solid',
    place: '',
    latitude: null,
    longitude: null,
  });
  expect(status).toBe(201);
  await makeTo(body.id, publisherId, 'publisher');
  return body;
}

async function write(calendarId: string, parts: object = {}): Promise<any> {
  const { status, body } = await client.call('POST', `/calendars/${calendarId}/entries`, {
    ...EMPTY_CONTENT,
    title: 'Sounding',
    start: { kind: 'zoned', at: `${DAY}T09:00:00`, zone: 'America/Halifax' },
    end: { kind: 'zoned', at: `${DAY}T10:00:00`, zone: 'America/Halifax' },
    recurrence: null,
    overrides: [],
    ...parts,
  });
  expect(status, JSON.stringify(body)).toBe(201);
  return body;
}

const input = (id: string, glass: string, parts: object = {}) =>
  windowInput(id, glass, { name: `Window ${++serial}`, ...parts });
async function open(id: string, glass: string, parts: object = {}): Promise<any> {
  const { status, body } = await client.call('POST', '/windows', input(id, glass, parts));
  expect(status, JSON.stringify(body)).toBe(201);
  return body;
}
const feed = async (window: any) => (await fetch(`${server.base}/feed/${window.keys[0].token}.ics`)).text();
const put = (window: any, parts: object, who = client) =>
  who.call('PUT', `/windows/${window.id}`, {
    ...input(window.sources[0].calendarId, window.sources[0].glass),
    name: window.wording.name,
    version: window.version,
    ...parts,
  });

describe('rules of a window', () => {
  it('that make no sense are refused with what to do', async () => {
    const { id } = await calendar();
    const code = async (parts: object) =>
      (await client.call('POST', '/windows', input(id, 'tinted', parts))).body.code;
    expect(await code({ titlePattern: '{weather}' })).toBe('pattern-invalid');
    expect(await code({ filter: { field: 'weather', value: 'x' } })).toBe('filter-invalid');
    const label = { field: 'label', value: 'x' };
    expect(await code({ filter: { all: [label, { not: label }] } })).toBe('filter-contradictory');
    expect(await code({ horizon: { kind: 'fixed', from: '2027-02-01', to: '2027-01-01' } })).toBe(
      'horizon-invalid',
    );
    expect(await code({ horizon: { kind: 'fixed', from: '2027-02-31', to: '2027-03-01' } })).toBe(
      'input-invalid',
    );
    expect(await code({ sources: [{ calendarId: id, glass: 'cut', fields: [], as: '' }] })).toBe('cut-empty');
    expect(await code({ sources: [] })).toBe('source-missing');
    const thousand = Array.from({ length: 1000 }, (_, i) => ({
      calendarId: `00000000-0000-4000-8000-${String(i).padStart(12, '0')}`,
      glass: 'tinted',
      fields: [],
      as: '',
    }));
    expect(await code({ sources: thousand })).toBe('too-many-sources');
    expect(await code({ sources: thousand.slice(0, 2) })).toBe('source-missing');
  });

  it('are read with what was not there yet when they were stored, and let nothing more out', async () => {
    const { id } = await calendar();
    const entry = await write(id, { title: 'Old', people: [{ name: 'Ida', address: '' }] });
    const window = await open(id, 'clear', { switches: { ...USUAL_SWITCHES, people: true } });
    expect(await feed(window)).toContain('With: Ida');
    const sequelize = WindowRow.sequelize!;
    const old = `settings - 'dueAs' - 'include' #- '{switches,people}'`;
    await sequelize.query(`UPDATE windows SET settings = ${old} WHERE id = '${window.id}'`);
    await sequelize.query(
      `UPDATE entries SET data = data - 'hold' - 'kept' - 'labels' WHERE id = '${entry.id}'`,
    );
    const { body } = await client.call('GET', `/windows/${window.id}`);
    expect(body).toMatchObject({ wording: { dueAs: 'all-day' }, include: INCLUDE_ALL });
    expect(body.switches.people).toBe(false);
    const read = await client.call('GET', `/entries/${entry.id}`);
    expect(read.body).toMatchObject({ title: 'Old', hold: 'none', kept: [], labels: [] });
    for (const way of ['close', 'open']) await client.call('POST', `/windows/${window.id}/${way}`);
    expect(await feed(window)).toContain('SUMMARY:Old');
    expect(await feed(window)).not.toContain('Ida');
  });

  it('filter, cut, name and pattern what goes out', async () => {
    const { id } = await calendar();
    await write(id, { title: 'Out', labels: ['works'], place: 'Quay', description: 'Talk' });
    await write(id, { title: 'In', labels: ['inner'] });
    const window = await open(id, 'cut', {
      sources: [{ calendarId: id, glass: 'cut', fields: ['title', 'labels'], as: 'Trust' }],
      filter: { not: { field: 'label', value: 'inner' } },
      titlePattern: '{calendar}: {title}[ ({label})]',
      topic: 'Harbour',
      translations: [{ language: 'fr', name: 'Travaux', description: '', topic: '' }],
    });
    const text = await feed(window);
    expect(text).toContain('SUMMARY:Trust: Out (works)');
    expect(text).not.toContain(': In');
    expect(text).not.toContain('Quay');
    expect(text).not.toContain('Talk');
    expect(text).toContain('NAME;LANGUAGE=fr:Travaux');
    expect(text).toContain('CATEGORIES:Harbour');
    const page = await (await fetch(`${server.base}/see/${window.keys[0].token}?lang=fr`)).text();
    expect(page).toContain('Travaux</h1>');
  });

  it('show less once a label in the filter is forgotten, and say so', async () => {
    const { id } = await calendar();
    const entry = await write(id, { labels: ['brief'] });
    await write(id, { title: 'Other' });
    const window = await open(id, 'tinted', { filter: { not: { field: 'label', value: 'brief' } } });
    expect(await feed(window)).toContain('Other');
    expect((await client.call('DELETE', '/labels/brief')).body.code).toBe('label-in-use');
    await client.call('DELETE', `/entries/${entry.id}?version=1`);
    const listed = (await client.call('GET', '/labels')).body.find((l: any) => l.name === 'brief');
    expect(listed).toEqual({
      ...{ name: 'brief', count: 0, windows: [window.wording.name] },
      calendarIds: [id],
    });
    expect((await client.call('DELETE', '/labels/brief')).status).toBe(204);
    expect(await feed(window)).not.toContain('Other');
    expect((await client.call('GET', `/windows/${window.id}`)).body.gone).toEqual(['label:brief']);

    // An entry that nobody outside may see, with that label, mends nothing: not here, not in a process that starts anew.
    const before = await feed(window);
    await write(id, { labels: ['Brief'], hold: 'keep-in' });
    await put(await open(id, 'tinted'), {});
    const second = await testServer(databaseUrl);
    servers.push(second);
    const there = await fetch(`${second.base}/feed/${window.keys[0].token}.ics`);
    expect(await there.text()).toBe(before);
    expect(await feed(window)).toBe(before);
    // It is mended by whoever publishes the window anew.
    const filter = { not: { field: 'label', value: 'brief' } };
    expect((await put(window, { filter })).body.gone).toEqual([]);
    expect(await feed(window)).toContain('Other');
  });

  it('may name the labels of their own calendars; others have no say', async () => {
    const [own, other] = [await calendar(), await calendar()];
    await write(own.id, { title: 'Other', labels: ['ours'] });
    await write(other.id, { labels: ['theirs'] });
    const filter = (value: string) => ({ filter: { not: { field: 'label', value } } });
    // A label of another calendar is as unknown as one that nobody has.
    for (const label of ['theirs', 'nobody’s']) {
      const window = await open(own.id, 'tinted', filter(label));
      expect(window.gone).toEqual([`label:${label}`]);
      expect(await feed(window)).not.toContain('Other');
    }
    const window = await open(own.id, 'tinted', { ...filter('ours') });
    expect(window.gone).toEqual([]);
    const shared = windowInput([own.id, other.id], 'tinted', { name: 'Shared', ...filter('theirs') });
    expect((await client.call('POST', '/windows', shared)).body.gone).toEqual([]);
  });
});

describe('large effects', () => {
  it('are refused until they are confirmed by name', async () => {
    const { id } = await calendar();
    await write(id, { title: 'Ask ann@ostrel.example' });
    const refused = await client.call('POST', '/windows', input(id, 'tinted', { confirmed: [] }));
    expect(refused.body).toMatchObject({
      code: 'confirm-needed',
      details: { demands: ['sensitive-on-street'] },
    });
    const window = await open(id, 'frosted', { confirmed: [] });
    expect((await put(window, { listed: true, confirmed: [] })).body.details.demands).toEqual([
      'first-listed',
    ]);
    const shut = { sources: [{ calendarId: id, glass: 'shut', fields: [], as: '' }], confirmed: [] };
    expect((await put(window, shut)).body.details.demands).toEqual(['most-vanishes']);
    expect((await put(window, { ...shut, confirmed: ['most-vanishes'] })).status).toBe(200);
    expect(await feed(window)).not.toContain('SUMMARY');
  });

  it('count the house’s own words as sensitive', async () => {
    const { body: house } = await client.call('GET', '/house');
    const saved = await client.call('PUT', '/house', { ...house, watchWords: ['Nightjar'] });
    expect(saved.status).toBe(200);
    const { id } = await calendar();
    await write(id, { title: 'Project nightjar' });
    const { body } = await client.call('POST', '/windows', input(id, 'tinted', { confirmed: [] }));
    expect(body.details.demands).toEqual(['sensitive-on-street']);
    const inside = await client.call(
      'POST',
      '/windows',
      input(id, 'tinted', { confirmed: [], audience: 'partners' }),
    );
    expect(inside.status).toBe(201);
  });
});

describe('a draft', () => {
  it('holds nothing that a window has no name for, and nothing of another kind', async () => {
    const window = await open((await calendar()).id, 'tinted');
    const keep = (body: object) => client.call('PUT', `/windows/${window.id}/draft`, { body, version: 0 });
    const refused = await keep({ name: '', trap: 1, sources: {}, hostZone: null });
    expect(refused).toMatchObject({
      status: 422,
      body: { code: 'input-invalid', details: { fields: 'trap, sources, hostZone' } },
    });
    expect((await keep({ name: '', filter: null })).status).toBe(200);
  });

  it('is kept apart from what is shown, and never written over', async () => {
    const { id } = await calendar();
    await write(id);
    const window = await open(id, 'frosted');
    const draft = (body: object, version: number, who = client) =>
      who.call('PUT', `/windows/${window.id}/draft`, { body, version });
    expect((await draft({ name: '', topic: 'half typed' }, 0)).body).toMatchObject({ version: 1, by: 'Ida' });
    const late = await draft({ name: 'mine' }, 0, publisher);
    expect(late.body).toMatchObject({
      code: 'version-conflict',
      details: { current: { body: { topic: 'half typed' } } },
    });
    expect((await draft({ name: 'both' }, 1, publisher)).body.by).toBe('Ole');
    expect(await feed(window)).not.toContain('Sounding');
    expect((await client.call('GET', `/windows/${window.id}`)).body.draft.body).toEqual({ name: 'both' });
    await client.call('DELETE', `/windows/${window.id}/draft`);
    expect((await client.call('GET', `/windows/${window.id}`)).body.draft).toBeNull();
  });

  it('is shown when its time comes, or says why not', async () => {
    const { id } = await calendar();
    await write(id, { title: 'Ask ann@ostrel.example' });
    const window = await open(id, 'frosted');
    const body = input(id, 'tinted', { name: window.wording.name });
    await client.call('PUT', `/windows/${window.id}/draft`, { body, version: 0 });
    const at = (when: number, confirmed: string[] = []) =>
      client.call('POST', `/windows/${window.id}/schedule`, { at: new Date(when).toISOString(), confirmed });
    expect((await at(Date.now() - 1000)).body.code).toBe('schedule-past');
    expect((await at(Date.now() + DAY_MS)).body.code).toBe('confirm-needed');
    const all = ['sensitive-on-street'];
    expect((await at(Date.now() + DAY_MS, all)).body.draft.publishAt).not.toBeNull();
    expect(await feed(window)).not.toContain('ann@');
    const due = { publishAt: new Date(Date.now() - 1) };
    await DraftRow.update(due, { where: { windowId: window.id } });
    await eventually(async () => expect(await feed(window)).toContain('ann@'));
    expect((await client.call('GET', `/windows/${window.id}`)).body.draft).toBeNull();

    // What has come to have a large effect since is not shown by itself.
    const shut = { ...body, sources: [{ ...body.sources[0], glass: 'shut' }], confirmed: [] };
    await client.call('PUT', `/windows/${window.id}/draft`, { body: shut, version: 0 });
    await DraftRow.update({ ...due, confirmed: [] }, { where: { windowId: window.id } });
    await eventually(async () => {
      const { draft } = (await client.call('GET', `/windows/${window.id}`)).body;
      expect(draft.stopped).toContain('more than half');
    });
    expect(await feed(window)).toContain('ann@');
  });
});

describe('ceilings', () => {
  it('cut every window at once, are set by stewards, and asked for by others', async () => {
    const { id } = await calendar();
    await write(id, { description: 'Talk' });
    const window = await open(id, 'clear');
    const set = (parts: object, who = client) =>
      who.call('PUT', '/ceilings', {
        calendarId: id,
        audience: 'street',
        glass: 'frosted',
        confirmed: ['most-vanishes'],
        ...parts,
      });
    expect((await set({}, publisher)).body.code).toBe('steward-only');
    const hasty = await set({ confirmed: [] });
    expect(hasty.body).toMatchObject({ code: 'confirm-needed', details: { demands: ['most-vanishes'] } });
    expect(await feed(window)).toContain('Talk');
    expect((await set({})).status).toBe(200);
    expect(await feed(window)).not.toContain('Sounding');
    expect((await client.call('GET', '/ceilings')).body.ceilings).toContainEqual(
      expect.objectContaining({ calendarId: id, audience: 'street', glass: 'frosted', by: 'Ida' }),
    );
    const asked = await publisher.call('POST', '/ceilings/requests', {
      calendarId: id,
      audience: 'street',
      glass: 'tinted',
      reason: 'The town asks for titles',
    });
    const request = asked.body.requests[0];
    expect(request).toMatchObject({ by: 'Ole', state: 'open' });
    const reply = (who: TestClient) => who.call('POST', `/ceilings/requests/${request.id}`, { grant: true });
    expect((await reply(publisher)).body.code).toBe('steward-only');
    expect((await reply(client)).status).toBe(200);
    expect((await reply(client)).body.code).toBe('request-answered');
    expect(await feed(window)).toContain('Sounding');
    expect(await feed(window)).not.toContain('Talk');
    await set({ glass: null });
    expect(await feed(window)).toContain('Talk');
    await set({ calendarId: null, glass: 'tinted' });
    expect(await feed(window)).not.toContain('Talk');
    await set({ calendarId: null, glass: null });
  });

  it('ask for a confirmation before sensitive matter goes to the Street, also where one is granted', async () => {
    const { id } = await calendar();
    const set = (parts: object) =>
      client.call('PUT', '/ceilings', { calendarId: id, audience: 'street', glass: 'frosted', ...parts });
    expect((await set({})).status).toBe(200);
    await write(id, { title: 'Ask ann@ostrel.example' });
    const window = await open(id, 'tinted');
    expect(await feed(window)).not.toContain('ann@');
    const raised = await set({ glass: 'tinted' });
    expect(raised.body.details.demands).toEqual(['sensitive-on-street']);
    const wish = { calendarId: id, audience: 'street', glass: 'clear', reason: '' };
    const { requests } = (await publisher.call('POST', '/ceilings/requests', wish)).body;
    const grant = (confirmed: string[]) =>
      client.call('POST', `/ceilings/requests/${requests[0].id}`, { grant: true, confirmed });
    expect((await grant(['most-vanishes'])).body.details.demands).toEqual(['sensitive-on-street']);
    expect(await feed(window)).not.toContain('ann@');
    expect((await grant(['sensitive-on-street'])).status).toBe(200);
    expect(await feed(window)).toContain('ann@');

    // While a calendar is locked down its ceilings change nothing outside, so nothing is asked.
    await client.call('POST', `/calendars/${id}/lock-down`);
    expect((await set({ glass: 'shut' })).status).toBe(200);
    expect(await feed(window)).not.toContain('ann@');
  });

  it('lock-down withdraws all of a calendar, and is taken back within a day', async () => {
    const { id } = await calendar();
    await write(id);
    const window = await open(id, 'tinted');
    const tag = async () =>
      (await fetch(`${server.base}/feed/${window.keys[0].token}.ics`)).headers.get('etag');
    const before = await tag();
    expect((await publisher.call('POST', `/calendars/${id}/lock-down`)).status).toBe(204);
    expect(await feed(window)).not.toContain('SUMMARY');
    expect(
      (await client.call('GET', '/calendars')).body.find((c: any) => c.id === id).lockedAt,
    ).not.toBeNull();
    expect((await publisher.call('DELETE', `/calendars/${id}/lock-down`)).status).toBe(204);
    expect(await feed(window)).toContain('Sounding');
    expect(await tag()).not.toBe(before);
  });
});

describe('the ledger', () => {
  it('tells what changed outwardly, by whom, and shows any revision again', async () => {
    const { id } = await calendar();
    const entry = await write(id);
    const window = await open(id, 'tinted');
    const key = window.keys[0].id;
    const { id: _i, calendarId: _c, uid: _u, imported: _m, ...rest } = entry;
    const change = (parts: object, version: number, who = client) =>
      who.call('PUT', `/entries/${entry.id}`, { ...rest, ...parts, version });
    expect((await change({ title: 'Sounding, north' }, 1, publisher)).status).toBe(200);
    await eventually(async () => expect(await feed(window)).toContain('north'));
    await change({ title: 'Sounding, north', description: 'Only inside' }, 2);
    await put(window, { sources: [{ calendarId: id, glass: 'frosted', fields: [], as: '' }] });
    const { body: lines } = await client.call('GET', `/keys/${key}/ledger`);
    expect(
      lines.map((l: any) => [l.number, l.appeared, l.vanished, l.changed, l.by[0], l.windowVersion]),
    ).toEqual([
      [3, 1, 1, 0, 'Ida', 2],
      [2, 0, 0, 1, 'Ole', 1],
      [1, 1, 0, 0, 'Ida', 1],
    ]);
    expect(lines.map((l: any) => l.wording)).toEqual([false, false, true]);
    const at = async (n: number) => (await client.call('GET', `/keys/${key}/ledger/${n}`)).body;
    expect((await at(1)).items[0].content.title).toBe('Sounding');
    expect((await at(2)).items[0].content.title).toBe('Sounding, north');
    expect((await at(3)).items[0].kind).toBe('busy');
    expect((await at(9)).code).toBe('revision-missing');
    expect((await at(Number.NaN)).code).toBe('revision-missing');
    const { body: versions } = await client.call('GET', `/windows/${window.id}/versions`);
    expect(versions.map((v: any) => [v.version, v.body.sources[0].glass, v.by])).toEqual([
      [2, 'frosted', 'Ida'],
      [1, 'tinted', 'Ida'],
    ]);
    const back = await put(window, { ...versions[1].body, version: 2, confirmed: ['most-vanishes'] });
    expect(back.status).toBe(200);
    expect(await feed(window)).toContain('Sounding\\, north');
  });

  it('keeps differences: an edit in a large window adds little', async () => {
    const { id } = await calendar();
    const first = await write(id);
    await client.call('POST', '/edits', {
      label: 'Many',
      changes: Array.from({ length: 199 }, (_, i) => ({
        version: 0,
        calendarId: id,
        entry: {
          ...first,
          id: undefined,
          calendarId: undefined,
          version: undefined,
          uid: undefined,
          imported: undefined,
          title: `Nr ${i}`,
        },
      })),
    });
    const window = await open(id, 'clear');
    const { id: _i, calendarId: _c, uid: _u, imported: _m, ...rest } = first;
    await client.call('PUT', `/entries/${first.id}`, { ...rest, title: 'Changed', version: 1 });
    await eventually(async () => expect(await feed(window)).toContain('Changed'));
    const { body: lines } = await client.call('GET', `/keys/${window.keys[0].id}/ledger`);
    const [edit, whole] = lines;
    expect(whole.appeared).toBe(200);
    expect(edit.changed).toBe(1);
    expect(edit.bytes).toBeLessThan(1500);
    expect(await LedgerRow.count({ where: { viewId: `${window.id}|street|` } })).toBe(2);
  });
});

describe('a key', () => {
  const ALL = (token: string) => [
    `/see/${token}`,
    `/embed/${token}`,
    `/feed/${token}.ics`,
    `/feed/${token}.ifb`,
    `/copy/${token}.ics`,
  ];
  const get = async (path: string) => {
    const answer = await fetch(`${server.base}${path}`);
    return { status: answer.status, text: (await answer.text()).replace(/\r\n /g, '') };
  };
  const PLAIN = { cap: null, contact: '', notes: '', expiresAt: null };
  const newest = (window: any) => window.keys.at(-1);
  const make = async (window: any, parts: object = {}) => {
    const wanted = { ...PLAIN, madeOutTo: 'Ferry desk', audience: 'partners', ...parts };
    const { status, body } = await client.call('POST', `/windows/${window.id}/keys`, wanted);
    expect(status, JSON.stringify(body)).toBe(201);
    return newest(body);
  };
  const change = (key: any, parts: object) => {
    const { madeOutTo, audience, cap, contact, notes, expiresAt, version } = key;
    const wanted = { madeOutTo, audience, cap, contact, notes, expiresAt, version, ...parts };
    return client.call('PUT', `/keys/${key.id}`, wanted);
  };
  const post = (key: any, deed: string, body?: object) =>
    client.call('POST', `/keys/${key.id}/${deed}`, body);

  it('ends at its moment for every form, and opens again when the end is taken back', async () => {
    const { id } = await calendar();
    await write(id);
    const window = await open(id, 'tinted');
    const key = window.keys[0];
    const end = async (expiresAt: unknown) => {
      const { body } = await client.call('GET', `/windows/${window.id}`);
      return change(body.keys[0], { expiresAt });
    };
    expect((await end('yesterday')).body.code).toBe('input-invalid');
    expect((await end(new Date(Date.now() - 1000).toISOString())).body.code).toBe('expiry-past');
    const moment = new Date(Date.now() + DAY_MS);
    const expiresAt = moment.toISOString();
    expect((await end(expiresAt)).body.keys[0]).toMatchObject({ id: key.id, expiresAt });
    expect(await feed(window)).toContain('Sounding');
    await atTime(moment.getTime() - 1, async () => {
      for (const path of ALL(key.token)) expect((await get(path)).status).toBe(200);
    });
    await atTime(moment.getTime(), async () => {
      for (const path of ALL(key.token)) {
        const { status, text } = await get(path);
        expect(status).toBe(410);
        expect(text).toContain('This address has ended');
      }
    });
    expect((await end(null)).body.keys[0].expiresAt).toBeNull();
    for (const path of ALL(key.token)) expect((await get(path)).status).toBe(200);
    expect(
      (await client.call('PUT', `/keys/${id}`, { ...PLAIN, madeOutTo: 'x', audience: 'street' })).body.code,
    ).toBe('not-found');
  });

  it('is made out to somebody, and changed: a narrower cap acts at once, in its own address alone', async () => {
    const { id } = await calendar();
    await write(id, { description: 'Depth 7 m' });
    const window = await open(id, 'clear');
    const key = await make(window, { contact: 'desk@ferry.example', notes: 'Asked by phone' });
    expect(key).toMatchObject({ madeOutTo: 'Ferry desk', audience: 'partners', version: 1, turned: [] });
    expect((await get(`/feed/${key.token}.ics`)).text).toContain('Depth 7 m');
    const { body } = await change(key, { cap: 'frosted', madeOutTo: 'Ferry line', confirmed: [...DEMANDS] });
    expect(newest(body)).toMatchObject({ cap: 'frosted', madeOutTo: 'Ferry line', version: 2 });
    for (const path of ALL(key.token)) expect((await get(path)).text).not.toContain('Sounding');
    expect(await feed(window)).toContain('Depth 7 m');
    // What stands with it never goes out.
    for (const path of ALL(key.token))
      expect((await get(path)).text).not.toMatch(/ferry\.example|by phone|Ferry/);
    const late = await change(key, { notes: 'mine' });
    expect(late).toMatchObject({ status: 409, body: { code: 'version-conflict' } });
    expect(late.body.details.current).toMatchObject({ madeOutTo: 'Ferry line', version: 2 });
    expect(late.body.details.yours.notes).toBe('mine');
  });

  it('asks before it shows sensitive matter to the Street, or takes most away', async () => {
    const { id } = await calendar();
    await write(id, { description: 'Ask ann@ostrel.example' });
    const window = await open(id, 'clear');
    const key = await make(window, { cap: 'tinted', audience: 'partners' });
    const wider = await change(key, { audience: 'street', cap: null });
    expect(wider).toMatchObject({ status: 409, body: { code: 'confirm-needed' } });
    expect(wider.body.details.demands).toEqual(['sensitive-on-street']);
    expect((await change(key, { cap: 'clear' })).status).toBe(200);
    const shut = await change({ ...key, version: 2 }, { cap: 'shut' });
    expect(shut.body.details.demands).toEqual(['most-vanishes']);
    for (const wrong of [{ audience: 'crowd' }, { madeOutTo: '' }, { cap: 'cut' }, { trap: 1 }])
      expect((await change(key, wrong)).body.code).toBe('input-invalid');
  });

  it('that is turned leads on for its days with one notice, and then says that it was replaced', async () => {
    const { id } = await calendar();
    await write(id);
    const window = await open(id, 'tinted', { name: 'Tides' });
    const first = window.keys[0];
    const before = await get(`/feed/${first.token}.ics`);
    const turned = newest((await post(first, 'turn', { graceDays: 14 })).body);
    expect(turned.token).not.toBe(first.token);
    expect(turned.turned).toHaveLength(1);
    expect((await get(`/feed/${turned.token}.ics`)).text).not.toContain('New address');
    for (const path of ALL(first.token)) {
      const { status, text } = await get(path);
      expect(status, path).toBe(200);
      expect(text, path).toContain(
        path.includes('/see/') || path.includes('/embed/') ? turned.see : turned.feed,
      );
    }
    const old = (await get(`/feed/${first.token}.ics`)).text;
    expect(old).toContain('SUMMARY:New address for “Tides”');
    expect(old.match(/^BEGIN:VEVENT/gm)).toHaveLength(before.text.match(/^BEGIN:VEVENT/gm)!.length + 1);
    // Turned again: the oldest leads to the newest, and is another document than it was.
    const newer = newest((await post(turned, 'turn', { graceDays: 0 })).body);
    expect((await get(`/feed/${first.token}.ics`)).text).toContain(newer.feed);
    expect((await get(`/feed/${first.token}.ics`)).text).not.toContain(turned.token);
    for (const path of ALL(turned.token)) {
      const { status, text } = await get(path);
      expect([status, text.includes('This address was replaced'), text.includes(newer.token)]).toEqual([
        410,
        true,
        false,
      ]);
    }
    expect((await post(first, 'turn', { graceDays: 91 })).body.code).toBe('input-invalid');
  });

  it('is withdrawn at once with all addresses that it had, and brought back for a day', async () => {
    const { id } = await calendar();
    await write(id);
    const window = await open(id, 'tinted');
    const key = window.keys[0];
    const turned = newest((await post(key, 'turn', { graceDays: 9 })).body);
    expect(newest((await post(key, 'withdraw')).body).withdrawnAt).not.toBeNull();
    for (const path of [...ALL(key.token), ...ALL(turned.token)]) {
      const { status, text } = await get(path);
      expect([status, text.includes('This address was withdrawn')], path).toEqual([410, true]);
    }
    expect((await post(key, 'turn', { graceDays: 1 })).body.code).toBe('key-ended');
    expect(newest((await post(key, 'bring-back')).body).withdrawnAt).toBeNull();
    for (const path of [...ALL(key.token), ...ALL(turned.token)]) expect((await get(path)).status).toBe(200);
    await post(key, 'withdraw');
    await KeyRow.update({ withdrawnAt: new Date(Date.now() - 25 * 3_600_000) }, { where: { id: key.id } });
    expect((await post(key, 'bring-back')).body.code).toBe('key-gone');
    expect((await get(`/see/${turned.token}`)).status).toBe(410);
  });
});

describe('the uses of keys', () => {
  it('are counted for feeds and pages, with the revision', async () => {
    const { id } = await calendar();
    await write(id);
    const window = await open(id, 'tinted');
    expect(window.keys[0].fetchedAt).toBeNull();
    await feed(window);
    await fetch(`${server.base}/see/${window.keys[0].token}`);
    await eventually(async () => {
      const row = await KeyUseRow.findByPk(window.keys[0].id);
      expect([row?.count, row?.revision]).toEqual([2, 1]);
    });
    expect((await client.call('GET', `/windows/${window.id}`)).body.keys[0]).toMatchObject({ fetched: 1 });
  });
});
