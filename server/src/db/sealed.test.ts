import { QueryTypes } from 'sequelize';
import { afterAll, expect, it } from 'vitest';
import { TestClient, freshDatabase, testServer, windowInput } from '../testing';
import { connect } from './connect';
import { seal, sealWith, unsealed } from './sealed';

const open: { close(): Promise<void> }[] = [];
afterAll(async () => {
  for (const one of open) await one.close();
});

it('gives back what was sealed, never twice the same, and only to whoever has the secret', () => {
  sealWith('one secret of the tests');
  const [a, b] = [seal('token'), seal('token')];
  expect(a).not.toBe(b);
  expect([unsealed(a), unsealed(b), unsealed('never sealed')]).toEqual(['token', 'token', 'never sealed']);
  expect(() => unsealed(`${a.slice(0, -2)}${a.endsWith('AA') ? 'BB' : 'AA'}`)).toThrow();
  sealWith('another secret of the tests');
  expect(() => unsealed(a)).toThrow();
});

it('no address stands in the database, also of those that were there before; another secret is refused', async () => {
  const url = await freshDatabase();
  const first = await testServer(url, { keysSecret: 'the secret of addresses' });
  const client = new TestClient(first.base);
  await client.signIn();
  const plate = { plate: 'QU', colour: 'teal', zone: 'America/Halifax', description: '' };
  const calendar = (await client.call('POST', '/calendars', { ...plate, name: 'Quay' })).body;
  const window = (await client.call('POST', '/windows', windowInput(calendar.id, 'tinted'))).body;
  const { id, token } = window.keys[0];
  const turned = (await client.call('POST', `/keys/${id}/turn`, { graceDays: 3 })).body.keys[0].token;
  const sequelize = connect(url);
  open.push(sequelize);
  const stored = async () =>
    JSON.stringify([
      await sequelize.query('SELECT * FROM keys', { type: QueryTypes.SELECT }),
      await sequelize.query('SELECT * FROM turned_tokens', { type: QueryTypes.SELECT }),
      await sequelize.query('SELECT * FROM changes', { type: QueryTypes.SELECT }),
    ]);
  expect(await stored()).not.toContain(token);
  expect(await stored()).not.toContain(turned);
  await sequelize.query(`UPDATE keys SET token = 'written-before-there-were-seals'`);
  await first.close();

  await expect(testServer(url, { keysSecret: 'some other secret' })).rejects.toThrow('Set KEYS_SECRET');
  const again = await testServer(url, { keysSecret: 'the secret of addresses' });
  open.unshift(again);
  expect(await stored()).not.toContain('written-before');
  for (const path of ['written-before-there-were-seals', token])
    expect((await fetch(`${again.base}/see/${path}`)).status).toBe(200);
});
