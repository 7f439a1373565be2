import { mkdtempSync, rmSync } from 'node:fs';
import type { Server } from 'node:http';
import { connect, type AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { Mailbox, postboxServer, postboxSite } from './postbox';

const folder = mkdtempSync(join(tmpdir(), 'postbox-'));
const mailbox = new Mailbox(folder);
const smtp = postboxServer(mailbox);
let site: Server;
let base = '';

beforeAll(async () => {
  await mailbox.open();
  await new Promise<void>((resolve) => smtp.listen(0, '127.0.0.1', resolve));
  await new Promise<void>((resolve) => {
    site = postboxSite(mailbox).listen(0, '127.0.0.1', () => resolve());
  });
  base = `http://127.0.0.1:${(site.address() as AddressInfo).port}`;
});
afterAll(() => {
  smtp.close();
  site.close();
  rmSync(folder, { recursive: true });
});

/** Hands a mail over as a mail server would (RFC 5321): one command after the other, each after its answer. */
async function send(to: string, message: string): Promise<void> {
  const { port } = smtp.server.address() as AddressInfo;
  const lines = ['EHLO house.example', 'MAIL FROM:<calendars@house.example>', `RCPT TO:<${to}>`, 'DATA'];
  lines.push(`${message.replaceAll('\n', '\r\n')}\r\n.`, 'QUIT');
  await new Promise<void>((resolve, reject) => {
    const socket = connect(port, '127.0.0.1');
    socket.on('error', reject);
    socket.on('close', () => resolve());
    socket.on('data', (part) => {
      // The last line of an answer has a blank behind its number.
      if (!/(^|\n)\d{3} [^\n]*\r\n$/.test(part.toString())) return;
      const next = lines.shift();
      if (next !== undefined) socket.write(`${next}\r\n`);
    });
  });
}

const mails = async (to = '') =>
  (await (await fetch(`${base}/mails.json?to=${encodeURIComponent(to)}`)).json()) as {
    id: number;
    subject: string;
    text: string;
  }[];

describe('the postbox', () => {
  it('keeps what came, tells it newest first, and by whom it is to', async () => {
    await send('mara@house.example', 'From: a@house.example\nTo: mara@house.example\nSubject: First\n\nOne');
    await send('jon@house.example', 'From: a@house.example\nTo: jon@house.example\nSubject: Second\n\nTwo');
    expect((await mails()).map((m) => m.subject)).toEqual(['Second', 'First']);
    expect((await mails('mara@house.example')).map((m) => m.text.trim())).toEqual(['One']);
    const again = new Mailbox(folder);
    await again.open();
    expect(again.list().map((m) => m.subject)).toEqual(['Second', 'First']);
  });

  it('shows what a mail holds as data, and its page in a frame that runs nothing', async () => {
    const html = '<html><head></head><body><script>alert(1)</script>"Hello"</body></html>';
    const head = 'From: a@house.example\nTo: x@house.example\nSubject: <b>Bold</b>\nContent-Type: text/html';
    await send('x@house.example', `${head}\n\n${html}`);
    const id = (await mails('x@house.example'))[0]!.id;
    const answer = await fetch(`${base}/mails/${id}`);
    const page = await answer.text();
    expect(answer.headers.get('content-security-policy')).toContain("default-src 'none'");
    expect(page).toContain('&lt;b&gt;Bold&lt;/b&gt;');
    expect(page).not.toContain('<script>');
    expect(page).toContain('sandbox="allow-popups allow-popups-to-escape-sandbox"');
    expect((await fetch(`${base}/mails/999`)).status).toBe(404);
  });
});
