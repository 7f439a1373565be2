import { Op, type Sequelize } from 'sequelize';
import { MailRow, MailSettingsRow } from '../db/models';
import { contentOf, recipientOf, type OnlyIf, type Outbox } from '../db/outbox';
import { unsealed } from '../db/sealed';
import type { Jobs } from '../jobs/jobs';
import { log } from '../log';
import { NotSent, handOver, type MailServer } from './mailServer';

/** Milliseconds after which a mail that was being handed over was left so by a process that died. */
const LEFT = 120_000;

/** Returns the mail server that the house set, else the one that the process was started with, or null. */
export async function mailServerNow(usual: MailServer | null): Promise<MailServer | null> {
  const row = await MailSettingsRow.findByPk(1);
  if (!row) return usual;
  const { host, port, secure, account, secret, sender } = row;
  return { host, port, secure, account, password: secret && unsealed(secret), sender };
}

/** Whether what a mail depends on is still so. If not, a notice is dropped and written again later; any other mail fails. */
export type StillSo = (onlyIf: OnlyIf) => Promise<boolean>;

const NOT_ALLOWED = 'Its author or its recipient has lost the right to it.';

/**
 * Hands one mail over, if it still waits. It is noted that this begins before anything leaves: a process that dies in the
 * middle leaves a mail of which nobody knows, and which nobody sends again by itself. Throws where trying again can help.
 */
export async function sendMail(
  id: string,
  usual: MailServer | null,
  last: boolean,
  stillSo: StillSo = () => Promise.resolve(true),
): Promise<void> {
  const mail = await MailRow.findOne({ where: { id, state: 'waiting' } });
  if (!mail) return;
  const content = contentOf(mail);
  const server = await mailServerNow(usual);
  if (!server) {
    await turn(id, 'waiting', { state: 'kept' });
    return;
  }
  const ready = { id, to: recipientOf(mail), subject: mail.subject, ...content };
  const { onlyIf } = content;
  let holds = true;
  // As late as can be: the mail server may have been slow, or busy for hours.
  const handing = async () => {
    holds = !onlyIf || (await stillSo(onlyIf));
    return holds && turn(id, 'waiting', { state: 'sending', tries: mail.tries + 1 });
  };
  try {
    await handOver(server, ready, handing);
    if (!holds) {
      if (onlyIf && 'notice' in onlyIf) await mail.destroy();
      else await turn(id, 'waiting', { state: 'failed', content: null, trouble: NOT_ALLOWED });
      return;
    }
    await turn(id, 'sending', { state: 'sent', content: null, sentAt: new Date(), trouble: '' });
  } catch (error) {
    const words = error instanceof Error ? error.message : String(error);
    // A mail server may quote whom it refuses; people here and the log may not know readers' addresses.
    const trouble = mail.recipient === ready.to ? words : withoutAddress(words, ready.to);
    log.warn({ mail: id, trouble }, 'a mail was not sent');
    if (!(error instanceof NotSent)) {
      await turn(id, 'sending', { state: 'unsure', trouble });
      return;
    }
    const forGood = error.forGood || last;
    await turn(id, ['waiting', 'sending'], { state: forGood ? 'failed' : 'waiting', trouble });
    if (!forGood) throw error;
  }
}

/** Notes of mails that a dead process was just handing over that nobody knows whether they left. */
export async function noteLeftMails(now = Date.now()): Promise<void> {
  await MailRow.update(
    { state: 'unsure', trouble: 'The server was interrupted while it handed this over.' },
    { where: { state: 'sending', updatedAt: { [Op.lt]: new Date(now - LEFT) } } },
  );
}

/** Returns a text without a mail address in it, however its letters are written. */
function withoutAddress(text: string, address: string): string {
  const literal = address.replace(/[\\^$.*+?()[\]{}|]/g, '\\$&');
  return text.replace(new RegExp(literal, 'gi'), '(address)');
}

async function turn(
  id: string,
  from: MailRow['state'] | MailRow['state'][],
  columns: Partial<Pick<MailRow, 'state' | 'tries' | 'content' | 'sentAt' | 'trouble'>>,
): Promise<boolean> {
  const [changed] = await MailRow.update(columns, { where: { id, state: from } });
  return changed > 0;
}

/** Hands mails over as they come, and those that were kept for want of a mail server where there is one now. */
export async function startPost(
  jobs: Jobs,
  outbox: Outbox,
  sequelize: Sequelize,
  usual: MailServer | null,
  stillSo: StillSo,
): Promise<{ close: () => void }> {
  jobs.work('mail', ({ data, last }) => sendMail(data.id, usual, last, stillSo));
  if (await mailServerNow(usual))
    await sequelize.transaction(async (transaction) => {
      for (const { id } of await MailRow.findAll({ where: { state: 'kept' }, transaction }))
        await outbox.again(id, transaction);
    });
  const note = () =>
    noteLeftMails().catch((error: unknown) => log.warn({ err: error }, 'left mails could not be noted'));
  await note();
  const timer = setInterval(() => void note(), LEFT / 4).unref();
  return {
    close: () => clearInterval(timer),
  };
}
