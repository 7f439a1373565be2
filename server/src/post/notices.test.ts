import { EMPTY_CONTENT } from '@zonal/core/entries';
import { DAY, HOUR } from '@zonal/core/zones';
import PostalMime from 'postal-mime';
import { afterEach, describe, expect, it } from 'vitest';
import type { Config } from '../config';
import { MailRow } from '../db/models';
import { NoticeRow } from '../db/tellingModels';
import { eventually, freshDatabase, quayServer, testServer, windowInput } from '../testing';
import { mailServer } from '../testingMail';
import { forgetNotices } from './notices';

const opened: { close: () => unknown }[] = [];
afterEach(async () => {
  for (const one of opened.splice(0).reverse()) await one.close();
});

const READER = 'reader@far.example';
const jobs = { lost: 5, look: 1, again: 1 };
const settings = (port: number) => ({
  ...{ host: '127.0.0.1', port, secure: false, account: '', password: '' },
  sender: 'calendars@ostrel.example',
});

async function house({ refuse, parts = {} }: { refuse?: () => Error | null; parts?: Partial<Config> } = {}) {
  const post = await mailServer(undefined, refuse);
  opened.push(post);
  const databaseUrl = await freshDatabase();
  const config = { jobs, mailServer: settings(post.port), ...parts };
  const { server, client, calendarId } = await quayServer(databaseUrl, config);
  opened.push(server);
  const day = new Date(Date.now() + 2 * DAY).toISOString().slice(0, 10);
  const at = (hour: number) => ({ kind: 'zoned', at: `${day}T${hour}:00:00`, zone: 'America/Halifax' });
  const entryOf = (title: string, more: object = {}) => ({
    ...EMPTY_CONTENT,
    ...{ title, start: at(10), end: at(11), recurrence: null, overrides: [], ...more },
  });
  const write = async (title: string, more: object = {}) => {
    const { status, body } = await client.call(
      'POST',
      `/calendars/${calendarId}/entries`,
      entryOf(title, more),
    );
    expect(status).toBe(201);
    return body;
  };
  const change = async (entry: any, more: object) => {
    const { id, calendarId: _c, uid: _u, imported: _m, ...rest } = entry;
    const { status, body } = await client.call('PUT', `/entries/${id}`, { ...rest, ...more });
    expect([status, body.code]).toEqual([200, undefined]);
    return body;
  };
  const first = await write('Rope lift');
  const { body: window } = await client.call('POST', '/windows', windowInput(calendarId, 'tinted'));
  const [key] = window.keys;
  const token = new URL(key.feed).pathname.slice('/feed/'.length, -'.ics'.length);
  await fetch(`${server.base}/feed/${token}.ics`);
  const mails = async () =>
    Promise.all(post.taken.map(async (raw) => ({ raw, ...(await PostalMime.parse(raw)) })));
  /** Leaves a mail address as the form does. */
  const leave = (said: Record<string, string> = {}) =>
    fetch(`${server.base}/notices`, {
      method: 'POST',
      redirect: 'manual',
      body: new URLSearchParams({ at: token, mail: READER, way: 'at-once', tz: '', lang: 'en', ...said }),
    });
  const follow = (address: string, method: 'GET' | 'POST', body?: URLSearchParams) => {
    const { pathname, search } = new URL(address);
    return fetch(server.base + pathname + search, { method, ...(body ? { body } : {}) });
  };
  /** Leaves an address, and confirms it by the mail that comes. */
  const begin = async (said: Record<string, string> = {}) => {
    const before = post.taken.length;
    expect((await leave(said)).status).toBe(200);
    await eventually(async () => expect(post.taken).toHaveLength(before + 1));
    const address = addressIn((await mails()).at(-1)!.text!, 'confirm');
    expect((await follow(address, 'POST')).status).toBe(200);
  };
  const all = { server, client, calendarId, window, key, token, first, at };
  return { ...all, post, databaseUrl, config, write, change, mails, leave, follow, begin };
}

const addressIn = (text: string, what: string) =>
  new RegExp(`http://window\\.example/notices/${what}/\\S+`).exec(text)![0];

