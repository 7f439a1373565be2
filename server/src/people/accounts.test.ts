import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { HouseRow, InvitationRow, PassRow, UserRow } from '../db/models';
import { PASSWORD, TestClient, colleague, eventually, lettersTo, makeTo, quayServer } from '../testing';

let quay: Awaited<ReturnType<typeof quayServer>>;
let serial = 0;
beforeAll(async () => {
  quay = await quayServer();
  await HouseRow.update({ name: 'The Trust', mailDomains: ['ostrel.example'] }, { where: { id: 1 } });
});
afterAll(() => quay.server.close());

const visitor = async () => {
  const client = new TestClient(quay.server.base);
  await client.call('GET', '/session');
  return client;
};
const reader = () => [{ calendarId: quay.calendarId, standing: 'reader', glass: 'tinted' }];
const invite = (emails: string[], parts: object = {}) =>
  quay.client.call('POST', '/invitations', { emails, steward: false, standings: reader(), ...parts });
const asked = async (email: string) =>
  (await quay.client.call('GET', '/invitations')).body.find((i: any) => i.email === email);
const newest = async (email: string) => (await lettersTo(email)).at(-1)!;
const accept = async (token: string, parts: object = {}) =>
  (await visitor()).call('POST', '/passes/invitation', {
    token,
    name: 'Mara Quist',
    password: 'three plain words',
    ...parts,
  });
const address = () => `mara${++serial}@ostrel.example`;

describe('an invitation', () => {
  it('goes out by mail, is accepted once, and makes somebody what it promised', async () => {
    const [mara, other] = [address(), 'agent@elsewhere.example'];
    const made = await invite([mara.toUpperCase(), other]);
    expect(made.status).toBe(201);
    expect([(await asked(mara)).state, (await asked(mara)).outside]).toEqual(['pending', false]);
    expect((await asked(other)).outside).toBe(true);
    const letter = await newest(mara);
    expect(letter.text).toContain('Ida invites you to the calendars of The Trust.');
    expect(letter.text).toContain('- reader of Quay through tinted glass');
    expect(letter.html).toContain('>reader of Quay through tinted glass</li>');
    const people = await quay.client.call('GET', `/calendars/${quay.calendarId}/people`);
    expect(people.body.invited).toContainEqual({ email: mara, standing: 'reader', glass: 'tinted' });

    const client = await visitor();
    const told = await client.call('POST', '/passes', { token: letter.token });
    expect(told.body).toMatchObject({
      kind: 'invitation',
      email: mara,
      by: 'Ida',
      house: 'The Trust',
      lines: ['reader of Quay through tinted glass'],
    });
    expect((await accept(letter.token, { password: 'short' })).body.code).toBe('password-weak');
    expect((await accept(letter.token, { password: 'aaaaaaaaaaaa' })).body.code).toBe('password-weak');
    expect((await accept(letter.token, { name: '  ' })).status).toBe(422);
    const come = { token: letter.token, name: 'Mara Quist', password: 'three plain words' };
    const came = await client.call('POST', '/passes/invitation', come);
    expect(came.body.user).toMatchObject({ name: 'Mara Quist', email: mara, role: 'member' });
    const calendars = (await client.call('GET', '/calendars')).body;
    expect(calendars.map((c: any) => [c.name, c.who, c.sight])).toEqual([['Quay', 'reader', 'tinted']]);
    expect((await asked(mara)).state).toBe('accepted');
    // Once only, whoever tries.
    expect((await accept(letter.token)).body.code).toBe('pass-used');
    expect((await client.call('POST', '/passes', { token: letter.token })).status).toBe(410);
    expect((await quay.client.call('DELETE', `/invitations/${(await asked(mara)).id}`)).body.code).toBe(
      'invitation-answered',
    );
  });

  it('is accepted by one of two who do so at once', async () => {
    const mara = address();
    await invite([mara]);
    const { token } = await newest(mara);
    const answers = await Promise.all([accept(token), accept(token), accept(token)]);
    expect(answers.map((a) => a.status).sort()).toEqual([200, 410, 410]);
    expect(await UserRow.count({ where: { email: mara } })).toBe(1);
  });

  it('sent again has a new address and end; of what is changed meanwhile the newest counts', async () => {
    const mara = address();
    await invite([mara]);
    const first = await newest(mara);
    const { id } = await asked(mara);
    await InvitationRow.update({ endsAt: new Date(Date.now() - 1) }, { where: { id } });
    await PassRow.update({ endsAt: new Date(Date.now() - 1) }, { where: { concerns: id } });
    expect((await asked(mara)).state).toBe('ended');
    expect((await accept(first.token)).body.code).toBe('pass-ended');
    await quay.client.call('POST', `/invitations/${id}/resend`);
    expect((await asked(mara)).state).toBe('pending');
    const second = await newest(mara);
    expect((await accept(first.token)).body.code).toBe('pass-unknown');
    const change = { steward: false, standings: [{ ...reader()[0], standing: 'editor' }], version: 1 };
    expect((await quay.client.call('PUT', `/invitations/${id}`, change)).status).toBe(200);
    expect((await quay.client.call('PUT', `/invitations/${id}`, change)).body.code).toBe('version-conflict');
    expect((await (await visitor()).call('POST', '/passes', { token: second.token })).body.lines).toEqual([
      'editor of Quay',
    ]);
    expect((await accept(second.token)).status).toBe(200);
  });

  it('that was withdrawn is none', async () => {
    const mara = address();
    await invite([mara]);
    const { token } = await newest(mara);
    await quay.client.call('DELETE', `/invitations/${(await asked(mara)).id}`);
    expect((await asked(mara)).state).toBe('withdrawn');
    expect((await accept(token)).body.code).toBe('invitation-withdrawn');
    // And the same address can be asked anew.
    expect((await invite([mara])).status).toBe(201);
  });

  it('is refused for what is no address, or known, and nothing of the rest is sent', async () => {
    const mara = address();
    expect((await invite(['not an address', mara])).body.code).toBe('input-invalid');
    expect((await invite(['ida@ostrel.example', mara])).body).toMatchObject({
      code: 'address-known',
      details: { emails: 'ida@ostrel.example' },
    });
    expect(await lettersTo(mara)).toEqual([]);
    await invite([mara]);
    expect((await invite([mara])).body.code).toBe('invitation-pending');
    const nowhere = [{ ...reader()[0], calendarId: '7b0bbe40-0000-4000-8000-000000000000' }];
    expect((await invite([address()], { standings: nowhere })).body.code).toBe('calendar-gone');
  });

  it('keeps what it says out of the database', async () => {
    const mara = address();
    await invite([mara]);
    const { token } = await newest(mara);
    const [stored] = await PassRow.sequelize!.query(
      'SELECT (SELECT json_agg(p) FROM passes p)::text || (SELECT json_agg(m) FROM mails m)::text AS all',
    );
    expect(token).toHaveLength(32);
    expect(JSON.stringify(stored)).not.toContain(token);
  });
});

