import { EMPTY_CONTENT } from '@zonal/core/entries';
import { EMPTY_SHELF, shelved, syncRequest } from '@zonal/core/followers';
import { QueryTypes, type Sequelize } from 'sequelize';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { connect } from '../db/connect';
import { migrate } from '../db/migrate';
import { UserRow } from '../db/models';
import { hashPassword } from '../people/passwords';
import {
  EMAIL,
  PASSWORD,
  TestClient,
  eventually,
  freshDatabase,
  serverProcess,
  windowInput,
  type ServerProcess,
} from '../testing';

/*
 * Real processes of the built server against one database: what subscribers get, and what is counted of them, does not depend
 * on which of them answers.
 */

let database: string;
let sequelize: Sequelize;
let both: ServerProcess[] = [];
let client: TestClient;
let calendarId: string;
let window: any;
let key: any;

const day = (n: number) => new Date(Date.now() + n * 86_400_000).toISOString().slice(0, 10);
const write = (title: string) =>
  client.call('POST', `/calendars/${calendarId}/entries`, {
    ...{ ...EMPTY_CONTENT, title, recurrence: null, overrides: [] },
    start: { kind: 'date', date: day(2) },
    end: { kind: 'date', date: day(3) },
  });
const feedOf = (one: any) => `/feed/${one.token}.ics`;
const ask = (at: ServerProcess, path: string, init: RequestInit = {}) => fetch(at.base + path, init);
const rows = <T extends object>(sql: string, id: string) =>
  sequelize.query<T>(sql, { replacements: { id }, type: QueryTypes.SELECT });
const counted = async (id: string) =>
  Number((await rows<{ count: string }>('SELECT count FROM key_uses WHERE key_id = :id', id))[0]?.count ?? 0);

beforeAll(async () => {
  database = await freshDatabase();
  sequelize = connect(database, { patient: true });
  await migrate(sequelize);
  const passwordHash = await hashPassword(PASSWORD);
  await UserRow.create({ name: 'Ida', email: EMAIL, role: 'steward', passwordHash });
  both = [await serverProcess(database), await serverProcess(database)];
  client = new TestClient(both[0]!.base);
  await client.signIn();
  const plate = { plate: 'QU', colour: 'teal', zone: 'UTC', description: '' };
  calendarId = (await client.call('POST', '/calendars', { ...plate, name: 'Quay' })).body.id;
  await write('Market');
  window = (await client.call('POST', '/windows', windowInput(calendarId, 'tinted', { hostZone: 'UTC' })))
    .body;
  key = window.keys[0];
});
afterAll(async () => {
  for (const one of both) await one.stop('SIGKILL');
  await sequelize.close();
});

const newKey = async (madeOutTo: string) => {
  const input = { madeOutTo, audience: 'street', cap: null, contact: '', notes: '', expiresAt: null };
  const { body } = await client.call('POST', `/windows/${window.id}/keys`, input);
  return body.keys.find((k: any) => k.madeOutTo === madeOutTo);
};

it('all give the same bytes, tags and tokens, and an edit at one shows in the others', async () => {
  const told = (at: ServerProcess) =>
    Promise.all(
      (
        [
          [feedOf(key), {}],
          [feedOf(key), { headers: { prefer: 'subscribe-enhanced-get' } }],
          [`/dav/${key.token}/`, { method: 'REPORT', body: syncRequest(EMPTY_SHELF) }],
          [`/dav/${key.token}/`, { method: 'PROPFIND', headers: { depth: '1' } }],
        ] as const
      ).map(async ([path, init]) => {
        const answer = await ask(at, path, init);
        const { status, headers } = answer;
        return [status, await answer.text(), headers.get('etag'), headers.get('sync-token')];
      }),
    );
  const same = async () => {
    const [one, other] = await Promise.all(both.map(told));
    expect(other).toEqual(one);
    return one!;
  };
  const before = await eventuallyTold(same);
  expect(before.map(([status]) => status)).toEqual([200, 200, 207, 207]);
  await write('Film');
  await eventually(async () => {
    expect(await (await ask(both[1]!, feedOf(key))).text()).toContain('Film');
  });
  const after = await same();
  expect(after.map(([, text]) => text)).not.toEqual(before.map(([, text]) => text));

  // A token of one is good at the other.
  const { token } = shelved(EMPTY_SHELF, String(before[2]![1]))!;
  const since = await ask(both[1]!, `/dav/${key.token}/`, { method: 'REPORT', body: syncRequest({ token }) });
  expect((await since.text()).match(/SUMMARY:.*/g)).toEqual([expect.stringContaining('Film')]);
});

