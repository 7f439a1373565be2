import { headerText, letterHtml, letterText, type Letter, type LetterKind } from '@zonal/core/post';
import type { DeferredEffect } from '@zonal/core/rights';
import type { Transaction } from 'sequelize';
import { MailRow } from './models';
import { seal, unsealed } from './sealed';

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
}

/** Asks, as part of a transaction, that a mail be handed over. */
export type AskForMail = (id: string, transaction: Transaction) => Promise<void>;

/**
 * Mail that is to go out: it is written down with what makes it necessary, in one transaction, so that neither is without
 * the other. What it says is sealed, as addresses that work once stand in it, and is dropped when it was sent.
 */
export class Outbox {
  /** Without somebody to ask, mails wait until somebody is there. */
  constructor(private readonly ask: AskForMail | null) {}

  async put(
    to: string,
    kind: LetterKind,
    letter: Letter,
    transaction: Transaction,
    { toReader = false, ...more }: MailMore = {},
  ): Promise<string> {
    const content: MailContent = { text: letterText(letter), html: letterHtml(letter), ...more };
    const row = await MailRow.create(
      {
        kind,
        recipient: toReader ? seal(headerText(to)) : headerText(to),
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
