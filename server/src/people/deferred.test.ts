import { Problem } from '@zonal/core/problems';
import { DEFERRED_EFFECTS, type DeferredEffect } from '@zonal/core/rights';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { publishDue } from '../glass/publishWindow';
import { DraftRow, MailRow, PassRow, StandingRow, UserRow, WishRow } from '../db/models';
import { Outbox } from '../db/outbox';
import { PushRow, PushTryRow } from '../db/tellingModels';
import { sendMail } from '../post/mailer';
import type { MailServer } from '../post/mailServer';
import { pushJob } from '../reach/pushStore';
import { watch } from '../reach/watching';
import { changeMaker } from '../db/changes';
import { PASSWORD, TestClient, colleague, lettersTo, makeTo, quayServer, windowInput } from '../testing';
import { mailServer } from '../testingMail';
import { mayStillAct } from './deferred';

let quay: Awaited<ReturnType<typeof quayServer>>;
let post: Awaited<ReturnType<typeof mailServer>>;
let smtp: MailServer;
let serial = 0;

beforeAll(async () => {
  post = await mailServer();
  smtp = {
    ...{ host: '127.0.0.1', port: post.port, secure: false },
    ...{ account: '', password: '', sender: 'calendars@ostrel.example' },
  };
  quay = await quayServer(undefined, { mailServer: smtp });
});
afterAll(async () => {
  await quay.server.close();
  await post.close();
});

/** A publisher of the quay, with a window of their own over it. */
async function publisher() {
  const who = await colleague(quay.server.base, `Jon${++serial}`);
  await makeTo(quay.calendarId, who.id, 'publisher');
  const input = windowInput(quay.calendarId, 'tinted', { name: `Window ${serial}` });
  const window = (await who.client.call('POST', '/windows', input)).body;
  return { ...who, window, input };
}

/** The two ways in which somebody loses what they may do. */
const LOSSES = {
  'loses the right': (userId: string) =>
    StandingRow.update({ standing: 'reader', glass: 'tinted' }, { where: { userId } }),
  'is suspended': (userId: string) => UserRow.update({ restedAt: new Date() }, { where: { id: userId } }),
} as const;

/** Hands over the newest mail to somebody, and returns what became of it. */
async function handOver(recipient: string) {
  const [mail] = await MailRow.findAll({ where: { recipient }, order: [['createdAt', 'DESC']], limit: 1 });
  await sendMail(mail!.id, smtp, true, (onlyIf) =>
    'notice' in onlyIf ? Promise.resolve(true) : mayStillAct(onlyIf.effect, onlyIf.authorId, onlyIf),
  );
  const { state, trouble } = (await MailRow.findByPk(mail!.id))!;
  return { state, trouble };
}

/** Deferred effects that have tests of their own below. */
const ELSEWHERE = ['ceiling-request', 'invitation', 'granted-access', 'one-time-link'] as const;

/** Each other deferred effect: how somebody asks for it, and whether it acts when its time comes. */
const EFFECTS: Record<
  Exclude<DeferredEffect, (typeof ELSEWHERE)[number]>,
  (author: Awaited<ReturnType<typeof publisher>>) => Promise<() => Promise<boolean>>
