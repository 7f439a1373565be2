import { EMPTY_CONTENT } from '@zonal/core/entries';
import type { LinkNote } from '@zonal/core/glass';
import { DAY } from '@zonal/core/zones';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { KeyRow, SheetRow } from '../db/models';
import { quayServer, windowInput, type TestClient, type testServer } from '../testing';

let server: Awaited<ReturnType<typeof testServer>>;
let client: TestClient;
let calendarId: string;

beforeAll(async () => {
  ({ server, client, calendarId } = await quayServer());
  await write({ title: 'Closed meeting', ...SOON });
});
afterAll(() => server.close());

const day = (days: number) => ({
  kind: 'date',
  date: new Date(Date.now() + days * DAY).toISOString().slice(0, 10),
});
const SOON = { start: day(1), end: day(2) };
async function write(parts: object) {
  const entry = { ...EMPTY_CONTENT, recurrence: null, overrides: [], ...parts };
  expect((await client.call('POST', `/calendars/${calendarId}/entries`, entry)).status).toBe(201);
}
const ENDINGS = ['', '.csv', '.json', '.opml', '.txt'];
const ask = (address: string) => fetch(server.base + new URL(address).pathname);
const texts = (address: string) =>
  Promise.all(ENDINGS.map(async (ending) => (await ask(address + ending)).text()));

async function open(name: string, parts: object = {}, glass = 'tinted') {
  const { body } = await client.call('POST', '/windows', windowInput(calendarId, glass, { name, ...parts }));
  await ask(body.keys[0].see);
  return body;
}
const itemOf = (window: any, key: any = window.keys[0]) => ({ windowId: window.id, keyId: key?.id ?? null });
async function make(name: string, items: object[], note = '') {
  const { status, body } = await client.call('POST', '/sheets', { name, note, items });
  expect(status, JSON.stringify(body)).toBe(201);
  return body;
}
const notesOf = async (items: object[]): Promise<LinkNote[][]> =>
  (await client.call('POST', '/sheets/check', { items })).body.map((i: any) => i.notes);

