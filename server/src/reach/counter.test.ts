import { POLL_FORMS, unpackPolls, type Habit } from '@zonal/core/reach';
import { DAY, HOUR, MINUTE } from '@zonal/core/zones';
import type { IncomingMessage } from 'node:http';
import { QueryTypes, type Sequelize } from 'sequelize';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { connect } from '../db/connect';
import { LedgerRow } from '../db/models';
import { forgetReaders, readersOf, weekOf } from '../db/readers';
import { traceOf } from '../http/trace';
import type { Fetched } from '../outside/counting';
import {
  eventually,
  freshDatabase,
  quayServer,
  windowInput,
  type TestClient,
  type testServer,
} from '../testing';
import { revisionIn } from '../outside/syncToken';
import { Counter, stepOf } from './counter';
import { PollLog } from './pollLog';
import { rangeOf } from './readers';
import { rollUp } from './rollUp';

const trace = (remoteAddress: string, program = 'Tidebook/4', forwarded?: string) =>
  traceOf({
    socket: { remoteAddress },
    headers: { 'user-agent': program, ...(forwarded ? { 'x-forwarded-for': forwarded } : {}) },
  } as unknown as IncomingMessage);

describe('where a reader comes from', () => {
  it('is a range of addresses', () => {
    expect(rangeOf('203.0.113.9')).toBe(rangeOf('203.0.113.200'));
    expect(rangeOf('::ffff:203.0.113.9')).toBe(rangeOf('203.0.113.1'));
    expect(rangeOf('203.0.114.9')).not.toBe(rangeOf('203.0.113.9'));
    expect(rangeOf('2001:db8:1:2::3')).toBe(rangeOf('2001:db8:1:ffff::'));
    expect(rangeOf('2001:db8:2::')).not.toBe(rangeOf('2001:db8:1::'));
    expect(rangeOf('nowhere')).toBe('');
  });

  it('is kept no longer than a header can be', () => {
    expect(trace('::1', 'x'.repeat(10_000), 'y'.repeat(10_000)).length).toBeLessThan(700);
  });
});

it('weeks begin on Mondays', () => {
  const days = ['2026-06-07', '2026-06-08', '2026-06-14', '2026-06-15'];
  expect(days.map((d) => weekOf(Date.parse(`${d}T23:59:59Z`)))).toEqual([
    '2026-06-01',
    '2026-06-08',
    '2026-06-08',
    '2026-06-15',
  ]);
});

it('an entity tag of a document names its revision, whatever a program makes of it', () => {
  const tags = ['"r12-abc"', 'W/"r12-abc-gz"', '"r12-abc", "r9-x"', '"other"', '*', ''];
  expect(tags.map(revisionIn)).toEqual([12, 12, 12, null, null, null]);
});

/** A Wednesday, at noon. */
const NOW = Date.UTC(2026, 5, 10, 12);

