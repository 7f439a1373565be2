import { Problem } from '@zonal/core/problems';
import { habitAfter } from '@zonal/core/reach';
import { DAY, HOUR } from '@zonal/core/zones';
import { type Sequelize } from 'sequelize';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { connect } from '../db/connect';
import { KeyRow, UserRow } from '../db/models';
import { Outbox } from '../db/outbox';
import type { Trouble } from '../glass/trouble';
import {
  EMAIL,
  colleague,
  freshDatabase,
  lettersTo,
  makeTo,
  quayServer,
  windowInput,
  type TestClient,
  type testServer,
} from '../testing';
import { watch } from './watching';

let server: Awaited<ReturnType<typeof testServer>>;
let client: TestClient;
let sequelize: Sequelize;
let window: any;
let key: any;
let calendarId: string;
let troubles: Map<string, Trouble>;

const NOW = Date.now();
const look = (now = NOW) =>
  watch(
    {
      sequelize,
      outbox: new Outbox(null),
      publicUrl: 'http://window.example',
      troubles: () => Promise.resolve(troubles),
    },
    now,
  );
const open = async (who = client) => (await who.call('GET', '/alerts')).body as any[];
const letters = async () => (await lettersTo(EMAIL)).filter((l) => l.kind === 'alert');
/** A subscriber who looked every hour up to some time ago. */
const follower = async (last: number) => {
  const habit = habitAfter(
    null,
    Array.from({ length: 100 }, (_, i) => last - (99 - i) * HOUR),
  );
  await sequelize.query(
    `INSERT INTO subscribers (place, key_id, window_id, week, reader, readers, form, view_id, revision, last_at, habit)
     VALUES (:key, :key, :window, '2026-01-05', decode(md5(random()::text), 'hex'), 1, 0, :view, 1, :last, :habit)`,
    {
      replacements: {
        ...{ key: key.id, window: window.id, view: `${window.id}|street|`, last: new Date(last) },
        habit: JSON.stringify(habit),
      },
    },
  );
};

beforeAll(async () => {
  troubles = new Map();
  const url = await freshDatabase();
  ({ server, client, calendarId } = await quayServer(url));
  sequelize = connect(url);
  window = (await client.call('POST', '/windows', windowInput(calendarId, 'tinted'))).body;
  key = window.keys[0];
  await fetch(server.base + new URL(key.feed).pathname);
});
afterAll(async () => {
  await sequelize.close();
  await server.close();
});

const problemOf = (reason: string) => new Problem('rule-invalid', { reason });