describe('a link sheet', () => {
  it('has an address that nobody finds, and tells what is on it in all forms', async () => {
    const [bridge, quay] = [await open('Bridge'), await open('Quay', { listed: true })];
    const sheet = await make('For <agents>', [itemOf(quay, null), itemOf(bridge)], 'Ask Ida');
    expect(sheet).toMatchObject({ by: 'Ida', version: 1, withdrawnAt: null });
    expect(sheet.items.map((i: any) => i.see)).toEqual([quay.listedSee, bridge.keys[0].see]);
    for (const text of await texts(sheet.address)) {
      expect(text).toContain(quay.listedFeed);
      expect(text).toContain(bridge.keys[0].feed);
      expect(text).not.toContain(quay.keys[0].token);
      expect(text).not.toMatch(/First key|Closed meeting/);
    }
    const types = ['text/html', 'text/csv', 'application/json', 'text/x-opml', 'text/plain'];
    for (const [i, ending] of ENDINGS.entries()) {
      const { headers } = await ask(sheet.address + ending);
      expect(headers.get('content-type')).toBe(`${types[i]}; charset=utf-8`);
      expect(headers.get('x-robots-tag')).toBe('noindex, nofollow');
      expect(headers.get('cache-control')).toBe('no-store');
      expect(headers.get('referrer-policy')).toBe('no-referrer');
    }
    expect((await ask(`${sheet.address}.csv`)).headers.get('content-disposition')).toBe(
      'attachment; filename="for-agents.csv"',
    );
    const stored = (await SheetRow.findByPk(sheet.id, { raw: true }))!;
    expect(JSON.stringify(stored)).not.toContain(sheet.address.split('/').at(-1));
  });

  it('is checked before it is handed out', async () => {
    const busy = await open('Busy', {}, 'frosted');
    const empty = await open('Empty', { filter: { field: 'label', value: 'none such' } });
    const closed = await open('Closed');
    const unlisted = await open('Unlisted');
    const withdrawn = await open('Withdrawn');
    await client.call('POST', `/windows/${closed.id}/close`);
    await client.call('POST', `/keys/${withdrawn.keys[0].id}/withdraw`);
    const ended = await open('Ended');
    await KeyRow.update({ expiresAt: new Date() }, { where: { id: ended.keys[0].id } });
    const items = [busy, empty, closed, withdrawn, ended].map((w) => itemOf(w));
    expect(await notesOf([...items, itemOf(unlisted, null)])).toEqual([
      ['busy-only'],
      ['shows-nothing'],
      ['closed'],
      ['withdrawn'],
      ['ended'],
      ['unlisted'],
    ]);
    const sheet = await make('Checked', [...items, itemOf(unlisted, null)]);
    const { links } = await (await ask(`${sheet.address}.json`)).json();
    expect(links.map((l: any) => [l.name, l.shows])).toEqual([
      ['Busy', 'busy'],
      ['Empty', 'nothing'],
    ]);
  });

  it('lets go at once of what is withdrawn, and has the new address of what is turned', async () => {
    const window = await open('Turning');
    const sheet = await make('Turns', [itemOf(window)]);
    const { body } = await client.call('POST', `/keys/${window.keys[0].id}/turn`, { graceDays: 3 });
    for (const text of await texts(sheet.address)) {
      expect(text).toContain(body.keys[0].token);
      expect(text).not.toContain(window.keys[0].token);
    }
    await client.call('POST', `/keys/${window.keys[0].id}/withdraw`);
    for (const text of await texts(sheet.address)) expect(text).not.toMatch(/Turning|\/see\//);
    await client.call('POST', `/keys/${window.keys[0].id}/bring-back`);
    for (const text of await texts(sheet.address)) expect(text).toContain('Turning');
  });

  it('tells nothing of what its readers may not see', async () => {
    const filter = { field: 'label', value: 'nobody has it' };
    const windows = [await open('Held'), await open('Filtered', { filter })];
    const sheet = await make(
      'Silent',
      windows.map((w) => itemOf(w)),
    );
    const before = await texts(sheet.address);
    await write({ ...SOON, title: 'Talks', hold: 'keep-in' });
    expect(await texts(sheet.address)).toEqual(before);
  });

  it('is changed at its address, by one at a time', async () => {
    const window = await open('Changing');
    const sheet = await make('Before', []);
    const change = { name: 'After', note: '', items: [itemOf(window)], version: 1 };
    expect((await client.call('PUT', `/sheets/${sheet.id}`, change)).body).toMatchObject({
      address: sheet.address,
      version: 2,
    });
    expect(await (await ask(`${sheet.address}.txt`)).text()).toMatch(/^After\n\nChanging\n/);
    const again = await client.call('PUT', `/sheets/${sheet.id}`, change);
    expect([again.status, again.body.code, again.body.details.current.name]).toEqual([
      409,
      'version-conflict',
      'After',
    ]);
    const other = await open('Other');
    for (const items of [
      [{ windowId: other.id, keyId: window.keys[0].id }],
      [{ windowId: calendarId, keyId: null }],
      [itemOf(window), itemOf(window)],
    ])
      expect((await client.call('PUT', `/sheets/${sheet.id}`, { ...change, items, version: 2 })).status).toBe(
        422,
      );
  });

  it('leads nowhere once withdrawn or turned, as every address that nobody has', async () => {
    const sheet = await make('Passing', []);
    const { body: turned } = await client.call('POST', `/sheets/${sheet.id}/turn`);
    const [old, unknown] = await Promise.all(
      [sheet.address, 'http://window.example/links/none'].map(async (a) => {
        const answer = await ask(a);
        return [answer.status, await answer.text()] as const;
      }),
    );
    expect(old).toEqual(unknown);
    expect(old![0]).toBe(404);
    expect((await fetch(`${server.base}/links/%E0%A4%A`)).status).toBe(404);
    expect((await ask(turned.address)).status).toBe(200);
    await client.call('POST', `/sheets/${sheet.id}/withdraw`);
    for (const ending of ENDINGS) expect((await ask(turned.address + ending)).status).toBe(410);
    expect((await client.call('POST', `/sheets/${sheet.id}/turn`)).body.code).toBe('sheet-gone');
    expect((await client.call('GET', '/sheets')).body.map((s: any) => s.id)).toContain(sheet.id);
    await client.call('POST', `/sheets/${sheet.id}/bring-back`);
    expect((await ask(turned.address)).status).toBe(200);
    await SheetRow.update({ withdrawnAt: new Date(Date.now() - DAY - 1000) }, { where: { id: sheet.id } });
    expect((await client.call('POST', `/sheets/${sheet.id}/bring-back`)).body.code).toBe('sheet-gone');
    expect((await client.call('GET', '/sheets')).body.map((s: any) => s.id)).not.toContain(sheet.id);
  });
});
