import { EMPTY_CONTENT, type Entry } from '@zonal/core/entries';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import {
  TestClient,
  eventually,
  freshDatabase,
  testServer,
  windowInput,
  colleague,
  makeTo,
} from '../testing';

let server: Awaited<ReturnType<typeof testServer>>;
let client: TestClient;
let serial = 0;

beforeAll(async () => {
  server = await testServer(await freshDatabase());
  client = new TestClient(server.base);
  await client.signIn();
});
afterAll(() => server?.close());

const at = (text: string, zone = 'America/Halifax') => ({ kind: 'zoned', at: `${text}:00`, zone });
const saying = (parts: object = {}) => ({
  ...EMPTY_CONTENT,
  title: 'Lock inspection',
  start: at('2026-05-01T09:00'),
  end: at('2026-05-01T10:00'),
  recurrence: null,
  overrides: [],
  ...parts,
});

async function calendar(parts: object = {}): Promise<any> {
  const input = {
    name: `C${++serial}`,
    description: '',
    zone: 'America/Halifax',
    plate: 'CA',
    colour: 'teal',
  };
  const { status, body } = await client.call('POST', '/calendars', { ...input, ...parts });
  expect(status).toBe(201);
  return body;
}

const edit = (label: string, changes: object[], parts: object = {}) =>
  client.call('POST', '/edits', { label, changes, ...parts });
const turn = (id: string, way: string) => client.call('POST', `/edits/${id}/${way}`);
const entriesOf = async (cal: any): Promise<Entry[]> =>
  (await client.call('GET', `/calendars/${cal.id}/entries`)).body;
const titles = async (cal: any) => (await entriesOf(cal)).map((e) => e.title).sort();

