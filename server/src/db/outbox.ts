import {
  MAIL_LIMIT_PERIOD_MS,
  RECIPIENT_LIMITS,
  exceededMailLimit,
  headerText,
  letterHtml,
  letterText,
  type Letter,
  type LetterKind,
  type MailLimit,
} from '@zonal/core/post';
import { Problem, type ProblemCode } from '@zonal/core/problems';
import type { DeferredEffect } from '@zonal/core/rights';
import { Op, type Transaction } from 'sequelize';
import { log } from '../log';
import { MailRow } from './models';
import { mailPrintOf, seal, unsealed } from './sealed';

/** A mail as it goes out. */
export interface MailContent {
  readonly text: string;
  readonly html: string;
  /** Headers that only some mails have (RFC 5322), by name. */
  readonly headers?: Readonly<Record<string, string>>;
  /** What has to be so still when it leaves; left out where nothing does. */
  readonly onlyIf?: OnlyIf;
}

/** What must still be so when a mail leaves. */
export type OnlyIf = NoticeDue | AuthorAllowed;

/** Its author must still be allowed to have the effect act. */
export interface AuthorAllowed {
  readonly effect: DeferredEffect;
  readonly authorId: string;
  readonly windowIds?: readonly string[];
  readonly calendarIds?: readonly string[];
}

/** A reader must still want it, and that revision must still be shown. */
export interface NoticeDue {
  readonly notice: string;
  readonly viewId: string;
  readonly number: number;
  /** What the reader was told before. */
  readonly since: number;
  readonly sinceAt: number;
}

/** What only some mails have. */
export interface MailMore extends Pick<MailContent, 'headers' | 'onlyIf'> {
  /** Whether it goes to a reader outside, whose address nobody here is to see. */
  readonly toReader?: boolean;
  /** The account that causes it (default: nobody's). */
  readonly authorId?: string | null;
  /** What is done if it exceeds a limit (default: refuse for an account's mail, else skip). */
  readonly ifTooMany?: 'refuse' | 'skip';
}

const REFUSALS: Readonly<Record<MailLimit['of'], ProblemCode>> = {
  account: 'too-many-mails',
  house: 'too-many-mails-of-house',
  outside: 'too-many-mails-of-house',
  recipient: 'too-many-mails-to-one',
};

/** Asks, as part of a transaction, that a mail be handed over. */
export type AskForMail = (id: string, transaction: Transaction) => Promise<void>;

/**
 * Mail that is to go out: it is written down with what makes it necessary, in one transaction, so that neither is without
 * the other. What it says is sealed, as addresses that work once stand in it, and is dropped when it was sent.
 */
export class Outbox {
  /** Without somebody to ask, mails wait until somebody is there. */
  constructor(private readonly ask: AskForMail | null) {}

  /**
   * Puts a mail into the outbox; returns its id, or null if it was skipped because of a limit. Throws `too-many-mails`,
   * `too-many-mails-of-house` and `too-many-mails-to-one`.
   */
  async put(
    to: string,
    kind: LetterKind,
    letter: Letter,
    transaction: Transaction,
    { toReader = false, authorId = null, ifTooMany = authorId ? 'refuse' : 'skip', ...more }: MailMore = {},
  ): Promise<string | null> {
    const recipientPrint = mailPrintOf(to);
    const limit = await limitFor(kind, authorId, recipientPrint, transaction);
    if (limit && ifTooMany === 'refuse') throw new Problem(REFUSALS[limit.of], { most: limit.most });
    if (limit) {
      log.warn({ kind, limit }, 'a mail was not written because of a limit');
      return null;
    }
    const content: MailContent = { text: letterText(letter), html: letterHtml(letter), ...more };
    const row = await MailRow.create(
      {
        kind,
        recipient: toReader ? seal(headerText(to)) : headerText(to),
        recipientPrint,
        authorId,
        subject: headerText(letter.subject),
        content: seal(JSON.stringify(content)),
        state: 'waiting',
      },
      { transaction },
    );
    await this.ask?.(row.id, transaction);
    return row.id;
  }

  /** Lets a mail that was not sent, or may not have been, be sent again. Returns false where it is none. */
  async again(id: string, transaction: Transaction): Promise<boolean> {
    const [changed] = await MailRow.update(
      { state: 'waiting', trouble: '' },
      { where: { id, state: ['kept', 'failed', 'unsure', 'waiting'] }, transaction },
    );
    if (changed) await this.ask?.(id, transaction);
    return changed > 0;
  }
}

/** Returns the limit that one more mail would exceed, or null. */
async function limitFor(
  kind: LetterKind,
  authorId: string | null,
  recipientPrint: string | null,
  transaction: Transaction | null,
): Promise<MailLimit | null> {
  if (RECIPIENT_LIMITS[kind] === undefined) return null;
  const createdAt = { [Op.gt]: new Date(Date.now() - MAIL_LIMIT_PERIOD_MS) };
  const count = (where: object) => MailRow.count({ where: { createdAt, ...where }, transaction });
  return exceededMailLimit(kind, authorId, {
    byAccount: authorId ? await count({ authorId }) : 0,
    byHouse: authorId ? await count({ authorId: { [Op.ne]: null } }) : 0,
    fromOutside: authorId ? 0 : await count({ authorId: null, kind: ['password', 'notice-confirm'] }),
    toRecipient: recipientPrint ? await count({ recipientPrint, kind }) : 0,
  });
}

/** Throws if an account may cause no more mails of a kind for now, whoever they go to: `too-many-mails` and `too-many-mails-of-house`. */
export async function requireMailsLeft(kind: LetterKind, authorId: string): Promise<void> {
  const limit = await limitFor(kind, authorId, null, null);
  if (limit) throw new Problem(REFUSALS[limit.of], { most: limit.most });
}

/** Returns to whom a mail goes. */
export function recipientOf({ recipient }: Pick<MailRow, 'recipient'>): string {
  return unsealed(recipient);
}

/** Returns to whom a mail goes as people here are told: of readers outside no more than their domain. */
export function recipientTold(row: Pick<MailRow, 'recipient'>): string {
  const to = recipientOf(row);
  return to === row.recipient ? to : `a reader at ${to.split('@').at(-1)!}`;
}

/** Returns what a mail says that was not sent yet. */
export function contentOf({ content }: Pick<MailRow, 'content'>): MailContent {
  return JSON.parse(unsealed(content ?? seal('{"text":"","html":""}'))) as MailContent;
}
