import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { UserRow } from '../db/models';
import { PASSWORD, TestClient, colleague, quayServer } from '../testing';

let quay: Awaited<ReturnType<typeof quayServer>>;

beforeAll(async () => {
  quay = await quayServer();
});
afterAll(() => quay.server.close());

const invite = (email: string) =>
  quay.client.call('POST', '/invitations', { emails: [email], steward: false, standings: [] });

async function visitor() {
  const client = new TestClient(quay.server.base);
  await client.call('GET', '/session');
  return client;
}

const tokenOf = (address: string) => address.split('#')[1]!;

describe('without a mail server', () => {
  it('the address of an invitation is answered once, to the steward who sends it', async () => {
    const sent = await invite('mara@ostrel.example');
    const [{ id, handOutAddress }] = sent.body;
    expect(handOutAddress).toMatch(/\/welcome#[\w-]{32}$/);
    const listed = (await quay.client.call('GET', '/invitations')).body;
    expect(listed).toMatchObject([{ id, handOutAddress: null }]);

    const again = (await quay.client.call('POST', `/invitations/${id}/resend`)).body[0].handOutAddress;
    const accept = async (address: string) => {
      const body = { token: tokenOf(address), name: 'Mara', password: 'three plain words' };
      return (await visitor()).call('POST', '/passes/invitation', body);
    };
    expect((await accept(handOutAddress)).body.code).toBe('pass-unknown');
    expect((await accept(again)).status).toBe(200);
    expect((await accept(again)).body.code).toBe('pass-used');
  });

  it('a steward gets an address with which somebody chooses a new password, once, and the journal says so', async () => {
    const { id, email } = await colleague(quay.server.base, 'Per');
    const first = (await quay.client.call('POST', `/people/${id}/password-address`)).body.address;
    const made = await quay.client.call('POST', `/people/${id}/password-address`);
    expect(made.status).toBe(201);
    expect(made.body.address).toMatch(/\/new-password#[\w-]{32}$/);
    expect(Date.parse(made.body.endsAt) - Date.now()).toBeLessThanOrEqual(3_600_000);
    const choose = async (address: string) => {
      const body = { token: tokenOf(address), password: 'entirely different words' };
      return (await visitor()).call('POST', '/passes/password', body);
    };
    expect((await choose(first)).body.code).toBe('pass-unknown');
    expect((await choose(made.body.address)).status).toBe(200);
    expect((await new TestClient(quay.server.base).signIn(PASSWORD, email)).body.code).toBe('sign-in-failed');
    const { lines } = (await quay.client.call('GET', '/journal')).body;
    expect(lines).toContainEqual(
      expect.objectContaining({
        by: 'Ida',
        about: 'Per',
        changes: [expect.objectContaining({ what: 'address for a new password handed over' })],
      }),
    );
  });

  it('there is none for a suspended account, and none for unknown ones', async () => {
    const { id } = await colleague(quay.server.base, 'Siri');
    await UserRow.update({ restedAt: new Date() }, { where: { id } });
    const make = (who: string) => quay.client.call('POST', `/people/${who}/password-address`);
    expect((await make(id)).body.code).toBe('account-resting');
    expect((await make('7b0bbe40-0000-4000-8000-000000000000')).body.code).toBe('not-found');
  });

  it('everybody can learn that no mail is sent', async () => {
    const answer = await new TestClient(quay.server.base).call('GET', '/session');
    expect(answer.body.sendsMail).toBe(false);
  });
});

describe('with a mail server', () => {
  it('addresses go out by mail alone', async () => {
    const server = {
      ...{ host: '127.0.0.1', port: 9, secure: false },
      ...{ account: '', password: null, sender: 'calendars@ostrel.example', version: 0 },
    };
    expect((await quay.client.call('PUT', '/post/server', server)).status).toBe(200);
    const [invitation] = (await invite('tam@ostrel.example')).body;
    expect(invitation).toMatchObject({ email: 'tam@ostrel.example', handOutAddress: null });
    const { id } = await colleague(quay.server.base, 'Jon');
    const refused = await quay.client.call('POST', `/people/${id}/password-address`);
    expect([refused.status, refused.body.code]).toEqual([409, 'mail-server-set']);
    expect((await quay.client.call('GET', '/session')).body.sendsMail).toBe(true);
  });
});
