import { DAY } from '@zonal/core/zones';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { WindowRow } from '../db/models';
import { type TestClient, type testServer, eventually, windowInput, quayServer } from '../testing';
import { atTime } from '../testingClock';

let server: Awaited<ReturnType<typeof testServer>>;
let client: TestClient;
let calendarId: string;

beforeAll(async () => {
  ({ server, client, calendarId } = await quayServer());
});
afterAll(() => server.close());

const ask = (address: string, headers: Record<string, string> = {}) =>
  fetch(server.base + new URL(address).pathname, { headers });

async function open(name: string) {
  const input = windowInput(calendarId, 'tinted', { name, contact: 'Lock office' });
  return (await client.call('POST', '/windows', input)).body;
}
const setClosing = (id: string, at: string | null, farewell: boolean, was: string | null = null) =>
  client.call('PUT', `/windows/${id}/closing`, { at, farewell, was });
const FAR = '2099-03-01T04:00:00.000Z';

describe('a window that closes by itself', () => {
  it('tells its readers so in every form, if that is wanted, and lets them go on', async () => {
    const window = await open('Winter berths');
    const [key] = window.keys;
    const before = await ask(key.feed);
    const [etag, text] = [before.headers.get('etag')!, await before.text()];
    const { status, body } = await setClosing(window.id, FAR, true);
    expect([status, body.closesAt, body.farewell]).toEqual([200, FAR, true]);
    const feed = await ask(key.feed, { 'if-none-match': etag });
    expect(feed.status).toBe(200);
    const told = (await feed.text()).replace(/\r\n /g, '');
    expect(told).toContain('SUMMARY:“Winter berths” ends on Sat\\, 28 Feb 2099');
    expect(told).toContain('Questions: Lock office');
    expect(told).toContain('DTEND;VALUE=DATE:20990301');
    for (const address of [key.see, key.embed, key.table, key.freeBusy, key.jCal, key.changes])
      expect(await (await ask(address)).text(), address).toMatch(
        /ends on Sat, 28 Feb 2099|published until then/,
      );
    // Taken back, all is as it was.
    await setClosing(window.id, null, false, FAR);
    expect(await (await ask(key.feed)).text()).toBe(text);
    await setClosing(window.id, FAR, false);
    expect(await (await ask(key.feed)).text()).toBe(text);
  });

  it('is closed from that very moment on, whoever has noted it, and opens again with its keys', async () => {
    const window = await open('Dry dock');
    const [key] = window.keys;
    const moment = Date.now() + DAY;
    const at = new Date(moment).toISOString();
    await setClosing(window.id, at, false);
    await atTime(moment - 1, async () => expect((await ask(key.feed)).status).toBe(200));
    await atTime(moment, async () => {
      for (const address of [key.feed, key.see, key.copy]) expect((await ask(address)).status).toBe(410);
      expect(await (await ask(key.see)).text()).toContain('has not been published since');
      // Later it is stored, and organisers see it.
      await eventually(async () =>
        expect((await client.call('GET', `/windows/${window.id}`)).body.closedAt).toBe(at),
      );
    });
    const again = await client.call('POST', `/windows/${window.id}/open`);
    expect(again.body).toMatchObject({ closedAt: null, closesAt: null, farewell: false });
    expect((await ask(key.feed)).status).toBe(200);
  });

  it('is not set over what somebody else has set, nor to a moment that is over, nor for one that is closed', async () => {
    const window = await open('Tender boats');
    await setClosing(window.id, FAR, true);
    const late = await setClosing(window.id, '2098-01-01T00:00:00Z', true);
    expect([late.status, late.body.code]).toEqual([409, 'version-conflict']);
    const past = await setClosing(window.id, new Date(Date.now() - DAY).toISOString(), true, FAR);
    expect([past.status, past.body.code]).toEqual([422, 'closing-past']);
    expect((await WindowRow.findByPk(window.id))!.closesAt?.toISOString()).toBe(FAR);
    await client.call('POST', `/windows/${window.id}/close`);
    expect((await setClosing(window.id, FAR, true)).body.code).toBe('window-closed');
  });
});