describe('an edit', () => {
  it('writes, changes, moves and deletes at once, and takes all of it back and does it again', async () => {
    const [one, two] = [await calendar(), await calendar()];
    const made = await edit('Wrote three', [
      { version: 0, calendarId: one.id, entry: saying({ title: 'A' }) },
      { version: 0, calendarId: one.id, entry: saying({ title: 'B' }) },
      { version: 0, calendarId: one.id, entry: saying({ title: 'C' }) },
    ]);
    expect(made.status).toBe(201);
    const [a, b, c] = ['A', 'B', 'C'].map((t) => made.body.entries.find((e: Entry) => e.title === t));
    const done = await edit('Moved, changed and deleted', [
      { id: a.id, uid: a.uid, version: 1, calendarId: two.id, entry: saying({ title: 'A' }) },
      { id: b.id, uid: b.uid, version: 1, calendarId: one.id, entry: saying({ title: 'B changed' }) },
      { id: c.id, version: 1, calendarId: one.id, entry: null },
    ]);
    const after = async () => [await titles(one), await titles(two)];
    expect(await after()).toEqual([['B changed'], ['A']]);
    expect((await turn(done.body.id, 'take-back')).body).toMatchObject({ state: 'taken-back', size: 3 });
    expect(await after()).toEqual([['A', 'B', 'C'], []]);
    expect((await entriesOf(one)).map((e) => e.id).sort()).toEqual([a.id, b.id, c.id].sort());
    await turn(done.body.id, 'again');
    expect(await after()).toEqual([['B changed'], ['A']]);
    // One after the other, in the order in which undo goes.
    await turn(done.body.id, 'take-back');
    expect((await turn(made.body.id, 'take-back')).status).toBe(200);
    expect(await after()).toEqual([[], []]);
  });

  it('never gives a version twice, also to an entry that comes back', async () => {
    const cal = await calendar();
    const { body } = await edit('Wrote', [{ version: 0, calendarId: cal.id, entry: saying() }]);
    const [entry] = body.entries;
    const gone = await edit('Deleted', [{ id: entry.id, version: 1, calendarId: cal.id, entry: null }]);
    await turn(gone.body.id, 'take-back');
    const [back] = await entriesOf(cal);
    expect(back!.version).toBeGreaterThan(entry.version);
    const late = await edit('Late', [{ id: entry.id, version: 1, calendarId: cal.id, entry: saying() }]);
    expect(late.body.code).toBe('version-conflict');
  });

  it('changes nothing at all when one of its entries was changed first', async () => {
    const cal = await calendar();
    const { body } = await edit('Wrote', [{ version: 0, calendarId: cal.id, entry: saying({ title: 'A' }) }]);
    const [a] = body.entries;
    const late = await edit('Two at once', [
      { version: 0, calendarId: cal.id, entry: saying({ title: 'New' }) },
      { id: a.id, version: 7, calendarId: cal.id, entry: saying({ title: 'Late' }) },
    ]);
    expect(late.status).toBe(409);
    expect(late.body).toMatchObject({ code: 'version-conflict', details: { current: { title: 'A' } } });
    expect(await titles(cal)).toEqual(['A']);
  });

  it('is not taken back over what somebody changed since', async () => {
    const cal = await calendar();
    const { body } = await edit('Wrote', [{ version: 0, calendarId: cal.id, entry: saying({ title: 'A' }) }]);
    const [a] = body.entries;
    await edit('Changed', [
      { id: a.id, uid: a.uid, version: 1, calendarId: cal.id, entry: saying({ title: 'B' }) },
    ]);
    const refused = await turn(body.id, 'take-back');
    expect(refused.body.code).toBe('edit-overtaken');
    expect(refused.body.message).toContain('“B” has been changed since');
    expect(await titles(cal)).toEqual(['B']);
    expect((await turn(body.id, 'again')).body.code).toBe('edit-closed');
  });

  it('is listed in the history of its entries, with what could be seen of it outside', async () => {
    const [cal, other] = [await calendar(), await calendar()];
    const window = await client.call('POST', '/windows', windowInput(cal.id, 'tinted', { name: 'Locks' }));
    expect(window.status).toBe(201);
    const soon = new Date(Date.now() + 3 * 86_400_000).toISOString().slice(0, 10);
    const times = { start: at(`${soon}T09:00`), end: at(`${soon}T10:00`) };
    const wrote = await edit('Wrote', [{ version: 0, calendarId: cal.id, entry: saying(times) }]);
    const { id, uid } = wrote.body.entries[0];
    const changed = (version: number, parts: object, calendarId = cal.id) =>
      edit('Changed', [{ id, uid, version, calendarId, entry: saying({ ...times, ...parts }) }]);
    const linesFor = async (who: TestClient) => (await who.call('GET', `/entries/${id}/history`)).body.lines;
    // Revisions are dated to the second.
    const nextSecond = async () => {
      const second = () => Math.floor(Date.now() / 1000);
      const now = second();
      await eventually(() => Promise.resolve(expect(second()).toBeGreaterThan(now)));
    };
    await nextSecond();
    await changed(1, { title: 'North lock' });
    await nextSecond();
    // Tinted glass hides descriptions.
    const hidden = await changed(2, { title: 'North lock', description: 'Bring the key' });
    await eventually(async () => expect((await linesFor(client))[1].outside).toHaveLength(1));
    const lines = await linesFor(client);
    expect(lines.map((l: any) => [l.by, l.before?.title ?? null, l.after.title])).toEqual([
      ['Ida', 'North lock', 'North lock'],
      ['Ida', 'Lock inspection', 'North lock'],
      ['Ida', null, 'Lock inspection'],
    ]);
    expect(lines.map((l: any) => l.outside.map((o: any) => [o.windowName, o.revision]))).toEqual([
      [],
      [['Locks', 3]],
      [['Locks', 2]],
    ]);
    await turn(hidden.body.id, 'take-back');
    expect((await linesFor(client))[0].takenBackAt).toMatch(/^\d{4}-/);

    // An editor of one calendar sees nothing of what the entry was while it was in another one.
    const { client: editor, id: editorId } = await colleague(server.base, 'Mats');
    await makeTo(other.id, editorId, 'editor');
    expect((await editor.call('GET', `/entries/${id}/history`)).body.code).toBe('not-found');
    await changed(4, { title: 'North lock' }, other.id);
    await changed(5, { title: 'North lock, again' }, other.id);
    expect((await linesFor(editor)).map((l: any) => [l.before.title, l.outside])).toEqual([
      ['North lock', null],
    ]);
  });

  it('belongs to whoever made it', async () => {
    const cal = await calendar();
    const { body } = await edit('Wrote', [{ version: 0, calendarId: cal.id, entry: saying() }]);
    const { client: other, id } = await colleague(server.base, 'Jon');
    await makeTo(cal.id, id, 'editor');
    expect((await other.call('POST', `/edits/${body.id}/take-back`)).body.code).toBe('not-found');
    const house = (await other.call('GET', '/house')).body;
    expect((await other.call('PUT', '/house', house)).body.code).toBe('steward-only');
  });

  it('can be staged in parts, dropped, and applied whole', async () => {
    const cal = await calendar();
    const start = async () => (await edit('Brought in', [], { staged: true })).body.id as string;
    const part = (from: number) => ({
      changes: Array.from({ length: 300 }, (_, i) => ({
        version: 0,
        calendarId: cal.id,
        uid: `file-${from + i}`,
        imported: { print: 'p', sequence: 0 },
        entry: saying({ title: `${from + i}` }),
      })),
    });
    const dropped = await start();
    await client.call('POST', `/edits/${dropped}/changes`, part(0));
    expect((await client.call('DELETE', `/edits/${dropped}`)).status).toBe(204);
    expect((await turn(dropped, 'apply')).body.code).toBe('not-found');
    const id = await start();
    for (const from of [0, 300]) {
      expect((await client.call('POST', `/edits/${id}/changes`, part(from))).status).toBe(204);
    }
    expect(await entriesOf(cal)).toHaveLength(0);
    expect((await turn(id, 'apply')).body).toMatchObject({ size: 600, entries: [] });
    const entries = await entriesOf(cal);
    expect(entries).toHaveLength(600);
    expect(entries[0]!.imported).toEqual({ print: 'p', sequence: 0 });
    await turn(id, 'take-back');
    expect(await entriesOf(cal)).toHaveLength(0);
  });

  it('refuses what does not fit a property of the house, and an identifier that is taken', async () => {
    const cal = await calendar();
    const house = (await client.call('GET', '/house')).body;
    const properties = [{ name: 'Berth', kind: 'choice', choices: ['B4'] }];
    expect((await client.call('PUT', '/house', { ...house, properties })).status).toBe(200);
    expect((await client.call('PUT', '/house', { ...house, properties })).body.code).toBe('version-conflict');
    const write = (value: string, uid: string) =>
      edit('Wrote', [
        { version: 0, calendarId: cal.id, uid, entry: saying({ properties: [{ name: 'Berth', value }] }) },
      ]);
    expect((await write('B5', 'x')).body).toMatchObject({ code: 'property-invalid' });
    expect((await write('B4', 'x')).status).toBe(201);
    expect((await write('B4', 'x')).body.code).toBe('uid-taken');
  });

  it('keeps milestones and due items to one day, and refuses a milestone that recurs', async () => {
    const cal = await calendar();
    const write = (parts: object) =>
      edit('Wrote', [{ version: 0, calendarId: cal.id, entry: saying(parts) }]);
    const { body } = await write({ kind: 'milestone', planned: { kind: 'date', date: '2026-04-30' } });
    expect(body.entries[0]).toMatchObject({ end: at('2026-05-01T09:00'), planned: { date: '2026-04-30' } });
    const recurrence = { rule: 'FREQ=DAILY', dates: [], exceptDates: [] };
    expect((await write({ kind: 'milestone', recurrence })).body.code).toBe('milestone-recurs');
  });
});

