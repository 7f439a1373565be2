import { DEMANDS } from '@zonal/core/glass';
import { EMPTY_CONTENT } from '@zonal/core/entries';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { UserRow } from '../db/models';
import { colleague, eventually, quayServer, windowInput } from '../testing';

let quay: Awaited<ReturnType<typeof quayServer>>;
let window: any;
let siri: Awaited<ReturnType<typeof colleague>>;
let key: any;
const DAY = new Date(Date.now() + 86_400_000).toISOString().slice(0, 10);

const call = (method: string, path: string, body?: unknown) => quay.client.call(method, path, body);
const people = async (glass: string | null, houseGlass = 'shut') => {
  const path = `/calendars/${quay.calendarId}/people`;
  const { version } = (await call('GET', path)).body;
  const [ida] = await UserRow.findAll({ where: { role: 'steward' } });
  const list = [
    { userId: ida!.id, standing: 'publisher', glass: null },
    ...(glass ? [{ userId: siri.id, standing: 'reader', glass }] : []),
  ];
  const body = { people: list, houseGlass, known: false, labelHolds: [], version };
  expect((await call('PUT', path, body)).status).toBe(200);
};
const feed = async () => {
  const answer = await fetch(`${quay.server.base}/feed/${key.token}.ics`);
  return answer.status === 200 ? (await answer.text()).match(/SUMMARY:.*/g) : answer.status;
};
const make = (parts: object = {}) =>
  call('POST', `/windows/${window.id}/keys`, {
    ...{ madeOutTo: 'Siri', audience: 'crew', cap: null, contact: '', notes: '', expiresAt: null },
    ...{ userId: siri.id, confirmed: [...DEMANDS] },
    ...parts,
  });
const capNow = async () =>
  (await call('GET', `/windows/${window.id}`)).body.keys.find((k: any) => k.id === key.id).cap;

beforeAll(async () => {
  quay = await quayServer();
  siri = await colleague(quay.server.base, 'Siri');
  const at = (hour: number) => ({ kind: 'zoned', at: `${DAY}T${hour}:00:00`, zone: 'America/Halifax' });
  await call('POST', `/calendars/${quay.calendarId}/entries`, {
    ...{ ...EMPTY_CONTENT, title: 'Talks', start: at(10), end: at(11), recurrence: null, overrides: [] },
  });
  window = (await call('POST', '/windows', windowInput(quay.calendarId, 'clear', { name: 'For colleagues' })))
    .body;
});
afterAll(() => quay.server.close());

describe('a colleague’s own key', () => {
  it('is made out to one colleague, who sees something of all that the window shows', async () => {
    expect((await make({ userId: null })).body.code).toBe('key-person');
    expect((await make({ audience: 'street' })).body.code).toBe('key-person');
    expect((await make({ userId: quay.calendarId })).body.code).toBe('person-unknown');
    expect((await make()).body.code).toBe('key-shows-nothing');
    await people('tinted');
    const made = await make({ cap: 'clear' });
    key = made.body.keys.find((k: any) => k.userId === siri.id);
    expect([made.status, key.cap, key.audience]).toEqual([201, 'tinted', 'crew']);
    expect(await feed()).toEqual(['SUMMARY:Talks']);
    expect((await siri.client.call('GET', '/account')).body.feeds).toEqual([
      { keyId: key.id, window: 'For colleagues', cap: 'tinted', see: key.see, feed: key.feed },
    ]);
  });

  it('shows less at once when its colleague may see less, and more when they may see more', async () => {
    await people('frosted');
    expect(await feed()).toEqual(['SUMMARY:Taken']);
    await people(null);
    expect([await feed(), await capNow()]).toEqual([null, 'shut']);
    await people(null, 'tinted');
    expect([await feed(), await capNow()]).toEqual([['SUMMARY:Talks'], 'tinted']);
    await people('clear', 'tinted');
    expect(await capNow()).toBe(null);
  });

  it('follows ceilings and lock-downs of its ring, and what the window shows', async () => {
    const ceiling = { calendarId: quay.calendarId, audience: 'crew', confirmed: [...DEMANDS] };
    await call('PUT', '/ceilings', { ...ceiling, glass: 'frosted' });
    expect(await feed()).toEqual(['SUMMARY:Taken']);
    await call('PUT', '/ceilings', { ...ceiling, glass: null });
    expect(await feed()).toEqual(['SUMMARY:Talks']);
    await call('POST', `/calendars/${quay.calendarId}/lock-down`);
    expect(await feed()).toBe(null);
    await call('DELETE', `/calendars/${quay.calendarId}/lock-down`);
    expect(await feed()).toEqual(['SUMMARY:Talks']);
    // Another calendar that its colleague may not see comes into the window.
    const plate = { plate: 'SE', colour: 'teal', zone: 'America/Halifax', description: '' };
    const { id } = (await call('POST', '/calendars', { ...plate, name: 'Secret' })).body;
    const both = windowInput([quay.calendarId, id], 'clear', { name: 'For colleagues', version: 1 });
    expect((await call('PUT', `/windows/${window.id}`, both)).status).toBe(200);
    expect([await feed(), await capNow()]).toEqual([null, 'shut']);
    await call('DELETE', `/windows/${window.id}/sources/${id}`);
    expect([await feed(), await capNow()]).toEqual([['SUMMARY:Talks'], null]);
  });

  it('shows nothing while its colleague is at rest', async () => {
    await call('PUT', `/people/${siri.id}/rest`, { rested: true });
    expect(await feed()).toBe(null);
    await call('PUT', `/people/${siri.id}/rest`, { rested: false });
    await eventually(async () => expect(await feed()).toEqual(['SUMMARY:Talks']));
  });
});