describe('a change notice', () => {
  it('goes to who left an address and confirmed it, tells what changed outwardly, and ends with one click', async () => {
    const { server, client, token, write, change, first, at, leave, follow, mails, post } = await house();
    const page = await (await fetch(`${server.base}/see/${token}/notices`)).text();
    expect(page).toContain('action="/notices"');
    expect((await leave()).status).toBe(200);
    await eventually(async () => expect(post.taken).toHaveLength(1));
    const [asked] = await mails();
    expect(asked!.subject).toBe('Confirm: changes in “Window” by mail');
    const confirm = addressIn(asked!.text!, 'confirm');
    // Programs that look at addresses in mails confirm nothing.
    expect(await (await follow(confirm, 'GET')).text()).toContain('<form method="post"');
    expect((await NoticeRow.findOne())!.confirmedAt).toBe(null);
    expect(await (await follow(confirm, 'POST')).text()).toContain('You will hear of changes');
    // Nothing of it can be read in the store.
    expect(JSON.stringify([await NoticeRow.findAll(), await MailRow.findAll()])).not.toContain(READER);
    const { body: seen } = await client.call('GET', '/post');
    expect(seen.mails.map((m: any) => m.to)).toEqual(['a reader at far.example']);
    await change(first, { start: at(14), end: at(15), place: 'North gate' });
    await eventually(async () => expect(post.taken).toHaveLength(2));
    const told = (await mails())[1]!;
    expect(told.subject).toBe('“Window”: 1 change');
    expect(told.text).toMatch(
      /- Rope lift\n.*14:00–15:00 · North gate\n {2}before: .*10:00–11:00\n {2}changed: place/,
    );
    const stop = addressIn(told.text!, 'stop');
    expect(told.headers.find((h) => h.key === 'list-unsubscribe')!.value).toBe(`<${stop}>`);
    expect(told.raw).toMatch(/^List-Unsubscribe-Post: List-Unsubscribe=One-Click\r$/m);
    expect(await (await follow(stop, 'GET')).text()).toContain('Stop these mails?');
    expect(await NoticeRow.count()).toBe(1);
    const clicked = await follow(stop, 'POST', new URLSearchParams({ 'List-Unsubscribe': 'One-Click' }));
    expect([clicked.status, await NoticeRow.count()]).toEqual([200, 0]);
    await write('After it');
    await untoldGone();
    expect(post.taken).toHaveLength(2);
    // Twice is no trouble; an address that somebody made up is.
    expect((await follow(stop, 'POST')).status).toBe(200);
    expect((await follow(stop.replace(/.{3}(\?|$)/, 'xyz$1'), 'POST')).status).toBe(410);
    expect((await follow(confirm, 'POST')).status).toBe(410);
  });

  it('says nothing of what readers may not see, and of what has left only that it has', async () => {
    const { write, change, first, begin, mails, post } = await house();
    await begin();
    const hidden = await write('Kept in', { hold: 'keep-in' });
    await change(hidden, { title: 'Kept in still' });
    await untoldGone();
    expect(post.taken).toHaveLength(1);
    await change(first, { hold: 'keep-in' });
    await eventually(async () => expect(post.taken).toHaveLength(2));
    const told = (await mails())[1]!;
    expect(told.text).toContain('One time is no longer shown.');
    expect(told.raw + told.text! + String(told.html)).not.toMatch(/Rope lift|Kept in/);
  });

  it('that waits for the mail server is written anew when what it tells of is shown no more', async () => {
    let busy = false;
    const error = Object.assign(new Error('Try later'), { responseCode: 451 });
    const { write, change, first, at, begin, mails, post } = await house({
      refuse: () => (busy ? error : null),
    });
    await begin();
    busy = true;
    const slip = await write('Name that slipped out');
    await eventually(async () =>
      expect((await MailRow.findOne({ where: { kind: 'notice' } }))?.trouble).toContain('Try later'),
    );
    await change(slip, { hold: 'keep-in' });
    await change(first, { start: at(16), end: at(17) });
    busy = false;
    await eventually(async () => expect(post.taken).toHaveLength(2));
    const told = (await mails())[1]!;
    expect(told.text).toContain('16:00–17:00');
    expect(told.raw + told.text!).not.toContain('slipped');
  });

  it('is in the language, on the clock and in the zone of its reader', async () => {
    const { write, begin, mails, post } = await house();
    await begin({ lang: 'fr', tz: 'Asia/Kolkata' });
    expect((await mails())[0]!.subject).toBe('Confirmer : les changements de « Window » par courriel');
    await write('Market');
    await eventually(async () => expect(post.taken).toHaveLength(2));
    const told = (await mails())[1]!;
    expect(told.subject).toBe('« Window » : 1 changement');
    // Ten in Halifax is half past seven or half past six in the evening there.
    expect(told.text).toMatch(/- Market\n.*1[89]\s?h\s?30–(19|20)\s?h\s?30/);
    expect(told.html).toContain('<html lang="fr">');
  });

  it('comes daily in the reader’s morning, and only where something has changed', async () => {
    const { write, begin, mails, post } = await house();
    await begin({ way: 'daily', tz: 'Asia/Kolkata' });
    const due = async () => (await NoticeRow.findOne())!;
    const morning = (await due()).nextAt.getTime();
    expect(morning).toBeGreaterThan(Date.now());
    expect((morning + 5.5 * HOUR) % DAY).toBe(7 * HOUR);
    await NoticeRow.update({ nextAt: new Date(Date.now() - 3 * DAY) }, { where: {} });
    await write('Market');
    // A morning that has passed with nothing to tell is over: the next one counts.
    await eventually(async () => expect((await due()).due).toBe(true));
    expect((await due()).nextAt.getTime()).toBe(morning);
    await untoldGone();
    expect(post.taken).toHaveLength(1);
    await NoticeRow.update({ nextAt: new Date() }, { where: {} });
    await eventually(async () => expect(post.taken).toHaveLength(2));
    expect((await mails())[1]!.text).toContain('Market');
    expect((await due()).nextAt.getTime()).toBe(morning);
  });

  it('is written once, however many processes there are', async () => {
    const { databaseUrl, config, write, begin, post } = await house();
    for (let i = 0; i < 2; i++) opened.push(await testServer(databaseUrl, config));
    await begin();
    for (const title of ['One', 'Two', 'Three']) {
      const before = post.taken.length;
      await write(title);
      await eventually(async () => expect(post.taken.length).toBeGreaterThan(before));
    }
    await untoldGone();
    await eventually(async () => expect(await MailRow.count({ where: { state: 'waiting' } })).toBe(0));
    expect(post.taken).toHaveLength(4);
  });

  it('is not to be had where it is no address, where nothing is shown, where the organiser wants none, or too often', async () => {
    const { client, window, leave, follow, mails, post, server, token, begin, write } = await house();
    expect((await leave({ mail: 'nobody' })).status).toBe(422);
    const nowhere = await leave({ at: 'x'.repeat(27) });
    expect([nowhere.status, nowhere.headers.get('location')]).toEqual([303, `/see/${'x'.repeat(27)}`]);
    const often = await Promise.all(Array.from({ length: 9 }, () => leave({ mail: 'often@far.example' })));
    expect(new Set(often.map((answer) => answer.status))).toEqual(new Set([200]));
    expect(await NoticeRow.count()).toBe(5);
    await eventually(async () => expect(post.taken).toHaveLength(5));
    // One confirmation replaces what was confirmed before.
    const texts = (await mails()).map((m) => m.text!);
    for (const text of texts.slice(0, 2)) await follow(addressIn(text, 'confirm'), 'POST');
    expect(await NoticeRow.count()).toBe(1);
    await begin();
    const { version } = (await client.call('GET', `/windows/${window.id}`)).body;
    const off = await client.call('PUT', `/windows/${window.id}`, {
      ...windowInput(window.sources[0].calendarId, 'tinted', { notices: false }),
      version,
    });
    expect(off.status).toBe(200);
    const page = await fetch(`${server.base}/see/${token}/notices`);
    expect([page.status, (await page.text()).includes('<form')]).toEqual([404, false]);
    expect((await leave()).status).toBe(503);
    const before = post.taken.length;
    await write('Not told');
    await untoldGone();
    expect(post.taken).toHaveLength(before);
  });

  it('is forgotten where nobody confirmed it, and long after its key has ended', async () => {
    const { client, key, leave, begin } = await house();
    await leave({ mail: 'never@far.example' });
    await begin();
    const sequelize = NoticeRow.sequelize!;
    await forgetNotices(sequelize);
    expect(await NoticeRow.count()).toBe(2);
    await forgetNotices(sequelize, Date.now() + 2 * DAY);
    expect(await NoticeRow.count()).toBe(1);
    await client.call('POST', `/keys/${key.id}/withdraw`);
    await forgetNotices(sequelize, Date.now() + 20 * DAY);
    expect(await NoticeRow.count()).toBe(1);
    await forgetNotices(sequelize, Date.now() + 31 * DAY);
    expect([await NoticeRow.count(), await MailRow.count()]).toEqual([0, 0]);
  });
});

/** Waits until whoever had to be told of what was changed was looked up, and was told. */
async function untoldGone(): Promise<void> {
  await eventually(async () => {
    const [rows] = (await NoticeRow.sequelize!.query(
      `SELECT (SELECT count(*) FROM untold)::int AS untold,
         (SELECT count(*) FROM notices WHERE (due AND next_at <= now()) OR claimed_at IS NOT NULL)::int AS due,
         (SELECT count(*) FROM mails WHERE state IN ('waiting', 'sending'))::int AS mails`,
    )) as any;
    expect(rows[0]).toMatchObject({ untold: 0, due: 0, mails: 0 });
  });
}
