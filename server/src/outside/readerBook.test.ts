import { DAY } from '@zonal/core/zones';
import type { IncomingMessage } from 'node:http';
import { QueryTypes, type Sequelize } from 'sequelize';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { connect } from '../db/connect';
import { forgetReaders, readersOf, weekOf } from '../db/readers';
import { quayServer, windowInput, eventually, type TestClient, type testServer } from '../testing';
import { ReaderBook, rangeOf, traceOf } from './readerBook';

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

describe('readers of a key', () => {
  let server: Awaited<ReturnType<typeof testServer>>;
  let client: TestClient;
  let sequelize: Sequelize;
  let window: any;

  beforeAll(async () => {
    const { freshDatabase } = await import('../testing');
    const url = await freshDatabase();
    let calendarId: string;
    ({ server, client, calendarId } = await quayServer(url));
    window = (await client.call('POST', '/windows', windowInput(calendarId, 'tinted'))).body;
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
  const NOW = Date.UTC(2026, 5, 10);
  const book = (proxies = 0, now = NOW) => new ReaderBook(sequelize, proxies, () => now);
  const count = async (id: string, now = NOW) => (await readersOf(sequelize, [id], now)).get(id);

  it('are told apart by range and program, across processes, and counted once', async () => {
    const { id } = await newKey();
    for (const one of [book(), book()]) {
      for (let host = 1; host < 200; host++) one.note(id, trace(`203.0.113.${host}`));
      one.note(id, trace('203.0.114.1'));
      one.note(id, trace('203.0.113.1', 'Other/1'));
      one.note(id, trace('203.0.113.1', 'Tidebook/5.1'));
      await one.store();
    }
    expect(await count(id)).toBe(3);
    book().note(id, trace('203.0.115.1', 'Fetcher; 40 subscribers'));
    const fetcher = book();
    fetcher.note(id, trace('203.0.115.1', 'Fetcher; 40 subscribers'));
    await fetcher.store();
    expect(await count(id)).toBe(43);
  });

  it('are those behind the proxies that are ours, whatever they say of others', async () => {
    const { id } = await newKey();
    const own = book(1);
    for (let n = 1; n < 9; n++) own.note(id, trace('127.0.0.1', 'Tidebook', `10.0.${n}.1, 203.0.113.4`));
    await own.store();
    expect(await count(id)).toBe(1);
  });

  it('leave nothing by which they are known again, and are forgotten after two weeks', async () => {
    const { id } = await newKey();
    const noted = async (at: number, hosts: number[]) => {
      const own = book(0, at);
      for (const host of hosts) own.note(id, trace(`198.51.${host}.1`, 'Rare program of one reader'));
      await own.store();
    };
    await noted(NOW, [1, 2]);
    await noted(NOW + 7 * DAY, [1]);
    expect(await count(id, NOW + 7 * DAY)).toBe(2);
    const read = () =>
      sequelize.query<{ week: string; reader: Buffer }>(
        'SELECT week::text, reader FROM key_readers WHERE key_id = :id',
        {
          replacements: { id },
          type: QueryTypes.SELECT,
        },
      );
    const stored = await read();
    expect(new Set(stored.map((r) => r.reader.toString('hex'))).size).toBe(3);
    expect(stored.every((r) => r.reader.length === 12)).toBe(true);
    await forgetReaders(sequelize, NOW + 14 * DAY);
    expect((await read()).map((r) => r.week)).toEqual([weekOf(NOW + 7 * DAY)]);
    const salts = await sequelize.query<{ week: string }>(
      'SELECT week::text FROM reader_salts WHERE week < :week',
      {
        replacements: { week: weekOf(NOW + 7 * DAY) },
        type: QueryTypes.SELECT,
      },
    );
    expect(salts).toEqual([]);
  });

  it('are told to organisers with the number that the key is made out for', async () => {
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