describe('an address that works once', () => {
  it('is told to be none where it is forged, of whatever kind', async () => {
    const client = await visitor();
    const token = 'A'.repeat(32);
    for (const path of ['', '/invitation', '/first', '/password', '/address']) {
      const body = {
        '': { token },
        '/invitation': { token, name: 'X', password: 'three plain words' },
        '/first': {
          token,
          name: 'X',
          password: 'three plain words',
          email: 'x@ostrel.example',
          house: 'H',
          zone: 'UTC',
          country: '',
        },
        '/password': { token, password: 'three plain words' },
        '/address': { token },
      }[path];
      expect((await client.call('POST', `/passes${path}`, body)).body.code, path).toBe('pass-unknown');
    }
    // One of another kind is none either.
    const mara = address();
    await invite([mara]);
    const other = { token: (await newest(mara)).token, password: 'three plain words' };
    expect((await client.call('POST', '/passes/password', other)).body.code).toBe('pass-unknown');
  });
});

describe('one’s own account', () => {
  it('gets a new password by mail, which signs out everything else; unknown addresses are answered alike', async () => {
    const { email, client } = await colleague(quay.server.base, `Lost${++serial}`);
    const outsider = await visitor();
    const known = await outsider.call('POST', '/forgotten', { email });
    const unknown = await outsider.call('POST', '/forgotten', { email: 'nobody@ostrel.example' });
    expect([known.status, known.body]).toEqual([unknown.status, unknown.body]);
    await eventually(async () => expect(await lettersTo(email)).toHaveLength(1));
    expect(await lettersTo('nobody@ostrel.example')).toEqual([]);
    const { token } = await newest(email);
    const body = { token, password: 'a new one of mine' };
    expect((await outsider.call('POST', '/passes/password', { token, password: 'x' })).body.code).toBe(
      'password-weak',
    );
    const done = await outsider.call('POST', '/passes/password', body);
    expect(done.body.user.email).toBe(email);
    expect((await client.call('GET', '/calendars')).status).toBe(401);
    expect((await (await visitor()).call('POST', '/passes/password', body)).body.code).toBe('pass-used');
    expect((await new TestClient(quay.server.base).signIn(PASSWORD, email)).status).toBe(401);
    expect((await new TestClient(quay.server.base).signIn('a new one of mine', email)).status).toBe(200);
  });

  it('changes its password, tells its programs, and signs them out', async () => {
    const { email, client } = await colleague(quay.server.base, `Own${++serial}`);
    const second = new TestClient(quay.server.base);
    await second.signIn(PASSWORD, email);
    expect((await client.call('GET', '/account')).body.devices).toHaveLength(2);
    const wrong = { password: 'not mine at all', next: 'a new one of mine' };
    expect((await client.call('PUT', '/account/password', wrong)).body.code).toBe('password-wrong');
    const right = { password: PASSWORD, next: 'a new one of mine' };
    const changed = await client.call('PUT', '/account/password', right);
    expect(changed.body.devices.map((d: any) => d.own)).toEqual([true]);
    expect((await second.call('GET', '/account')).status).toBe(401);
    await second.signIn('a new one of mine', email);
    const other = (await client.call('GET', '/account')).body.devices.find((d: any) => !d.own);
    await client.call('DELETE', `/account/devices/${other.id}`);
    expect((await second.call('GET', '/account')).status).toBe(401);
    expect((await client.call('GET', '/account')).status).toBe(200);
    await client.call('DELETE', '/account/devices');
    expect((await client.call('GET', '/account')).status).toBe(401);
  });

  it('changes its address once that is confirmed; one that is known is answered alike, and told', async () => {
    const { email, client } = await colleague(quay.server.base, `Move${++serial}`);
    const moved = address();
    const ask = (to: string) => client.call('POST', '/account/address', { email: to, password: PASSWORD });
    expect((await client.call('POST', '/account/address', { email: moved, password: 'x' })).status).toBe(403);
    expect((await ask(moved)).status).toBe(204);
    expect((await ask('ida@ostrel.example')).status).toBe(204);
    await eventually(async () => expect((await newest('ida@ostrel.example'))?.kind).toBe('address-known'));
    await eventually(async () => expect((await newest(moved))?.kind).toBe('address'));
    expect((await client.call('GET', '/account')).body.email).toBe(email);
    const { token } = await newest(moved);
    expect((await (await visitor()).call('POST', '/passes/address', { token })).status).toBe(204);
    // Whoever was signed in elsewhere is signed out.
    expect((await client.call('GET', '/account')).body.code).toBe('not-signed-in');
    expect((await client.signIn(PASSWORD, moved)).status).toBe(200);
    expect((await client.call('GET', '/account')).body.email).toBe(moved);
    expect((await (await visitor()).call('POST', '/passes/address', { token })).body.code).toBe('pass-used');
  });
});

