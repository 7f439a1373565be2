import { afterEach, describe, expect, it } from 'vitest';
import { MailRow } from '../db/models';
import { mailServer as newMailServer, type Behaviour } from '../testingMail';
import { EMAIL, TestClient, eventually, freshDatabase, serverProcess, testServer } from '../testing';

const opened: { close: () => unknown }[] = [];
afterEach(async () => {
  for (const one of opened.splice(0).reverse()) await one.close();
});

async function mailServer(answer?: Behaviour, refuse?: () => Error | null) {
  const server = await newMailServer(answer, refuse);
  opened.push(server);
  return server;
}

const settings = (port: number) => ({
  host: '127.0.0.1',
  port,
  secure: false,
  account: '',
  password: '',
  sender: 'calendars@ostrel.example',
});

async function house(port: number | null) {
  const server = await testServer(await freshDatabase(), {
    jobs: { lost: 5, look: 1, again: 20 },
    mailServer: port === null ? null : settings(port),
  });
  opened.push(server);
  const client = new TestClient(server.base);
  await client.signIn();
  return { server, client };
}

const invitation = (emails: string[]) => ({ emails, steward: false, standings: [] });
const stateOf = async (client: TestClient, to: string) =>
  (await client.call('GET', '/post')).body.mails.find((m: any) => m.to === to);

describe('mail', () => {
  it('is handed over once, as plain text and HTML of one source, and what it said is forgotten', async () => {
    const { taken, port } = await mailServer();
    const { client } = await house(port);
    await client.call('POST', '/invitations', invitation(['mara@ostrel.example']));
    await eventually(async () => expect((await stateOf(client, 'mara@ostrel.example')).state).toBe('sent'));
    expect(taken).toHaveLength(1);
    const [raw] = taken;
    expect(raw).toMatch(/^From: calendars@ostrel\.example\r$/m);
    expect(raw).toMatch(/^To: mara@ostrel\.example\r$/m);
    expect(raw).toMatch(/^Auto-Submitted: auto-generated\r$/m);
    expect(raw).toContain('Content-Type: text/plain');
    expect(raw).toContain('Content-Type: text/html');
    const row = await MailRow.findOne({ where: { recipient: 'mara@ostrel.example' } });
    expect(row!.content).toBe(null);
    // It is over, and is not sent again.
    expect((await client.call('POST', `/post/${row!.id}/again`)).body.code).toBe('mail-state');
  });

  it('that no server is set for is kept, and sent when there is one', async () => {
    const { taken, port } = await mailServer();
    const { client } = await house(null);
    await client.call('POST', '/invitations', invitation(['mara@ostrel.example']));
    await eventually(async () => expect((await stateOf(client, 'mara@ostrel.example')).state).toBe('kept'));
    expect((await client.call('POST', '/post/test')).body.code).toBe('mail-server-missing');
    const { version } = (await client.call('GET', '/post')).body;
    const set = await client.call('PUT', '/post/server', { ...settings(port), version });
    expect([set.body.setBy, set.body.server.port, 'password' in set.body.server]).toEqual([
      'house',
      port,
      false,
    ]);
    await eventually(async () => expect((await stateOf(client, 'mara@ostrel.example')).state).toBe('sent'));
    await client.call('POST', '/post/test');
    await eventually(async () => expect((await stateOf(client, EMAIL)).state).toBe('sent'));
    expect(taken).toHaveLength(2);
    const old = await client.call('PUT', '/post/server', { ...settings(port), version });
    expect(old.body.code).toBe('version-conflict');
  });

  it('that is refused for good is told under House with the reason, and sent again on demand', async () => {
    let refusing = true;
    const refusal = Object.assign(new Error('No such mailbox here'), { responseCode: 550 });
    const { taken, port } = await mailServer(undefined, () => (refusing ? refusal : null));
    const { client } = await house(port);
    await client.call('POST', '/invitations', invitation(['mara@ostrel.example']));
    await eventually(async () => {
      const mail = await stateOf(client, 'mara@ostrel.example');
      expect([mail.state, mail.trouble]).toEqual(['failed', expect.stringContaining('No such mailbox here')]);
    });
    expect(taken).toEqual([]);
    refusing = false;
    const { id } = await stateOf(client, 'mara@ostrel.example');
    await client.call('POST', `/post/${id}/again`);
    await eventually(async () => expect((await stateOf(client, 'mara@ostrel.example')).state).toBe('sent'));
    expect(taken).toHaveLength(1);
  });

  it('that is refused for now waits, with the reason, and is tried again', async () => {
    const busy = Object.assign(new Error('Try later'), { responseCode: 451 });
    const { taken, port } = await mailServer(undefined, () => busy);
    const { client } = await house(port);
    await client.call('POST', '/invitations', invitation(['mara@ostrel.example']));
    await eventually(async () => {
      const mail = await stateOf(client, 'mara@ostrel.example');
      expect([mail.state, mail.trouble]).toEqual(['waiting', expect.stringContaining('Try later')]);
    });
    expect(taken).toEqual([]);
    // The reason is stored before the job itself is put back.
    await eventually(async () => {
      const [job] = (await MailRow.sequelize!.query(
        `SELECT state, retry_count, start_after > now() AS later FROM pgboss.job WHERE name = 'mail'`,
      )) as any;
      expect(job).toEqual([{ state: 'retry', retry_count: 0, later: true }]);
    });
  });

  it('is not sent twice when a process dies while it hands it over', async () => {
    const databaseUrl = await freshDatabase();
    // It takes the mail and says nothing.
    let reached = () => undefined as unknown;
    const handed = new Promise<void>((resolve) => (reached = () => resolve()));
    const { taken, port } = await mailServer(() => void reached());
    const env = {
      SMTP_URL: `smtp://127.0.0.1:${port}`,
      MAIL_FROM: 'calendars@ostrel.example',
      JOB_LOOK_SECONDS: '1',
      JOB_LOST_SECONDS: '2',
      JOB_AGAIN_SECONDS: '1',
    };
    const first = await serverProcess(databaseUrl, env);
    const server = await testServer(databaseUrl);
    opened.push(server);
    const client = new TestClient(server.base);
    await client.signIn();
    const other = new TestClient(first.base);
    await other.signIn();
    await other.call('POST', '/invitations', invitation(['mara@ostrel.example']));
    await handed;
    await first.stop('SIGKILL');
    await MailRow.sequelize!.query(`UPDATE mails SET updated_at = now() - interval '5 minutes'`);
    const second = await serverProcess(databaseUrl, env);
    opened.push({ close: () => second.stop() });
    await eventually(async () => expect((await stateOf(client, 'mara@ostrel.example')).state).toBe('unsure'));
    // The job that was lost with its process is taken up, and finds that it may have been done.
    await eventually(async () => {
      const [jobs] = (await MailRow.sequelize!.query(
        `SELECT state FROM pgboss.job WHERE name = 'mail'
         UNION ALL SELECT state FROM pgboss.archive WHERE name = 'mail'`,
      )) as any;
      expect(jobs).toEqual([{ state: 'completed' }]);
    });
    expect(taken).toHaveLength(1);
  });
});
