import type { LetterKind } from './letters';

/** How many mails go out in an hour at most, counted over all server processes. */
export const MAIL_LIMITS = {
  /** Mails that one account causes. */
  perAccount: 100,
  /** Mails that all accounts together cause. */
  perHouse: 2_000,
  /** Mails that people without an account ask for. */
  fromOutside: 300,
} as const;

/**
 * How many mails of a kind go to one address in an hour at most. Kinds that are missing have no limits: changes and alerts have a
 * pace of their own, and nobody can prevent that an owner hears of changed credentials.
 */
export const RECIPIENT_LIMITS: Readonly<Partial<Record<LetterKind, number>>> = {
  invitation: 5,
  password: 5,
  address: 3,
  'address-known': 3,
  'sight-request': 20,
  'sight-reply': 20,
  'ceiling-request': 20,
  'ceiling-reply': 20,
  'notice-confirm': 5,
  'reach-note': 20,
  test: 10,
};

export const MAIL_LIMIT_PERIOD_MS = 3_600_000;

/** What was sent in the last hour that counts against the limits of a mail. */
export interface SentMails {
  readonly byAccount: number;
  readonly byHouse: number;
  readonly fromOutside: number;
  /** Of its kind, to its address. */
  readonly toRecipient: number;
}

/** Which limit a mail would exceed, with what it is. */
export interface MailLimit {
  readonly of: 'account' | 'house' | 'outside' | 'recipient';
  readonly most: number;
}

/** Returns the limit that one more mail would exceed, or null. `authorId` is the account that causes it; null for nobody's. */
export function exceededMailLimit(
  kind: LetterKind,
  authorId: string | null,
  { byAccount, byHouse, fromOutside, toRecipient }: SentMails,
): MailLimit | null {
  const most = RECIPIENT_LIMITS[kind];
  if (most === undefined) return null;
  if (toRecipient >= most) return { of: 'recipient', most };
  if (authorId === null)
    return fromOutside >= MAIL_LIMITS.fromOutside ? { of: 'outside', most: MAIL_LIMITS.fromOutside } : null;
  if (byAccount >= MAIL_LIMITS.perAccount) return { of: 'account', most: MAIL_LIMITS.perAccount };
  return byHouse >= MAIL_LIMITS.perHouse ? { of: 'house', most: MAIL_LIMITS.perHouse } : null;
}