> = {
  'scheduled-draft': async ({ client, window, input }) => {
    const name = 'Shown by itself';
    const draft = { body: { ...input, name }, version: 0 };
    expect((await client.call('PUT', `/windows/${window.id}/draft`, draft)).status).toBe(200);
    const at = new Date(Date.now() + 3_600_000).toISOString();
    const confirmed = input.confirmed;
    expect((await client.call('POST', `/windows/${window.id}/schedule`, { at, confirmed })).status).toBe(200);
    const publishing = {
      sequelize: UserRow.sequelize!,
      publicUrl: 'http://window.example',
      troubles: () => Promise.resolve(new Map()),
      change: changeMaker(UserRow.sequelize!, () => Promise.resolve(null)),
    };
    return async () => {
      await publishDue(publishing, Date.now() + 3_700_000);
      const stopped = (await DraftRow.findByPk(window.id))?.stopped ?? '';
      const shown = (await quay.client.call('GET', `/windows/${window.id}`)).body.wording.name === name;
      expect(shown).toBe(stopped === '');
      if (!shown) expect(stopped).toContain('may no longer publish');
      return shown;
    };
  },
  push: async ({ client, window }) => {
    const [key] = window.keys;
    const address = 'https://system.example/in';
    const made = await client.call('PUT', `/keys/${key.id}/push`, { address, version: 0 });
    expect(made.status).toBe(200);
    return async () => {
      let asked = 0;
      const told = () => {
        asked++;
        return Promise.resolve(null);
      };
      await pushJob(key.id, true, { told, allowed: [] });
      const { state } = (await PushRow.findByPk(key.id))!;
      expect(state).toBe(asked ? 'on' : 'failing');
      if (!asked) {
        const [row] = await PushTryRow.findAll({ where: { keyId: key.id } });
        expect(row!.trouble).toContain('may no longer publish');
      }
      return asked > 0;
    };
  },
  announcement: async ({ client, window }) => {
    const [key] = window.keys;
    const to = `desk${serial}@far.example`;
    const { madeOutTo, audience, cap, notes, expiresAt, version } = key;
    const contact = { madeOutTo, audience, cap, notes, expiresAt, version, contact: to };
    expect((await client.call('PUT', `/keys/${key.id}`, contact)).status).toBe(200);
    const mail = { keyIds: [key.id], words: 'It has changed.' };
    expect((await client.call('POST', `/windows/${window.id}/reach/mail`, mail)).body.sent).toBe(1);
    return async () => (await handOver(to)).state === 'sent';
  },
  'link-sheet': async ({ client, window }) => {
    const items = [{ windowId: window.id, keyId: window.keys[0].id }];
    const made = await client.call('POST', '/sheets', { name: 'Links', note: '', items });
    expect(made.status).toBe(201);
    const { address } = made.body;
    return async () => {
      const page = await fetch(quay.server.base + new URL(address).pathname);
      expect(page.status).toBe(200);
      return (await page.text()).includes(window.keys[0].token);
    };
  },
  alert: async ({ email, window }) => {
    const outbox = new Outbox(null);
    const problem = new Problem('rule-invalid', { reason: 'it is odd' });
    const troubles = new Map([
      [window.id, { windowId: window.id, at: new Date().toISOString(), problem, shows: 'nothing' as const }],
    ]);
    const watching = { sequelize: UserRow.sequelize!, outbox, publicUrl: 'http://window.example' };
    await watch({ ...watching, troubles: () => Promise.resolve(troubles) });
    return async () => (await handOver(email)).state === 'sent';
  },
  'access-request': async ({ email }) => {
    const asker = await colleague(quay.server.base, `Siri${++serial}`);
    await makeTo(quay.calendarId, asker.id, 'reader', 'frosted');
    const wish = { standing: 'reader', glass: 'clear', reason: 'Tours' };
    const asked = await asker.client.call('POST', `/calendars/${quay.calendarId}/wishes`, wish);
    expect(asked.status, JSON.stringify(asked.body)).toBe(201);
    return async () => (await handOver(email)).state === 'sent';
  },
  'ceiling-reply': async ({ client, email }) => {
    const id = await askForCeiling(client);
    const answer = await quay.client.call('POST', `/ceilings/requests/${id}`, { grant: false });
    expect(answer.status).toBe(200);
    return async () => (await handOver(email)).state === 'sent';
  },
};

async function askForCeiling(client: TestClient): Promise<string> {
  const wish = { calendarId: quay.calendarId, audience: 'street', glass: 'clear', reason: '' };
  const asked = await client.call('POST', '/ceilings/requests', wish);
  expect(asked.status).toBe(201);
  return asked.body.requests[0].id;
}

