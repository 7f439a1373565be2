import express, { type Express } from 'express';
import { mkdirSync, readFileSync, readdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import PostalMime from 'postal-mime';
import { SMTPServer } from 'smtp-server';
import { listPage, mailPage } from './postboxPages';

/** A mail as it came (RFC 5322), taken apart. */
export interface ReceivedMail {
  readonly id: number;
  readonly at: string;
  readonly from: string;
  readonly to: readonly string[];
  readonly subject: string;
  readonly text: string;
  readonly html: string;
  readonly headers: readonly { readonly key: string; readonly value: string }[];
}

/** Mails that are kept; older ones are forgotten. */
const MOST = 500;
/** Bytes of one mail. */
const LARGEST = 2 * 1024 * 1024;

/** The mails that came, in memory, and in a folder where one is named, as the files that they are. */
export class Mailbox {
  private readonly mails: ReceivedMail[] = [];
  private last = 0;

  constructor(private readonly folder: string) {}

  /** Reads what came before. */
  async open(): Promise<void> {
    if (!this.folder) return;
    mkdirSync(this.folder, { recursive: true });
    const names = readdirSync(this.folder).filter((name) => /^\d+\.eml$/.test(name));
    for (const name of names.sort())
      await this.add(readFileSync(join(this.folder, name)), Number.parseInt(name, 10));
  }

  /** Takes a mail in as it came over the line. */
  async receive(raw: Buffer): Promise<void> {
    const id = this.last + 1;
    if (this.folder) writeFileSync(join(this.folder, `${String(id).padStart(6, '0')}.eml`), raw);
    await this.add(raw, id);
  }

  private async add(raw: Buffer, id: number): Promise<void> {
    const { from, to, subject, text, html, date, headers } = await PostalMime.parse(raw);
    this.last = Math.max(this.last, id);
    this.mails.push({
      id,
      at: date ?? new Date().toISOString(),
      from: from?.address ?? '',
      to: (to ?? []).flatMap((one) => one.address ?? []),
      subject: subject ?? '',
      text: text ?? '',
      html: html ?? '',
      headers: headers.map(({ key, value }) => ({ key, value })),
    });
    if (this.mails.length > MOST) this.mails.shift();
  }

  /** Returns the mails, newest first: all, or those to one address. */
  list(to = ''): ReceivedMail[] {
    return this.mails.filter((mail) => !to || mail.to.includes(to)).reverse();
  }

  find(id: number): ReceivedMail | undefined {
    return this.mails.find((mail) => mail.id === id);
  }
}

/** Returns a mail server (SMTP, RFC 5321) that takes everything, sends nothing on, and puts it into a mailbox. */
export function postboxServer(mailbox: Mailbox): SMTPServer {
  return new SMTPServer({
    authOptional: true,
    disabledCommands: ['STARTTLS'],
    size: LARGEST,
    onAuth: (_auth, _session, done) => done(null, { user: 'anybody' }),
    onData: (stream, _session, done) => {
      const parts: Buffer[] = [];
      stream.on('data', (part: Buffer) => parts.push(part));
      stream.on('end', () => {
        mailbox.receive(Buffer.concat(parts)).then(
          () => done(),
          (error: unknown) => done(error instanceof Error ? error : new Error(String(error))),
        );
      });
    },
  });
}

/** Returns the pages of the postbox: all mails at `/` and `/mails.json`, one at `/mails/{id}`; `?to=` asks for those to one address. */
export function postboxSite(mailbox: Mailbox): Express {
  const app = express();
  app.disable('x-powered-by');
  app.use((_req, res, next) => {
    // What a mail holds may run nothing, fetch nothing, and lead nowhere but out of its frame.
    res.set(
      'Content-Security-Policy',
      "default-src 'none'; style-src 'unsafe-inline'; frame-src 'self'; base-uri 'none'; form-action 'self'",
    );
    res.set('Cache-Control', 'no-store');
    next();
  });
  const toIn = (query: Readonly<Record<string, unknown>>) =>
    typeof query['to'] === 'string' ? query['to'] : '';
  app.get('/', (req, res) => {
    const to = toIn(req.query);
    res.type('html').send(listPage(mailbox.list(to), to));
  });
  app.get('/mails.json', (req, res) => {
    res.json(mailbox.list(toIn(req.query)));
  });
  app.get('/mails/:id', (req, res) => {
    const mail = mailbox.find(Number(req.params.id));
    if (mail) res.type('html').send(mailPage(mail));
    else res.status(404).type('text').send('There is no such mail.\n');
  });
  return app;
}