async function eventuallyTold<T>(tell: () => Promise<T>): Promise<T> {
  let told: T | undefined;
  await eventually(async () => {
    told = await tell();
  });
  return told!;
}

describe('polls', () => {
  const agents = ['Tidebook/4', 'Almanac/2', 'Fetcher 7 subscribers'];
  const poll = (at: ServerProcess, one: any, agent: string) =>
    ask(at, feedOf(one), { headers: { 'user-agent': agent } }).then((r) => r.text());

  it('of one subscriber at several are counted as one subscriber’s, each once', async () => {
    const own = await newKey('Counted');
    await eventually(async () => expect((await ask(both[1]!, feedOf(own))).status).toBe(200));
    const met = await eventuallyTold(async () => {
      const n = await counted(own.id);
      expect(n).toBeGreaterThan(0);
      return n;
    });
    const all = Array.from({ length: 60 }, (_, i) => poll(both[i % 2]!, own, agents[i % 3]!));
    await Promise.all(all);
    await eventually(async () => expect(await counted(own.id)).toBe(met + 60));
    const known = await rows<{ readers: number; looks: number }>(
      `SELECT readers, (habit->>'polls')::int AS looks FROM subscribers WHERE key_id = :id ORDER BY looks DESC, readers`,
      own.id,
    );
    expect(known.slice(0, 3)).toEqual([
      { readers: 1, looks: 20 },
      { readers: 1, looks: 20 },
      { readers: 7, looks: 20 },
    ]);

    // A change that reaches all of them is counted once for each, whichever process answered.
    await write('Walk');
    await eventually(async () => {
      for (const at of both) expect(await (await ask(at, feedOf(key))).text()).toContain('Walk');
    });
    await Promise.all(both.flatMap((at) => agents.map((agent) => poll(at, own, agent))));
    const view = `${window.id}|street|`;
    await eventually(async () => {
      const [spread] = await rows<{ readers: number }>(
        `SELECT sum(readers)::int AS readers FROM spreads WHERE view_id = :id
         AND revision = (SELECT max(number) FROM ledger WHERE view_id = :id)`,
        view,
      );
      // Those three, and whoever asked for the first key’s feed.
      expect(spread!.readers).toBeGreaterThanOrEqual(9);
      expect(spread!.readers).toBeLessThanOrEqual(11);
    });
    // Nothing is expected twice of a revision, and in the end nothing is left to be: those that nobody followed have none.
    await eventually(async () => {
      const made = await rows<{ done: boolean }>(
        'SELECT made IS NOT NULL AS done FROM forecasts WHERE view_id = :id',
        view,
      );
      expect(made.length).toBeGreaterThan(0);
      expect(made.every(({ done }) => done)).toBe(true);
    });
  });

  it('survive a hard kill once they are stored, and none is lost when a process is stopped', async () => {
    const own = await newKey('Killed');
    await eventually(async () => expect((await ask(both[1]!, feedOf(own))).status).toBe(200));
    let answered = 1;
    let sure = 0;
    // Polls go on while some are stored already, so that the kill comes in the middle.
    await eventually(async () => {
      await poll(both[1]!, own, agents[0]!);
      answered++;
      sure = await counted(own.id);
      expect(sure).toBeGreaterThan(20);
    });
    await both[1]!.stop('SIGKILL');
    both[1] = await serverProcess(database);
    const stored = await counted(own.id);
    expect(stored).toBeGreaterThanOrEqual(sure);
    expect(stored).toBeLessThanOrEqual(answered);

    await eventually(async () => expect((await ask(both[1]!, feedOf(own))).status).toBe(200));
    const more = 1 + 40;
    for (let i = 0; i < 40; i++) await poll(both[1]!, own, agents[1]!);
    await both[1]!.stop('SIGTERM');
    // What answered while it was waited for it is counted too.
    expect(await counted(own.id)).toBeGreaterThanOrEqual(stored + more);
    both[1] = await serverProcess(database);
  });
});