describe('what is counted', () => {
  let server: Awaited<ReturnType<typeof testServer>>;
  let client: TestClient;
  let sequelize: Sequelize;
  let window: any;
  let viewId: string;

  beforeAll(async () => {
    const url = await freshDatabase();
    let calendarId: string;
    ({ server, client, calendarId } = await quayServer(url));
    window = (await client.call('POST', '/windows', windowInput(calendarId, 'tinted'))).body;
    viewId = `${window.id}|street|`;
    sequelize = connect(url);
  });
  afterAll(async () => {
    await sequelize.close();
    await server.close();
  });
  const newKey = async (parts: object = {}) => {
    const input = {
      madeOutTo: 'Desk',
      audience: 'street',
      cap: null,
      contact: '',
      notes: '',
      expiresAt: null,
    };
    const { body } = await client.call('POST', `/windows/${window.id}/keys`, { ...input, ...parts });
    return body.keys.at(-1);
  };
  const counter = (proxies = 0) => new Counter({ sequelize, proxies, every: 3_600_000 });
  const fetched = (keyId: string, parts: Partial<Fetched> = {}): Fetched => ({
    ...{ keyId, viewId, number: 1, form: 'feed', held: '', at: NOW, trace: trace('203.0.113.1') },
    ...parts,
  });
  /** Counts in one go. */
  const count = async (...all: readonly Fetched[]) => {
    const one = counter();
    await one.take(all);
    await one.close();
  };
  const readers = async (id: string, now = NOW) => (await readersOf(sequelize, [id], now)).get(id);
  const ask = <T extends object>(sql: string, id: string) =>
    sequelize.query<T>(sql, { replacements: { id }, type: QueryTypes.SELECT });
  const subscribers = (id: string) =>
    ask<{ id: string; week: string; revision: number; readers: number; form: number; habit: Habit }>(
      'SELECT id, week::text, revision, readers, form, habit FROM subscribers WHERE key_id = :id ORDER BY id',
      id,
    );
  const polls = async (id: string) =>
    (
      await ask<{ day: string; polls: Buffer }>(
        `SELECT p.day::text, p.polls FROM polls p JOIN subscribers s ON s.id = p.subscriber_id
         WHERE s.key_id = :id ORDER BY s.id, p.day`,
        id,
      )
    ).flatMap((row) => unpackPolls(row.polls, Date.parse(row.day)));

  describe('of readers', () => {
    it('tells them apart by range and program, across processes, and counts each once', async () => {
      const { id } = await newKey();
      const all = [
        ...Array.from({ length: 199 }, (_, host) => trace(`203.0.113.${host + 1}`)),
        trace('203.0.114.1'),
        trace('203.0.113.1', 'Other/1'),
        trace('203.0.113.1', 'Tidebook/5.1'),
      ].map((one) => fetched(id, { trace: one, form: 'page' }));
      await Promise.all([count(...all), count(...all)]);
      expect(await readers(id)).toBe(3);
      await count(fetched(id, { trace: trace('203.0.115.1', 'Fetcher; 40 subscribers') }));
      expect(await readers(id)).toBe(43);
    });

    it('takes those behind the proxies that are ours, whatever they say of others', async () => {
      const { id } = await newKey();
      const own = counter(1);
      await own.take(
        [1, 2, 3, 4].map((n) =>
          fetched(id, { trace: trace('127.0.0.1', 'Tidebook', `10.0.${n}.1, 203.0.113.4`) }),
        ),
      );
      await own.close();
      expect([await readers(id), (await subscribers(id)).length]).toEqual([1, 1]);
    });

    it('leaves nothing by which they are known again, and forgets them after two weeks', async () => {
      const { id } = await newKey();
      const program = 'Rare program of one reader';
      const noted = (at: number, hosts: number[]) =>
        count(...hosts.map((host) => fetched(id, { at, trace: trace(`198.51.${host}.1`, program) })));
      await noted(NOW, [1, 2]);
      await noted(NOW + 7 * DAY, [1]);
      expect(await readers(id, NOW + 7 * DAY)).toBe(2);
      const stored = await ask<{ week: string; reader: Buffer }>(
        'SELECT week::text, reader FROM key_readers WHERE key_id = :id',
        id,
      );
      expect(new Set(stored.map((r) => r.reader.toString('hex'))).size).toBe(3);
      expect(stored.every((r) => r.reader.length === 12)).toBe(true);
      await forgetReaders(sequelize, NOW + 14 * DAY);
      const left = await ask<{ week: string }>(
        'SELECT week::text FROM key_readers WHERE key_id = :id UNION SELECT week::text FROM reader_salts',
        id,
      );
      expect(left.map((r) => r.week)).toEqual([weekOf(NOW + 7 * DAY)]);
    });

    it('is told to organisers with the number that the key is made out for', async () => {
      const key = await newKey({ meantFor: 2 });
      expect([key.meantFor, key.readers]).toEqual([2, 0]);
      for (const program of ['a', 'b', 'c'])
        for (const address of [key.see, key.feed])
          await fetch(server.base + new URL(address).pathname, { headers: { 'user-agent': program } });
      const told = async () =>
        (await client.call('GET', `/windows/${window.id}`)).body.keys.find((k: any) => k.id === key.id);
      await eventually(async () => expect((await told()).readers).toBe(3));
      const { madeOutTo, audience, cap, contact, notes, expiresAt, version } = key;
      const body = { madeOutTo, audience, cap, contact, notes, expiresAt, version };
      expect((await client.call('PUT', `/keys/${key.id}`, body)).status).toBe(200);
      expect((await told()).meantFor).toBe(2);
      const wrong = { ...body, version: version + 1, meantFor: 0 };
      expect((await client.call('PUT', `/keys/${key.id}`, wrong)).status).toBe(422);
      expect((await client.call('PUT', `/keys/${key.id}`, { ...wrong, meantFor: null })).status).toBe(200);
      expect((await told()).meantFor).toBeNull();
    });
  });

  describe('of polls', () => {
    it('is each of them: when, on which form, and the revision that was and is held', async () => {
      const { id } = await newKey();
      await count(
        fetched(id),
        fetched(id, { at: NOW + HOUR, held: '"r1-abc"' }),
        fetched(id, { at: NOW + 2 * HOUR, number: 4, form: 'jCal' }),
        fetched(id, { at: NOW + DAY, number: 5, held: 'W/"r3-abc-gz"' }),
        // A page is no poll, and neither is what is taken once.
        ...(['page', 'entry', 'copy'] as const).map((form) => fetched(id, { form, at: NOW + DAY + HOUR })),
      );
      expect((await polls(id)).map((p) => [p.at - NOW, p.form, p.had, p.has])).toEqual([
        [0, 'feed', 0, 1],
        [HOUR, 'feed', 1, 1],
        [2 * HOUR, 'jCal', 1, 4],
        [DAY, 'feed', 3, 5],
      ]);
      const [one] = await subscribers(id);
      expect(one).toMatchObject({ revision: 5, readers: 1, form: POLL_FORMS.indexOf('feed') });
      expect(one!.habit).toMatchObject({ polls: 4, looks: 4, first: NOW, last: NOW + DAY });
    });

    it('keeps a subscriber through the weeks under another hash, and knows it no more after two weeks away', async () => {
      const { id } = await newKey();
      for (let week = 0; week < 3; week++) await count(fetched(id, { at: NOW + week * 7 * DAY }));
      const [one, ...others] = await subscribers(id);
      expect([one!.week, one!.habit.looks, others]).toEqual([weekOf(NOW + 14 * DAY), 3, []]);
      await forgetReaders(sequelize, NOW + 35 * DAY);
      await count(fetched(id, { at: NOW + 35 * DAY }));
      expect((await subscribers(id)).map((s) => s.habit.looks)).toEqual([3, 1]);
    });

    it('is the same from several processes at once, and none is lost', async () => {
      const { id } = await newKey();
      const half = (of: number) =>
        Array.from({ length: 40 }, (_, i) => fetched(id, { at: NOW + (2 * i + of) * MINUTE, number: 1 + i }));
      await Promise.all([count(...half(0)), count(...half(1))]);
      expect(await polls(id)).toHaveLength(80);
      const [one, ...others] = await subscribers(id);
      expect([one!.habit.polls, others]).toEqual([80, []]);
      const [use] = await ask<{ count: string }>('SELECT count FROM key_uses WHERE key_id = :id', id);
      expect(Number(use!.count)).toBe(80);
    });

    it('tells how long after it was made a revision reached those who followed before', async () => {
      const { id } = await newKey();
      const spread = () =>
        ask<{ revision: number; step: number; readers: number }>(
          'SELECT revision, step, readers FROM spreads WHERE view_id = :id AND revision >= 100 ORDER BY revision, step',
          viewId,
        );
      const line = { viewId, step: {} as never, appeared: 0, altered: 0, vanished: 0, userIds: [] };
      for (const [n, at] of [
        [100, NOW],
        [101, NOW + 2 * HOUR],
      ] as const)
        await LedgerRow.create({ ...line, number: n, at: new Date(at), windowVersion: 1 });
      const who = (host: number, many = '') => ({ trace: trace(`203.0.${host}.1`, `Program${many}`) });
      await count(
        ...[1, 2].map((host) => fetched(id, { ...who(host), at: NOW - HOUR, number: 99 })),
        fetched(id, { ...who(3, '; 7 subscribers'), at: NOW - HOUR, number: 99 }),
      );
      await count(
        fetched(id, { ...who(1), at: NOW + 10 * MINUTE, number: 100 }),
        // A process that is behind takes nothing back.
        fetched(id, { ...who(1), at: NOW + 15 * MINUTE, number: 99 }),
        fetched(id, { ...who(1), at: NOW + 20 * MINUTE, number: 100 }),
        fetched(id, { ...who(2), at: NOW + 3 * HOUR, number: 101 }),
        fetched(id, { ...who(3, '; 7 subscribers'), at: NOW + 10 * MINUTE, number: 100 }),
        // It came only afterwards, so nothing had to reach it.
        fetched(id, { ...who(4), at: NOW + 10 * MINUTE, number: 100 }),
      );
      expect(await spread()).toEqual([
        { revision: 100, step: stepOf(10 * MINUTE), readers: 8 },
        { revision: 100, step: stepOf(3 * HOUR), readers: 1 },
        { revision: 101, step: stepOf(HOUR), readers: 1 },
      ]);
    });

    it('is a handful of statements, however many they are, and leaves out keys that are gone', async () => {
      const { id } = await newKey();
      let [inserts, all] = [0, 0];
      const plain = sequelize.query.bind(sequelize);
      sequelize.query = ((sql: string, options: object) => {
        all++;
        if (sql.includes('INSERT')) inserts++;
        return plain(sql, options);
      }) as never;
      const one = counter();
      const many = Array.from({ length: 3_000 }, (_, i) =>
        fetched(i % 10 ? id : '00000000-0000-4000-8000-000000000000', {
          at: NOW + i * 1000,
          trace: trace(`203.${i % 200}.1.1`),
        }),
      );
      await one.take(many);
      await one.close();
      sequelize.query = plain as never;
      expect(inserts).toBeLessThanOrEqual(3_000 / 100);
      expect(all).toBeLessThan(20);
      expect(await polls(id)).toHaveLength(2_700);
    });

    it('waits while the store is away, and none is lost or counted twice', async () => {
      const { id } = await newKey();
      const plain = sequelize.transaction.bind(sequelize);
      const one = counter();
      sequelize.transaction = (() => Promise.reject(new Error('away'))) as never;
      await one.take([fetched(id)]);
      await one.store();
      await one.take([fetched(id, { at: NOW + HOUR })]);
      await one.store();
      sequelize.transaction = plain as never;
      expect(await polls(id)).toEqual([]);
      await one.close();
      expect(await polls(id)).toHaveLength(2);
    });

    it('is stored again of somebody new whose first polls were not kept, or who was forgotten in between', async () => {
      const { id } = await newKey();
      const one = counter();
      const plain = sequelize.transaction.bind(sequelize);
      // All was said, and the store did not keep it.
      sequelize.transaction = ((work: (t: unknown) => Promise<unknown>) =>
        plain(async (t) => {
          await work(t);
          throw new Error('not kept');
        })) as never;
      await one.take([fetched(id)]);
      await one.store();
      sequelize.transaction = plain as never;
      await one.store();
      expect(await polls(id)).toHaveLength(1);
      await ask('DELETE FROM subscribers WHERE key_id = :id', id);
      await one.take([fetched(id, { at: NOW + HOUR })]);
      await one.close();
      expect(await polls(id)).toHaveLength(1);
    });

    it('is summed up once it is old, once for all processes, and leaves what is not', async () => {
      const { id } = await newKey();
      const at = (day: number, hour: number) => NOW - day * DAY + hour * MINUTE;
      const two = [1, 2].map((host) => trace(`198.18.${host}.1`));
      await count(
        ...[40, 31, 30, 1].flatMap((day) =>
          two.flatMap((one) => [
            fetched(id, { at: at(day, 0), trace: one }),
            fetched(id, { at: at(day, 1), trace: one }),
          ]),
        ),
        fetched(id, { at: at(40, 2), trace: two[0]!, form: 'jCal' }),
      );
      await Promise.all([rollUp(sequelize, NOW), rollUp(sequelize, NOW)]);
      const sums = await ask<{ day: string; form: number; polls: number; subscribers: number }>(
        'SELECT day::text, form, polls, subscribers FROM poll_sums WHERE key_id = :id ORDER BY day, form',
        id,
      );
      const [feed, jCal] = [POLL_FORMS.indexOf('feed'), POLL_FORMS.indexOf('jCal')];
      expect(sums.map((s) => [s.day, s.form, s.polls, s.subscribers])).toEqual([
        ['2026-05-01', feed, 4, 2],
        ['2026-05-01', jCal, 1, 1],
        ['2026-05-10', feed, 4, 2],
      ]);
      expect(await polls(id)).toHaveLength(8);
      // What is known of a subscriber's habit stays, until it was not met for very long.
      const known = async () => (await subscribers(id)).map((s) => s.habit.polls).sort();
      expect(await known()).toEqual([2, 2, 6, 7]);
      await rollUp(sequelize, NOW + 402 * DAY);
      expect(await subscribers(id)).toEqual([]);
    });

    it('is handed on in batches, again where that failed, and whole at a clean stop', async () => {
      const taken: Fetched[] = [];
      let away = true;
      const log = new PollLog({
        take: (batch) => {
          if (away) return Promise.reject(new Error('not there'));
          taken.push(...batch);
          return Promise.resolve();
        },
        close: () => Promise.resolve(),
      });
      for (let i = 0; i < 1_200; i++) log.note(fetched('a', { at: i }));
      away = false;
      await eventually(() => Promise.resolve(expect(taken.length).toBe(1_200)));
      log.note(fetched('a', { at: 1_200 }));
      await log.close();
      expect(new Set(taken.map((f) => f.at)).size).toBe(1_201);
    });
  });
});