describe.each(Object.entries(EFFECTS))('%s', (_effect, ask) => {
  it('acts while its author may', async () => {
    expect(await (await ask(await publisher()))()).toBe(true);
  });

  it.each(Object.entries(LOSSES))('does not act once its author %s', async (_how, lose) => {
    const author = await publisher();
    const acts = await ask(author);
    await lose(author.id);
    expect(await acts()).toBe(false);
  });
});

describe('other deferred effects', () => {
  it('have a test each', () => {
    expect([...Object.keys(EFFECTS), ...ELSEWHERE].sort()).toEqual(Object.keys(DEFERRED_EFFECTS).sort());
  });

  it('a request for a higher ceiling is mailed to those who are stewards when it goes out', async () => {
    const stewards = [await colleague(quay.server.base, `Una${++serial}`), await publisher()];
    const ids = stewards.map((steward) => steward.id);
    await UserRow.update({ role: 'steward' }, { where: { id: ids } });
    await askForCeiling((await publisher()).client);
    await UserRow.update({ role: 'member' }, { where: { id: ids[1]! } });
    const states = [];
    for (const { email } of stewards) states.push((await handOver(email)).state);
    expect(states).toEqual(['sent', 'failed']);
  });

  it('an invitation holds as long as whoever sent it is a steward', async () => {
    const steward = await colleague(quay.server.base, `Ebba${++serial}`);
    await UserRow.update({ role: 'steward' }, { where: { id: steward.id } });
    const email = `mara${serial}@ostrel.example`;
    const invitation = { emails: [email], steward: true, standings: [] };
    expect((await steward.client.call('POST', '/invitations', invitation)).status).toBe(201);
    const { token } = (await lettersTo(email)).at(-1)!;
    await UserRow.update({ role: 'member' }, { where: { id: steward.id } });
    const visitor = new TestClient(quay.server.base);
    await visitor.call('GET', '/session');
    const acceptance = { token, name: 'Mara', password: 'three plain words' };
    expect((await visitor.call('POST', '/passes/invitation', acceptance)).body.code).toBe(
      'invitation-withdrawn',
    );
    expect(await UserRow.count({ where: { email } })).toBe(0);
    await UserRow.update({ role: 'steward' }, { where: { id: steward.id } });
    expect((await visitor.call('POST', '/passes/invitation', acceptance)).status).toBe(200);
  });

  it('access is not granted to a suspended account', async () => {
    const asker = await colleague(quay.server.base, `Per${++serial}`);
    await makeTo(quay.calendarId, asker.id, 'reader', 'frosted');
    const wish = { standing: 'reader', glass: 'clear', reason: 'Tours' };
    await asker.client.call('POST', `/calendars/${quay.calendarId}/wishes`, wish);
    const { id } = (await WishRow.findOne({ where: { userId: asker.id } }))!;
    await LOSSES['is suspended'](asker.id);
    const answer = { grant: true, standing: 'reader', glass: 'clear' };
    expect((await quay.client.call('POST', `/wishes/${id}`, answer)).body.code).toBe('asker-suspended');
    expect((await StandingRow.findOne({ where: { userId: asker.id } }))!.glass).toBe('frosted');
  });

  it('a link that works once does nothing for a suspended account, and ends when credentials change', async () => {
    const { id, email, client } = await colleague(quay.server.base, `Ada${++serial}`);
    const visitor = new TestClient(quay.server.base);
    await visitor.call('GET', '/session');
    const change = { email: `new-${email}`, password: PASSWORD };
    await client.call('POST', '/account/address', change);
    await expect.poll(() => lettersTo(change.email), { timeout: 60_000 }).toHaveLength(1);
    const { token } = (await lettersTo(change.email))[0]!;
    await LOSSES['is suspended'](id);
    expect((await visitor.call('POST', '/passes/address', { token })).body.code).toBe('pass-unknown');
    await UserRow.update({ restedAt: null }, { where: { id } });
    // An intruder’s change of address does not outlive the owner’s new password.
    await new TestClient(quay.server.base).signIn(PASSWORD, email);
    const owner = new TestClient(quay.server.base);
    await owner.signIn(PASSWORD, email);
    const next = { password: PASSWORD, next: 'entirely different words' };
    expect((await owner.call('PUT', '/account/password', next)).status).toBe(200);
    expect(await PassRow.count({ where: { userId: id } })).toBe(0);
    expect((await visitor.call('POST', '/passes/address', { token })).body.code).toBe('pass-unknown');
    expect((await UserRow.findByPk(id))!.email).toBe(email);
    expect((await lettersTo(email)).map((m) => m.kind)).toEqual(['credentials']);
  });

  it('a changed address is reported to the old one, and ends the sessions elsewhere', async () => {
    const { email, client } = await colleague(quay.server.base, `Tam${++serial}`);
    const next = `new-${email}`;
    await client.call('POST', '/account/address', { email: next, password: PASSWORD });
    await expect.poll(() => lettersTo(next), { timeout: 60_000 }).toHaveLength(1);
    const { token } = (await lettersTo(next))[0]!;
    const elsewhere = new TestClient(quay.server.base);
    await elsewhere.call('GET', '/session');
    expect((await elsewhere.call('POST', '/passes/address', { token })).status).toBe(204);
    expect((await lettersTo(email)).map((m) => m.subject)).toEqual([
      expect.stringContaining('The mail address of your account'),
    ]);
    expect((await client.call('GET', '/account')).body.code).toBe('not-signed-in');
  });
});