describe('a calendar', () => {
  it('moves to another zone with its entries, and back by one step', async () => {
    const cal = await calendar();
    await edit('Wrote', [
      { version: 0, calendarId: cal.id, entry: saying() },
      {
        version: 0,
        calendarId: cal.id,
        entry: saying({
          start: { kind: 'date', date: '2026-05-01' },
          end: { kind: 'date', date: '2026-05-02' },
        }),
      },
    ]);
    const input = {
      ...cal,
      ...{ entryCount: undefined, who: undefined, sight: undefined, windows: undefined, onDesk: undefined },
      lockedAt: undefined,
      id: undefined,
      archivedAt: undefined,
    };
    const refused = await client.call('PUT', `/calendars/${cal.id}`, { ...input, zone: 'Europe/Lisbon' });
    expect(refused.body.code).toBe('zone-guided');
    const move = (keep: string) =>
      client.call('POST', `/calendars/${cal.id}/zone`, { zone: 'Europe/Lisbon', keep });
    const zoneOf = async () =>
      (await client.call('GET', '/calendars')).body.find((c: any) => c.id === cal.id).zone;
    const start = async () => (await entriesOf(cal)).map((e) => e.start).find((s) => s.kind === 'zoned');
    const moved = await move('clock-times');
    expect(moved.body).toMatchObject({ size: 1, state: 'applied' });
    expect([await zoneOf(), await start()]).toEqual([
      'Europe/Lisbon',
      at('2026-05-01T09:00', 'Europe/Lisbon'),
    ]);
    await turn(moved.body.id, 'take-back');
    expect([await zoneOf(), await start()]).toEqual(['America/Halifax', at('2026-05-01T09:00')]);
    await move('moments');
    expect(await start()).toEqual(at('2026-05-01T13:00', 'Europe/Lisbon'));
  });

  it('is put away and brought back', async () => {
    const cal = await calendar();
    const put = (archived: boolean) => client.call('PUT', `/calendars/${cal.id}/archive`, { archived });
    expect((await put(true)).body.archivedAt).toMatch(/^\d{4}-/);
    expect((await put(false)).body.archivedAt).toBeNull();
  });

  it('says what deleting it would hit, and is only deleted once that is accepted', async () => {
    const [cal, other] = [await calendar(), await calendar()];
    const open = async (sources: string[]) =>
      (await client.call('POST', '/windows', windowInput(sources, 'tinted', { name: `W${++serial}` }))).body;
    const [alone, both] = [await open([cal.id]), await open([cal.id, other.id])];
    const { body: impact } = await client.call('GET', `/calendars/${cal.id}/impact`);
    expect(impact.windows.map((w: any) => [w.name, w.keys.length, w.left])).toEqual([
      [alone.wording.name, 1, false],
      [both.wording.name, 1, true],
    ]);
    expect((await client.call('DELETE', `/calendars/${cal.id}`)).body.code).toBe('calendar-in-use');
    expect((await client.call('DELETE', `/calendars/${cal.id}?windows=take-out`)).status).toBe(204);
    const status = async (window: any) => (await fetch(`${server.base}/see/${window.keys[0].token}`)).status;
    await eventually(async () => expect(await status(alone)).toBe(410));
    expect(await status(both)).toBe(200);
  });

  it('is searched with all others', async () => {
    const cal = await calendar();
    await edit('Wrote', [
      { version: 0, calendarId: cal.id, entry: saying({ title: 'Écluse fermée', labels: ['rare-label'] }) },
    ]);
    const find = async (query: string) => (await client.call('GET', `/find?${query}`)).body;
    expect((await find('text=ecluse+fermee')).entries[0].title).toBe('Écluse fermée');
    expect((await find('text=rare-label&in=label')).total).toBe(1);
    expect((await find('text=rare-label&in=person')).total).toBe(0);
  });
});
