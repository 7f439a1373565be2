import { ACCOUNT_LIMITS } from '@zonal/core/rights';
import { afterAll, beforeAll, expect, it } from 'vitest';
import {
  CalendarRow,
  CeilingRequestRow,
  EditRow,
  SheetRow,
  StandingRow,
  UserRow,
  VersionRow,
  WindowRow,
} from '../db/models';
import { colleague, makeTo, quayServer, windowInput, type Answer, type TestClient } from '../testing';

/* What one account has counts against its own limit, and takes nothing from anybody else. */

let house: Awaited<ReturnType<typeof quayServer>>;
let greedy: Awaited<ReturnType<typeof colleague>>;
let honest: Awaited<ReturnType<typeof colleague>>;

beforeAll(async () => {
  house = await quayServer();
  greedy = await colleague(house.server.base, 'Per');
  honest = await colleague(house.server.base, 'Ana');
  for (const { id } of [greedy, honest]) await makeTo(house.calendarId, id, 'publisher');
});
afterAll(() => house.server.close());

const many = <T>(length: number, make: (n: number) => T) => Array.from({ length }, (_, n) => make(n));
const plate = { plate: 'QU', colour: 'teal' as const, zone: 'UTC', description: '' };
let serial = 0;

const KINDS: Record<
  string,
  { code: string; fill: (userId: string) => Promise<unknown>; add: (client: TestClient) => Promise<Answer> }
> = {
  calendars: {
    code: 'too-many-calendars',
    fill: async (userId) => {
      const rows = await CalendarRow.bulkCreate(
        many(ACCOUNT_LIMITS.calendars, (n) => ({ ...plate, name: `Many ${n}` })),
      );
      const own = { userId, standing: 'publisher' as const, glass: null, byId: userId, since: new Date() };
      await StandingRow.bulkCreate(rows.map(({ id }) => ({ calendarId: id, ...own })));
    },
    add: (client) => client.call('POST', '/calendars', { ...plate, name: `One more ${++serial}` }),
  },
  windows: {
    code: 'too-many-windows',
    fill: async (userId) => {
      const made = await house.client.call('POST', '/windows', windowInput(house.calendarId, 'tinted'));
      const { slug: _slug, ...row } = (await WindowRow.findByPk(made.body.id, { raw: true }))!;
      const rows = await WindowRow.bulkCreate(
        many(ACCOUNT_LIMITS.windows, (n) => ({
          ...row,
          id: undefined,
          slug: null,
          name: `Many ${n}`,
        })) as never,
      );
      await VersionRow.bulkCreate(
        rows.map(({ id }) => ({ windowId: id, version: 1, body: {} as never, userId })),
      );
    },
    add: (client) =>
      client.call('POST', '/windows', windowInput(house.calendarId, 'tinted', { name: `More ${++serial}` })),
  },
  'link sheets': {
    code: 'too-many-sheets',
    fill: (userId) =>
      SheetRow.bulkCreate(
        many(ACCOUNT_LIMITS.linkSheets, (n) => ({
          ...{ name: `Many ${n}`, note: '', items: [], userId },
          ...{ token: `t${n}`, tokenPrint: `p${n}` },
        })) as never,
      ),
    add: (client) => client.call('POST', '/sheets', { name: 'More', note: '', items: [] }),
  },
  'staged edits': {
    code: 'too-many-staged-edits',
    fill: (userId) =>
      EditRow.bulkCreate(
        many(ACCOUNT_LIMITS.stagedEdits, () => ({ userId, label: 'x', state: 'staged' as const })),
      ),
    add: (client) => client.call('POST', '/edits', { label: 'x', staged: true, changes: [] }),
  },
  'requests for a higher ceiling': {
    code: 'too-many-ceiling-requests',
    fill: (userId) =>
      CeilingRequestRow.bulkCreate(
        many(ACCOUNT_LIMITS.ceilingRequests, () => ({
          ...{ calendarId: house.calendarId, audience: 'crew' as const, glass: 'clear' as const },
          ...{ reason: 'More.', userId },
        })),
      ),
    add: (client) =>
      client.call('POST', '/ceilings/requests', {
        ...{ calendarId: house.calendarId, audience: 'street', glass: 'clear', reason: 'To know.' },
      }),
  },
};

it.each(Object.entries(KINDS))('%s of one account leave room for those of others', async (_kind, kind) => {
  await kind.fill(greedy.id);
  const refused = await kind.add(greedy.client);
  expect([refused.status, refused.body.code]).toEqual([422, kind.code]);
  expect((await kind.add(honest.client)).status).toBe(201);
});

it('an honest request for a ceiling stays in sight, however many others ask', async () => {
  const others = await UserRow.bulkCreate(
    many(10, (n) => ({
      name: `P${n}`,
      email: `p${n}@ostrel.example`,
      role: 'member' as const,
      passwordHash: '',
    })),
  );
  for (const { id } of others) await KINDS['requests for a higher ceiling']!.fill(id);
  const { body } = await house.client.call('GET', '/ceilings');
  const asked = body.requests.filter((r: { by: string }) => r.by === 'Ana');
  expect(asked).toHaveLength(1);
  expect(body.requests.length).toBeGreaterThan(10 * ACCOUNT_LIMITS.ceilingRequests);
});
