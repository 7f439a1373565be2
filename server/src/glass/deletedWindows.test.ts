import { afterAll, beforeAll, expect, it } from 'vitest';
import { KeyRow } from '../db/models';
import { colleague, makeTo, quayServer, windowInput } from '../testing';

let quay: Awaited<ReturnType<typeof quayServer>>;

beforeAll(async () => {
  quay = await quayServer();
});
afterAll(() => quay.server.close());

const open = async (name: string, more: object = {}) =>
  (await quay.client.call('POST', '/windows', windowInput(quay.calendarId, 'tinted', { name, ...more })))
    .body;
const status = async (path: string) => (await fetch(quay.server.base + path)).status;

it('a window is deleted only when it is closed, and only by a publisher of all its calendars', async () => {
  const { id } = await open('Tours');
  const refused = await quay.client.call('DELETE', `/windows/${id}`);
  expect([refused.status, refused.body.code]).toEqual([409, 'window-open']);
  await quay.client.call('POST', `/windows/${id}/close`);
  const editor = await colleague(quay.server.base, 'Ole');
  await makeTo(quay.calendarId, editor.id, 'editor');
  expect((await editor.client.call('DELETE', `/windows/${id}`)).body.code).toBe('not-found');
  expect((await quay.client.call('DELETE', `/windows/${id}`)).status).toBe(204);
  expect((await quay.client.call('DELETE', `/windows/${id}`)).body.code).toBe('not-found');
});

it('a deleted window is found nowhere inside, its addresses go on answering 410, and its public name is not given again', async () => {
  const { id, keys, slug } = await open('Regatta', { listed: true });
  const [key] = keys;
  await quay.client.call('PUT', `/keys/${key.id}`, {
    ...{ madeOutTo: 'Town', audience: 'street', cap: null, expiresAt: null, version: key.version },
    ...{ contact: 'town@far.example', notes: 'By phone' },
  });
  await quay.client.call('POST', `/windows/${id}/close`);
  await quay.client.call('DELETE', `/windows/${id}`);

  for (const path of [`/see/${key.token}`, `/feed/${key.token}.ics`, `/see/${slug}`])
    expect([path, await status(path)]).toEqual([path, 410]);
  const lists = [
    '/windows',
    '/reach',
    '/alerts',
    '/labels',
    `/calendars/${quay.calendarId}/impact`,
    '/sheets',
  ];
  for (const path of lists) {
    const answer = await quay.client.call('GET', path);
    expect([path, answer.status]).toEqual([path, 200]);
    expect(JSON.stringify(answer.body)).not.toContain(id);
    expect(JSON.stringify(answer.body)).not.toContain('Regatta');
  }
  const calls = [
    ...[`GET /windows/${id}`, `GET /windows/${id}/reach`, `GET /windows/${id}/versions`],
    ...[`POST /windows/${id}/open`, `GET /keys/${key.id}/ledger`, `POST /keys/${key.id}/bring-back`],
  ];
  for (const call of calls) {
    const [method, path] = call.split(' ') as [string, string];
    expect([call, (await quay.client.call(method, path)).body.code]).toEqual([call, 'not-found']);
  }
  expect(await KeyRow.findByPk(key.id)).toMatchObject({ contact: '', notes: '' });
  expect((await open('Regatta', { listed: true })).slug).not.toBe(slug);
});

it('the journal says who deleted a window', async () => {
  const { id } = await open('Auction');
  await quay.client.call('POST', `/windows/${id}/close`);
  await quay.client.call('DELETE', `/windows/${id}`);
  const { lines } = (await quay.client.call('GET', '/journal')).body;
  expect(lines[0]).toMatchObject({ by: 'Ida', about: 'Auction' });
  expect(lines[0].changes).toContainEqual(expect.objectContaining({ what: 'deleted', from: '–' }));
});
