import type { MailServerTold } from '@zonal/core/api';
import { headerText } from '@zonal/core/post';
import MailComposer from 'nodemailer/lib/mail-composer';
import SMTPConnection from 'nodemailer/lib/smtp-connection';
import type { MailContent } from '../db/outbox';

/** A mail server (SMTP, RFC 5321) and whom mail comes from. */
export interface MailServer extends MailServerTold {
  readonly password: string;
}

/** A mail that is ready to be handed over. */
export interface ReadyMail extends MailContent {
  readonly id: string;
  readonly to: string;
  readonly subject: string;
}

/** Why a mail was not handed over. */
export class NotSent extends Error {
  constructor(
    message: string,
    /** Whether trying again can help. */
    readonly forGood: boolean,
  ) {
    super(message);
  }
}

/** Milliseconds. */
const TIMES = { connectionTimeout: 10_000, greetingTimeout: 10_000, socketTimeout: 30_000 };

interface SmtpTrouble extends Error {
  readonly responseCode?: number | undefined;
  readonly response?: string | undefined;
}

const refused = (error: SmtpTrouble) => (error.responseCode ?? 0) >= 500;
const wordsOf = (error: SmtpTrouble) => headerText(error.response ?? error.message);

/**
 * Hands a mail over. `handing` is awaited in between: after all that can be tried again without harm, before the mail
 * itself leaves. Throws {@link NotSent} where it is sure that the mail was not taken; any other error leaves that open.
 */
export async function handOver(
  server: MailServer,
  mail: ReadyMail,
  handing: () => Promise<boolean>,
): Promise<void> {
  const domain =
    server.sender
      .split('@')
      .at(-1)!
      .replace(/[^\w.-]/g, '') || 'localhost';
  const node = new MailComposer({
    from: server.sender,
    to: mail.to,
    subject: mail.subject,
    text: mail.text,
    html: mail.html,
    // The same each time, so that a program that gets it twice can tell.
    messageId: `<${mail.id}@${domain}>`,
    headers: { 'Auto-Submitted': 'auto-generated', ...mail.headers },
  }).compile();
  const message = await node.build();
  const { host, port, secure } = server;
  const connection = new SMTPConnection({ host, port, secure, ...TIMES });
  try {
    await openTo(connection, server);
    if (!(await handing())) return;
    await new Promise<void>((resolve, reject) => {
      connection.once('error', reject);
      connection.send(node.getEnvelope(), message, (error: SmtpTrouble | null) => {
        if (!error) return resolve();
        // A server that says so has not taken it; of one that fell silent nobody knows.
        reject(error.responseCode ? new NotSent(wordsOf(error), refused(error)) : error);
      });
    });
    connection.quit();
  } finally {
    connection.close();
  }
}

/** Nothing is handed over here, so whatever goes wrong can be tried again. */
function openTo(connection: SMTPConnection, { account, password }: MailServer): Promise<void> {
  return new Promise((resolve, reject) => {
    const failed = (error: SmtpTrouble) => reject(new NotSent(wordsOf(error), refused(error)));
    connection.once('error', failed);
    connection.once('end', () => failed(new Error('The mail server ended the connection.')));
    connection.connect((error?: SmtpTrouble) => {
      if (error) return failed(error);
      const opened = () => {
        connection.removeAllListeners('error');
        connection.on('error', () => undefined);
        resolve();
      };
      if (!account) return opened();
      connection.login({ credentials: { user: account, pass: password } }, (denied: SmtpTrouble | null) =>
        denied ? failed(denied) : opened(),
      );
    });
  });
}
