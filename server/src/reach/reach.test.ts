import { EMPTY_CONTENT } from '@zonal/core/entries';
import { CURVE } from '@zonal/core/reach';
import { DAY, HOUR, MINUTE } from '@zonal/core/zones';
import type { IncomingMessage } from 'node:http';
import { QueryTypes, type Sequelize } from 'sequelize';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { connect } from '../db/connect';
import { KeyRow } from '../db/models';
import { traceOf } from '../http/trace';
import type { Fetched } from '../outside/counting';
import {
  colleague,
  eventually,
  freshDatabase,
  lettersTo,
  makeTo,
  quayServer,
  windowInput,
  type TestClient,
  type testServer,
} from '../testing';
import { Counter } from './counter';
import { makeForecasts } from './forecasting';

let server: Awaited<ReturnType<typeof testServer>>;
let client: TestClient;
let sequelize: Sequelize;
let calendarId: string;
let window: any;
let viewId: string;
let hourly: any;
let daily: any;

const NOW = Date.now();
const soon = new Date(NOW + DAY).toISOString().slice(0, 10);
const write = async (title: string, hour: number) => {
  const at = (h: number) => ({ kind: 'zoned', at: `${soon}T${h}:00:00`, zone: 'America/Halifax' });
  const times = { start: at(hour), end: at(hour + 1), recurrence: null, overrides: [] };
  return (
    await client.call('POST', `/calendars/${calendarId}/entries`, { ...EMPTY_CONTENT, title, ...times })
  ).body;
};
const keyFor = async (madeOutTo: string, parts: object = {}) => {
  const input = { madeOutTo, audience: 'street', cap: null, contact: '', notes: '', expiresAt: null };
  const { body } = await client.call('POST', `/windows/${window.id}/keys`, { ...input, ...parts });
  return body.keys.find((k: any) => k.madeOutTo === madeOutTo);
};
const trace = (program: string) =>
  traceOf({
    socket: { remoteAddress: '203.0.113.1' },
    headers: { 'user-agent': program },
  } as unknown as IncomingMessage);
const polled = (place: string, at: number, number = 1, program = 'Tidebook/4'): Fetched => ({
  ...{ keyId: place, viewId, number, form: 'feed', held: '', at, trace: trace(program) },
});
/** Polls every so often up to some time ago, at revision 1. */
const history = (place: string, every: number, last: number, looks: number, program?: string) =>
  Array.from({ length: looks }, (_, i) => polled(place, last - (looks - 1 - i) * every, 1, program));
const count = async (...all: readonly Fetched[]) => {
  const counter = new Counter({ sequelize, proxies: 0, every: 3_600_000 });
  await counter.take(all);
  await counter.close();
};

beforeAll(async () => {
  const url = await freshDatabase();
  ({ server, client, calendarId } = await quayServer(url));
  sequelize = connect(url);
  await write('Market', 10);
  window = (await client.call('POST', '/windows', windowInput(calendarId, 'tinted', { listed: true }))).body;
  viewId = `${window.id}|street|`;
  hourly = await keyFor('Hourly desk', { contact: 'desk@ferry.example', meantFor: 3 });
  daily = await keyFor('Daily', { contact: 'by telephone' });
  await fetch(server.base + new URL(hourly.feed).pathname);
  await count(
    ...history(hourly.id, HOUR, NOW - 20 * MINUTE, 60),
    ...history(hourly.id, HOUR, NOW - 10 * MINUTE, 60, 'Fetcher 4 subscribers'),
    ...history(daily.id, DAY, NOW - 2 * HOUR, 6),
    ...history(daily.id, HOUR, NOW - 30 * DAY, 24, 'Gone/1'),
    ...history(window.id, HOUR, NOW - 30 * MINUTE, 60, 'Board/1'),
    polled(daily.id, NOW - 3 * DAY, 1, 'Once/1'),
  );
});
afterAll(async () => {
  await sequelize.close();
  await server.close();
});

