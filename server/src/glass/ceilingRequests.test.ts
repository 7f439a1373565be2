import { afterAll, beforeAll, expect, it } from 'vitest';
import { CeilingRequestRow, UserRow } from '../db/models';
import { colleague, lettersTo, makeTo, quayServer, type TestClient } from '../testing';

let quay: Awaited<ReturnType<typeof quayServer>>;
let serial = 0;

beforeAll(async () => {
  quay = await quayServer();
});
afterAll(() => quay.server.close());

async function publisher() {
  const who = await colleague(quay.server.base, `Ole${++serial}`);
  await makeTo(quay.calendarId, who.id, 'publisher');
  return who;
}

async function steward() {
  const who = await colleague(quay.server.base, `Ebba${++serial}`);
  await UserRow.update({ role: 'steward' }, { where: { id: who.id } });
  return who;
}

const ask = (client: TestClient, more: object = {}) =>
  client.call('POST', '/ceilings/requests', {
    ...{ calendarId: quay.calendarId, audience: 'street', glass: 'clear', reason: 'The town asks' },
    ...more,
  });
const kindsTo = async (email: string) => (await lettersTo(email)).map((letter) => letter.kind);

it('reaches the stewards by mail, and its answer the person who asked', async () => {
  const [asker, other] = [await publisher(), await steward()];
  const [mine] = (await ask(asker.client)).body.requests;
  expect(mine).toMatchObject({ state: 'open', own: true, toAnswer: false, answeredAt: null });
  const [letter] = await lettersTo(other.email);
  expect(letter).toMatchObject({
    kind: 'ceiling-request',
    subject: `Ole${serial - 1} asks you to raise the ceiling of “Quay” for Street to Clear`,
  });
  expect(letter!.text).toContain('“The town asks”');
  expect(letter!.text).toContain('/requests');
  const seen = (await other.client.call('GET', '/ceilings')).body.requests[0];
  expect(seen).toMatchObject({ id: mine.id, own: false, toAnswer: true });

  await other.client.call('POST', `/ceilings/requests/${mine.id}`, { grant: false });
  const [reply] = await lettersTo(asker.email);
  expect(reply).toMatchObject({ kind: 'ceiling-reply', subject: 'Your request was declined' });
  const [answered] = (await asker.client.call('GET', '/ceilings')).body.requests;
  expect(answered).toMatchObject({ state: 'refused', answeredBy: `Ebba${serial}`, toAnswer: false });
  expect(Date.parse(answered.answeredAt)).toBeGreaterThan(Date.parse(answered.at));
});

it('is replaced if the same person asks for the same ceiling again, without a second mail', async () => {
  const [asker, other] = [await publisher(), await steward()];
  await ask(asker.client);
  const again = (await ask(asker.client, { glass: 'tinted', reason: 'Titles would do' })).body.requests;
  const open = again.filter((r: { own: boolean; state: string }) => r.own && r.state === 'open');
  expect(open).toMatchObject([{ glass: 'tinted', reason: 'Titles would do' }]);
  expect(await kindsTo(other.email)).toEqual(['ceiling-request']);
  await ask(asker.client, { audience: 'partners' });
  expect(await kindsTo(other.email)).toHaveLength(2);
});

it('is withdrawn by the person who asked alone, and only while it is open', async () => {
  const [asker, other] = [await publisher(), await publisher()];
  const [{ id }] = (await ask(asker.client)).body.requests;
  const withdraw = (client: TestClient, which = id) => client.call('DELETE', `/ceilings/requests/${which}`);
  expect((await withdraw(other.client)).body.code).toBe('not-found');
  expect((await withdraw(asker.client, 'no-such-id')).body.code).toBe('not-found');
  const { requests } = (await withdraw(asker.client)).body;
  expect(requests.find((r: { id: string }) => r.id === id).state).toBe('taken-back');
  expect((await withdraw(asker.client)).body.code).toBe('request-answered');
  const late = await quay.client.call('POST', `/ceilings/requests/${id}`, { grant: true });
  expect(late.body.code).toBe('request-answered');
});

it('is not listed any more for people who lost their right to the calendar', async () => {
  const asker = await publisher();
  const [{ id }] = (await ask(asker.client)).body.requests;
  await makeTo(quay.calendarId, asker.id, 'reader', 'tinted');
  expect((await asker.client.call('GET', '/ceilings')).body.requests).toEqual([]);
  expect((await CeilingRequestRow.findByPk(id))!.state).toBe('open');
});