describe('alerts', () => {
  it('are raised once, told by mail once, and end when what they are about is over', async () => {
    await look();
    expect(await open()).toEqual([]);
    const at = new Date(NOW).toISOString();
    troubles.set(window.id, { windowId: window.id, at, problem: problemOf('it is too long'), shows: 'last' });
    await look();
    await look();
    expect(await open()).toMatchObject([
      { kind: 'feed-failing', windowId: window.id, keyId: null, muted: false },
    ]);
    const [letter, ...more] = await letters();
    expect(more).toEqual([]);
    expect(letter!.text).toContain('The recurrence rule cannot be read: it is too long.');
    expect(letter!.text).toContain(`http://window.example/reach/${window.id}`);
    troubles.clear();
    await look();
    expect(await open()).toEqual([]);
    // It is told anew when it comes back.
    troubles.set(window.id, { windowId: window.id, at, problem: problemOf('it is odd'), shows: 'last' });
    await look();
    expect(await letters()).toHaveLength(2);
    troubles.clear();
    await look();
  });

  it('tell of the silent where their key matters, and are muted key by key', async () => {
    await follower(NOW - 20 * DAY);
    await look();
    expect(await open()).toEqual([]);
    const input = {
      madeOutTo: 'Desk',
      audience: 'street',
      cap: null,
      contact: '',
      notes: '',
      expiresAt: null,
    };
    const kept = await client.call('PUT', `/keys/${key.id}`, {
      ...input,
      matters: true,
      version: key.version,
    });
    expect(kept.body.keys[0].matters).toBe(true);
    const before = (await letters()).length;
    // Two publishers: what one of them mutes, the other still hears.
    const other = await colleague(server.base, 'Jon');
    for (const id of [(await UserRow.findOne({ where: { email: EMAIL } }))!.id, other.id])
      await makeTo(calendarId, id, 'publisher');
    const muted = { kind: 'silent', keyId: key.id, muted: true };
    expect((await client.call('PUT', `/windows/${window.id}/alerts`, muted)).body).toEqual([]);
    await look();
    expect(await open()).toMatchObject([{ kind: 'silent', keyId: key.id, muted: true }]);
    expect(await letters()).toHaveLength(before);
    expect(await open(other.client)).toMatchObject([{ kind: 'silent', keyId: key.id, muted: false }]);
    expect((await lettersTo(other.email)).filter((l) => l.kind === 'alert')).toHaveLength(1);
    const heard = await client.call('PUT', `/windows/${window.id}/alerts`, { ...muted, muted: false });
    expect(heard.body).toMatchObject([{ kind: 'silent', muted: false }]);
    const elsewhere = { ...muted, keyId: '7b0bbe40-0000-4000-8000-000000000000' };
    expect((await client.call('PUT', `/windows/${window.id}/alerts`, elsewhere)).status).toBe(404);
    await KeyRow.update({ matters: false }, { where: { id: key.id } });
    await look();
  });

  it('tell of a key that was passed on', async () => {
    await KeyRow.update({ meantFor: 2 }, { where: { id: key.id } });
    await sequelize.query(
      `INSERT INTO key_readers (key_id, week, reader, many)
       SELECT :id, date_trunc('week', now() AT TIME ZONE 'UTC')::date, int8send(n), 1 FROM generate_series(1, 30) AS n`,
      { replacements: { id: key.id } },
    );
    await look();
    expect((await open()).map((a) => [a.kind, a.say])).toEqual([
      ['passed-on', expect.stringMatching(/3\d readers used .* you expected 2\./)],
    ]);
    await KeyRow.update({ meantFor: null }, { where: { id: key.id } });
    await look();
    expect(await open()).toEqual([]);
  });

  it('tell of an urgent change that too few know in time, until it is so no more', async () => {
    await follower(NOW - HOUR / 2);
    const by = new Date(NOW + 2 * HOUR).toISOString();
    const told = await client.call('PUT', `/windows/${window.id}/urgent`, { by });
    expect(told.body.urgentBy).toBe(by);
    await sequelize.query('UPDATE subscribers SET revision = 0');
    await look();
    expect((await open()).map((a) => a.kind)).toEqual(['late']);
    await look(NOW + 2 * HOUR + 1000);
    expect((await open())[0].say).toMatch(/^\d of \d readers do not have the urgent change/);
    await look(NOW + 27 * HOUR);
    expect(await open()).toEqual([]);
    expect((await client.call('GET', `/windows/${window.id}/reach`)).body.urgentBy).toBeNull();
  });

  it('are nobody’s who may not see the window', async () => {
    troubles.set(window.id, {
      windowId: window.id,
      at: new Date(NOW).toISOString(),
      problem: problemOf('secret'),
      shows: 'last',
    });
    await look();
    const other = await colleague(server.base, 'Nobody');
    expect(await open(other.client)).toEqual([]);
    const muted = { kind: 'silent', keyId: null, muted: true };
    expect((await other.client.call('PUT', `/windows/${window.id}/alerts`, muted)).status).toBe(404);
    expect(await open()).toHaveLength(1);
  });

  it('end with the window', async () => {
    expect(await open()).toHaveLength(1);
    await client.call('POST', `/windows/${window.id}/close`);
    await look();
    expect(await open()).toEqual([]);
  });
});