const reach = async (who = client) => (await who.call('GET', `/windows/${window.id}/reach`)).body;
const keyIn = (told: any, madeOutTo: string) => told.keys.find((k: any) => k.madeOutTo === madeOutTo);

describe('the reach of a window', () => {
  it('says of each subscriber its state, its rhythm, and what it holds', async () => {
    const told = await reach();
    const own = keyIn(told, 'Hourly desk');
    expect(own).toMatchObject({ contact: 'desk@ferry.example', meantFor: 3, revision: 1 });
    const programs = own.subscribers.filter((s: any) => s.looks > 1);
    expect(programs.map((s: any) => [s.state, s.readers, s.revision, s.behind]).sort()).toEqual([
      ['in-step', 1, 1, 0],
      ['in-step', 4, 1, 0],
    ]);
    expect(programs[0]).toMatchObject({ form: 'feed', looks: 60, interval: HOUR });
    expect(Date.parse(programs[0].nextBy)).toBeGreaterThan(NOW);
    const states = keyIn(told, 'Daily').subscribers.map((s: any) => s.state);
    expect(states.sort()).toEqual(['in-step', 'once', 'silent']);
  });

  it('tells of those who come by the name of a listed window', async () => {
    const [board] = keyIn(await reach(), 'Anybody, by the public address').subscribers;
    expect(board).toMatchObject({ state: 'in-step', readers: 1, looks: 60 });
    const before = (await reach()).keys.length;
    await fetch(`${server.base}/feed/${window.slug}.ics`);
    await eventually(async () => {
      const told = keyIn(await reach(), 'Anybody, by the public address');
      expect(told.subscribers).toHaveLength(2);
    });
    expect((await reach()).keys).toHaveLength(before);
  });

  it('forecasts a change when it is made, and keeps beside it what happens', async () => {
    await write('Film', 20);
    let revision: any;
    await eventually(async () => {
      await makeForecasts(sequelize);
      [revision] = (await reach()).views[0].revisions;
      expect([revision.number, revision.forecast?.readers]).toEqual([2, expect.any(Number)]);
    });
    expect(revision).toMatchObject({ appeared: 1, vanished: 0, changed: 0 });
    const { readers, curve, never } = revision.forecast;
    expect(readers).toBeGreaterThanOrEqual(9);
    expect(never).toBeGreaterThanOrEqual(2);
    expect(curve.map((p: any) => p.after)).toEqual(CURVE);
    expect(curve.at(-1).share).toBeGreaterThan(curve[1].share);
    expect(revision.actual).toEqual([{ after: 0, share: 0 }]);
    expect(keyIn(await reach(), 'Hourly desk').subscribers.map((s: any) => s.behind)).toContain(1);

    await count(polled(hourly.id, Date.now(), 2, 'Fetcher 4 subscribers'));
    const again = await reach();
    const fetcher = keyIn(again, 'Hourly desk').subscribers.find((s: any) => s.readers === 4);
    expect(fetcher).toMatchObject({ state: 'in-step', revision: 2, behind: 0 });
    expect(again.views[0].holding).toBe(4);
    const [steps] = await sequelize.query<{ readers: number }>(
      'SELECT sum(readers)::int AS readers FROM spreads WHERE view_id = :viewId AND revision = 2',
      { replacements: { viewId }, type: QueryTypes.SELECT },
    );
    expect(steps!.readers).toBe(4);
    // It is made once.
    expect(await makeForecasts(sequelize)).toBe(0);
  });

  it('is told in a line among all windows', async () => {
    const { body } = await client.call('GET', '/reach');
    const [line] = body.windows;
    expect(line).toMatchObject({ id: window.id, name: 'Window', closed: false, keys: 4, holding: 4 });
    expect(Object.values(line.counts).reduce((a: any, b: any) => a + b)).toBe(line.readers);
    expect(line.counts).toMatchObject({ once: 1, silent: 1 });
  });
});