describe('accounts of the house', () => {
  const stewards = async () =>
    (await quay.client.call('GET', '/people')).body.filter((a: any) => a.steward && !a.restedAt);

  it('keep a steward, whoever takes that away, and two at once', async () => {
    const [own] = await stewards();
    const take = (client: TestClient, id: string) =>
      client.call('PUT', `/people/${id}/steward`, { steward: false });
    expect((await take(quay.client, own.id)).body.code).toBe('steward-missing');
    expect((await quay.client.call('PUT', `/people/${own.id}/rest`, { rested: true })).body.code).toBe(
      'publisher-resting',
    );
    const { id, client } = await colleague(quay.server.base, `Stew${++serial}`);
    expect((await quay.client.call('PUT', `/people/${id}/steward`, { steward: true })).status).toBe(200);
    const both = await Promise.all([take(quay.client, id), take(client, own.id)]);
    const refused = both.filter((a) => a.status >= 400);
    expect(refused).toHaveLength(1);
    expect(['steward-missing', 'steward-only']).toContain(refused[0]!.body.code);
    expect(await UserRow.count({ where: { role: 'steward' } })).toBe(1);
    await UserRow.update({ role: 'steward' }, { where: { id: own.id } });
    await UserRow.update({ role: 'member' }, { where: { id } });
  });

  it('go to rest and are taken up again, what they did keeps its name', async () => {
    const { id, email, client } = await colleague(quay.server.base, `Rest${++serial}`);
    await makeTo(quay.calendarId, id, 'publisher');
    const window = { calendarId: quay.calendarId };
    expect((await client.call('GET', `/calendars/${window.calendarId}/people`)).status).toBe(200);
    const rest = (rested: boolean) => quay.client.call('PUT', `/people/${id}/rest`, { rested });
    expect((await rest(true)).body.find((a: any) => a.id === id).restedAt).not.toBe(null);
    expect((await client.call('GET', '/calendars')).status).toBe(401);
    expect((await new TestClient(quay.server.base).signIn(PASSWORD, email)).body.code).toBe(
      'account-resting',
    );
    const people = (await quay.client.call('GET', `/calendars/${quay.calendarId}/people`)).body.people;
    expect(people.map((p: any) => p.userId)).toContain(id);
    // A suspended account gets no link. Requests are handled after their answer, so a later one shows that this one is done.
    const other = await colleague(quay.server.base, `Active${++serial}`);
    for (const asked of [email, other.email])
      await (await visitor()).call('POST', '/forgotten', { email: asked });
    await eventually(async () => expect(await lettersTo(other.email)).toHaveLength(1));
    expect((await rest(false)).body.find((a: any) => a.id === id).restedAt).toBe(null);
    expect((await new TestClient(quay.server.base).signIn(PASSWORD, email)).status).toBe(200);
    expect(await lettersTo(email)).toEqual([]);
  });

  it('are limited in what they try, whatever a request says of where it comes from', async () => {
    const client = await visitor();
    const tries = [];
    for (let n = 0; n < 7; n++) {
      const from = { 'x-forwarded-for': `10.0.0.${n}`, forwarded: `for=10.0.0.${n}` };
      const body = { email: 'often@ostrel.example' };
      tries.push((await client.call('POST', '/forgotten', body, 'application/json', from)).status);
    }
    expect(tries).toEqual([204, 204, 204, 204, 204, 429, 429]);
  });
});
