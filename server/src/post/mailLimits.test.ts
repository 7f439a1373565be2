import { MAIL_LIMITS, RECIPIENT_LIMITS } from '@zonal/core/post';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { CalendarRow, MailRow } from '../db/models';
import {
  colleague,
  eventually,
  lettersTo,
  makeTo,
  quayServer,
  windowInput,
  type TestClient,
} from '../testing';

type House = Awaited<ReturnType<typeof quayServer>>;
let house: House;
let other: Awaited<ReturnType<typeof colleague>>;

const mailServer = {
  ...{ host: '127.0.0.1', port: 1, secure: false, account: '', password: '' },
  sender: 'calendars@ostrel.example',
};

beforeAll(async () => {
  house = await quayServer(undefined, { mailServer });
  other = await colleague(house.server.base, 'Per');
});
afterAll(() => house.server.close());

const PASSWORD = 'tide-and-time';
const changeAddress = (client: TestClient, email: string) =>
  client.call('POST', '/account/address', { email, password: PASSWORD });

it('a stranger gets few confirmations of an address, however often they are asked for', async () => {
  for (let i = 0; i < 12; i++)
    expect((await changeAddress(other.client, 'stranger@far.example')).status).toBe(204);
  const most = RECIPIENT_LIMITS.address!;
  await eventually(async () => expect(await lettersTo('stranger@far.example')).toHaveLength(most));
});

it('an announcement goes to one address only so often, and a sentence says so', async () => {
  const made = await house.client.call('POST', '/windows', windowInput(house.calendarId, 'tinted'));
  const [key] = made.body.keys;
  const contact = 'agents@far.example';
  const { version } = key;
  const input = { madeOutTo: 'Agents', audience: 'street', cap: null, contact, notes: '', expiresAt: null };
  expect((await house.client.call('PUT', `/keys/${key.id}`, { ...input, version })).status).toBe(200);
  const announce = () =>
    house.client.call('POST', `/windows/${made.body.id}/reach/mail`, {
      keyIds: [key.id],
      words: 'It moved.',
    });
  const most = RECIPIENT_LIMITS['reach-note']!;
  for (let i = 0; i < most; i++) expect((await announce()).status).toBe(200);
  const refused = await announce();
  expect([refused.status, refused.body.code]).toEqual([429, 'too-many-mails-to-one']);
  expect(refused.body.message).toContain(String(most));
  expect(await lettersTo(contact)).toHaveLength(most);
});

it('an account that has caused as many mails as it may causes no more, and others still do', async () => {
  const author = {
    authorId: other.id,
    kind: 'invitation',
    subject: '',
    content: null,
    state: 'sent',
  } as const;
  const before = await MailRow.count({ where: { authorId: other.id } });
  await MailRow.bulkCreate(
    Array.from({ length: MAIL_LIMITS.perAccount - before }, (_, i) => ({
      ...author,
      recipient: `somebody${i}@far.example`,
    })),
  );
  const refused = await changeAddress(other.client, 'new@far.example');
  expect([refused.status, refused.body.code]).toEqual([429, 'too-many-mails']);
  expect((await changeAddress(house.client, 'ida.new@far.example')).status).toBe(204);
  await eventually(async () => expect(await lettersTo('ida.new@far.example')).toHaveLength(1));
  // A new password is reported whatever the limits say.
  const changed = await other.client.call('PUT', '/account/password', {
    password: PASSWORD,
    next: 'another-tide-and-time',
  });
  expect(changed.status).toBe(200);
  expect((await lettersTo(other.email)).map((l) => l.kind)).toContain('credentials');
});

it('a request for access waits for its answer also if its mail is one too many', async () => {
  const askers = [await colleague(house.server.base, 'Ana'), await colleague(house.server.base, 'Tom')];
  const publisher = await colleague(house.server.base, 'Eva');
  const most = RECIPIENT_LIMITS['sight-request']!;
  const plate = { plate: 'QU', colour: 'teal', zone: 'UTC', description: '' };
  for (let i = 0; i < most + 2; i++) {
    const { body } = await house.client.call('POST', '/calendars', { ...plate, name: `Known ${i}` });
    await makeTo(body.id, publisher.id, 'publisher');
    await CalendarRow.update({ known: true }, { where: { id: body.id } });
    const wish = { standing: 'reader', glass: 'clear', reason: 'To know.' };
    const asked = await askers[i % 2]!.client.call('POST', `/calendars/${body.id}/wishes`, wish);
    expect([asked.status, asked.body.code]).toEqual([201, undefined]);
  }
  expect(await lettersTo(publisher.email)).toHaveLength(most);
});