describe('who knows of a change by when', () => {
  const knowing = async (by: number, more = '') =>
    (
      await client.call(
        'GET',
        `/reach/knowing?windows=${window.id}&by=${encodeURIComponent(new Date(by).toISOString())}${more}`,
      )
    ).body.windows[0];

  it('is forecast before it is made: those who will probably not know in time are named by key', async () => {
    const now = Date.now();
    const soonest = await knowing(now + 1000);
    expect(soonest.known).toBeLessThan(2);
    const later = await knowing(now + 3 * HOUR);
    expect(later.known).toBeGreaterThan(5);
    expect(later.late.map((k: any) => k.madeOutTo)).toContain('Daily');
    expect(later.late.find((k: any) => k.madeOutTo === 'Daily')).toMatchObject({
      contact: 'by telephone',
      readers: 3,
      late: 3,
    });
    // Of one that was met once only, just now, nothing is known.
    expect(later.late.find((k: any) => k.id === window.id)).toMatchObject({ readers: 2, late: 1 });
  });

  it('afterwards counts those who hold it already', async () => {
    const { known, late } = await knowing(Date.now() + 1000, '&revision=newest');
    expect(known).toBeGreaterThanOrEqual(4);
    expect(late.find((k: any) => k.madeOutTo === 'Hourly desk').late).toBeLessThan(
      late.find((k: any) => k.madeOutTo === 'Hourly desk').readers,
    );
  });

  it('needs a moment that is one', async () => {
    const answer = await client.call('GET', '/reach/knowing?by=tomorrow');
    expect([answer.status, answer.body.code]).toEqual([400, 'request-malformed']);
  });
});

describe('a mail to those who may not know', () => {
  it('goes to keys with a mail address, and tells of the others', async () => {
    const words = 'The bridge is closed tonight.';
    const mailed = await client.call('POST', `/windows/${window.id}/reach/mail`, {
      keyIds: [hourly.id, daily.id],
      words,
    });
    // There is no mail server in this house yet.
    expect(mailed.body.code).toBe('mail-server-missing');
    const settings = {
      host: 'mail.example',
      port: 25,
      secure: false,
      account: '',
      sender: 'a@house.example',
    };
    await client.call('PUT', '/post/server', { ...settings, password: null, version: 0 });
    const sent = await client.call('POST', `/windows/${window.id}/reach/mail`, {
      keyIds: [hourly.id, daily.id],
      words,
    });
    expect(sent.body).toEqual({ sent: 1, without: ['Daily'] });
    const [letter] = await lettersTo('desk@ferry.example');
    expect(letter).toMatchObject({ kind: 'reach-note', subject: '“Window” has changed' });
    expect(letter!.text).toContain(words);
    expect(letter!.text).toContain(hourly.see);
    expect(letter!.text).not.toContain('Film');
  });
});

it('tells those who publish other calendars nothing of it', async () => {
  const other = await colleague(server.base, 'Other');
  expect((await other.client.call('GET', '/reach')).body.windows).toEqual([]);
  const by = encodeURIComponent(new Date().toISOString());
  expect(
    (await other.client.call('GET', `/reach/knowing?windows=${window.id}&by=${by}`)).body.windows,
  ).toEqual([]);
  expect((await other.client.call('GET', `/windows/${window.id}/reach`)).status).toBe(404);
  await makeTo(calendarId, other.id, 'publisher');
  expect((await other.client.call('GET', '/reach')).body.windows).toHaveLength(1);
});

it('leaves out keys that were withdrawn, and those who were not met for long', async () => {
  const key = await keyFor('Withdrawn');
  await count(
    ...history(key.id, HOUR, NOW - HOUR, 10),
    ...history(daily.id, HOUR, NOW - 70 * DAY, 10, 'Old/1'),
  );
  expect(keyIn(await reach(), 'Withdrawn').subscribers).toHaveLength(1);
  await client.call('POST', `/keys/${key.id}/withdraw`);
  expect(await KeyRow.count({ where: { id: key.id } })).toBe(1);
  const told = await reach();
  expect(keyIn(told, 'Withdrawn')).toBeUndefined();
  expect(keyIn(told, 'Daily').subscribers).toHaveLength(3);
});