describe('the draft of a window', () => {
  it('cannot name a calendar that its author may not publish, neither kept nor scheduled', async () => {
    const { client, window, input } = await publisher();
    const own = { name: `Pilots ${serial}`, description: '', zone: 'UTC', plate: 'PI', colour: 'teal' };
    const { body: foreign } = await quay.client.call('POST', '/calendars', own);
    const sources = [...input.sources, { calendarId: foreign.id, glass: 'clear', fields: [], as: 'Pilots' }];
    const draft = { body: { ...input, sources }, version: 0 };
    const kept = await client.call('PUT', `/windows/${window.id}/draft`, draft);
    expect([kept.status, kept.body.code]).toEqual([422, 'source-missing']);
    // One that was kept by somebody who may is not scheduled by somebody who may not.
    expect((await quay.client.call('PUT', `/windows/${window.id}/draft`, draft)).status).toBe(200);
    const at = new Date(Date.now() + 3_600_000).toISOString();
    const schedule = { at, confirmed: input.confirmed };
    const scheduled = await client.call('POST', `/windows/${window.id}/schedule`, schedule);
    expect([scheduled.status, scheduled.body.code]).toEqual([422, 'source-missing']);
    // Who may not know of the window learns nothing of it, whatever the draft names.
    const stranger = await colleague(quay.server.base, `Eve${++serial}`);
    const theirs = { name: `Own ${serial}`, description: '', zone: 'UTC', plate: 'OW', colour: 'teal' };
    const { body: mine } = await stranger.client.call('POST', '/calendars', theirs);
    const named = { ...input, sources: [{ ...input.sources[0], calendarId: mine.id }] };
    for (const id of [window.id, '7b0bbe40-0000-4000-8000-000000000000']) {
      const answer = await stranger.client.call('PUT', `/windows/${id}/draft`, { body: named, version: 0 });
      expect(answer.body.code).toBe('not-found');
    }
    for (const odd of [null, 'all', [null], [{ calendarId: 7 }]]) {
      const body = { ...input, sources: odd };
      const answer = await client.call('PUT', `/windows/${window.id}/draft`, { body, version: 1 });
      expect(answer.status).toBeLessThan(500);
    }
  });
});
