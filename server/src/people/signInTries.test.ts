import { afterAll, beforeAll, expect, it } from 'vitest';
import { EMAIL, PASSWORD, TestClient, freshDatabase, testServer } from '../testing';
import { SIGN_IN_LIMITS } from './signInTries';

/** Two processes of one house, each behind a proxy that says whose request it is. */
let servers: Awaited<ReturnType<typeof testServer>>[];

beforeAll(async () => {
  const database = await freshDatabase();
  servers = [await testServer(database, { proxies: 1 }), await testServer(database, { proxies: 1 })];
});
afterAll(async () => {
  for (const server of servers) await server.close();
});

const REFUSED = [429, 'too-many-tries'];
let client = 0;
/** An address from which nobody has tried yet. */
const elsewhere = () => `198.51.${Math.floor(++client / 250)}.${client % 250}`;

async function tryFrom(address: string, password = 'wrong', by = new TestClient(servers[client % 2]!.base)) {
  const { status, body } = await by.signIn(password, EMAIL, address);
  return [status, body.code];
}

it('whoever tries from everywhere locks out new devices, and nobody whose device is known', async () => {
  const known = new TestClient(servers[0]!.base);
  expect(await tryFrom(elsewhere(), PASSWORD, known)).toEqual([200, undefined]);
  await known.call('DELETE', '/session');
  // Both processes count together; what succeeds is not counted.
  const { fromUnknownDevices, fromKnownDevice } = SIGN_IN_LIMITS;
  for (let i = 0; i < fromUnknownDevices; i++) expect(await tryFrom(elsewhere())).not.toEqual(REFUSED);
  expect(await tryFrom(elsewhere(), PASSWORD)).toEqual(REFUSED);
  for (let i = 0; i < 3; i++) {
    expect(await tryFrom(elsewhere(), PASSWORD, known)).toEqual([200, undefined]);
    await known.call('DELETE', '/session');
  }
  // A known device has no more tries than any other client.
  for (let i = 0; i < fromKnownDevice; i++)
    expect(await tryFrom(elsewhere(), 'wrong', known)).not.toEqual(REFUSED);
  expect(await tryFrom(elsewhere(), PASSWORD, known)).toEqual(REFUSED);
});

it('one client has few tries at an account, and a device is known for its own account only', async () => {
  const own = new TestClient(servers[0]!.base);
  const email = 'nobody@ostrel.example';
  const codes = new Set<string>();
  for (let i = 0; i <= SIGN_IN_LIMITS.fromClient; i++)
    codes.add((await own.signIn('wrong', email, '203.0.113.7')).body.code);
  expect([...codes]).toEqual(['sign-in-failed', 'too-many-tries']);
  expect((await own.signIn('wrong', email, '203.0.113.8')).body.code).toBe('sign-in-failed');
});
