import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { UserRow } from '../db/models';
import { EMAIL, PASSWORD, TestClient, freshDatabase, testServer } from '../testing';
import { firstAddress, refuseKnownAccounts } from './firstAddress';

let server: Awaited<ReturnType<typeof testServer>>;
let databaseUrl = '';
beforeAll(async () => {
  databaseUrl = await freshDatabase();
  server = await testServer(databaseUrl);
});
afterAll(() => server.close());

const begin = async (token: string, parts: object = {}) => {
  const client = new TestClient(server.base);
  await client.call('GET', '/session');
  const house = { house: 'The Trust', zone: 'america/halifax', country: 'CA' };
  const own = { token, name: 'Mara Quist', email: 'Mara@ostrel.example', password: 'three plain words' };
  return { client, answer: await client.call('POST', '/passes/first', { ...own, ...house, ...parts }) };
};
const tokenOf = (address: string) => address.split('#')[1]!;

describe('the first steward', () => {
  it('begins at an address that works once, and that nobody is given who has an account already', async () => {
    expect(await firstAddress('http://house.example')).toBe(null);
    await UserRow.destroy({ where: {} });
    expect((await new TestClient(server.base).call('GET', '/session')).body.begun).toBe(false);
    const old = tokenOf((await firstAddress('http://house.example'))!);
    const address = (await firstAddress('http://house.example'))!;
    expect(address).toMatch(/^http:\/\/house\.example\/begin#[\w-]{32}$/);
    expect((await begin(old)).answer.body.code).toBe('pass-unknown');
    expect((await begin(tokenOf(address), { zone: 'Nowhere/Town' })).answer.status).toBe(422);
    const both = await Promise.all([
      begin(tokenOf(address)),
      begin(tokenOf(address), { email: 'b@o.example' }),
    ]);
    expect(both.map((b) => b.answer.status).sort()).toEqual([200, 410]);
    const { client, answer } = both.find((b) => b.answer.status === 200)!;
    expect(answer.body).toMatchObject({ begun: true, user: { role: 'steward' } });
    const house = (await client.call('GET', '/house')).body;
    expect(house).toMatchObject({ name: 'The Trust', zone: 'America/Halifax', country: 'CA' });
    expect(await UserRow.count()).toBe(1);
  });

  it('is not where an account has a password that everybody can know', async () => {
    await UserRow.update({ email: EMAIL }, { where: {} });
    const known = [{ email: EMAIL, password: 'three plain words' }];
    await expect(refuseKnownAccounts(known)).rejects.toThrow(/everybody can know/);
    await refuseKnownAccounts([{ email: EMAIL, password: PASSWORD }]);
    const refusedAccounts = known.map((k) => ({ ...k, name: 'Ida', role: 'steward' }));
    await expect(testServer(databaseUrl, { refusedAccounts })).rejects.toThrow(/everybody can know/);
  });
});
