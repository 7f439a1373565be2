import type { InsideLanguage } from '../texts/languages';
import type { Letter, LetterPart } from './letter';
import { letterTexts } from './letterTexts';

/** What a mail is about, as people read it under House. */
export const LETTER_KINDS = {
  invitation: 'invitation',
  password: 'new password',
  address: 'confirmation of an address',
  'address-known': 'note that an address already has an account',
  credentials: 'report of changed credentials',
  'sight-request': 'access request',
  'sight-reply': 'answer to an access request',
  'ceiling-request': 'request for a higher ceiling',
  'ceiling-reply': 'answer to a request for a higher ceiling',
  alert: 'alert about a window',
  'notice-confirm': 'confirmation of a reader’s address',
  notice: 'change notice to a reader',
  'reach-note': 'note that something has changed outside',
  test: 'test mail',
} as const;
export type LetterKind = keyof typeof LETTER_KINDS;

const text = (said: string): LetterPart => ({ kind: 'text', text: said });
const note = (said: string): LetterPart => ({ kind: 'note', text: said });
const link = (label: string, href: string): LetterPart => ({ kind: 'link', label, href });

/** Where a mail comes from, and the language of its recipient. */
interface Origin {
  /** The organisation's name, or empty. */
  readonly house: string;
  /** Default: English. */
  readonly language?: InsideLanguage;
}

/** Returns the texts in the language of a mail, and what the house is called in them. */
function textsFor({ house, language = 'en' }: Origin) {
  const t = letterTexts(language);
  return { t, language, house: house || t('house') };
}

/** Returns the mail that invites somebody into the house. `ends` is a day in words. */
export function invitationLetter({
  by,
  lines,
  href,
  ends,
  ...origin
}: Origin & {
  readonly by: string;
  /** Their rights to calendars, a line each. */
  readonly lines: readonly string[];
  readonly href: string;
  readonly ends: string;
}): Letter {
  const { t, language, house } = textsFor(origin);
  const rights: LetterPart[] = lines.length
    ? [text(t('invitationRights')), { kind: 'list', items: lines }]
    : [];
  return {
    subject: t('invitationSubject', { house }),
    language,
    parts: [
      text(t('invitation', { by, house })),
      ...rights,
      link(t('invitationAccept'), href),
      note(t('invitationEnds', { ends })),
    ],
  };
}

/** Returns the mail with which somebody sets a new password. `minutes` says how long its address works. */
export function passwordLetter({
  href,
  minutes,
  ...origin
}: Origin & { readonly href: string; readonly minutes: number }): Letter {
  const { t, language, house } = textsFor(origin);
  return {
    subject: t('passwordSubject', { house }),
    language,
    parts: [
      text(t('password', { house })),
      link(t('passwordChoose'), href),
      note(`${t('worksOnce', { minutes })} ${t('unasked')}`),
    ],
  };
}

/** Returns the mail with which somebody confirms that a mail address is theirs. `minutes` is as in {@link passwordLetter}. */
export function addressLetter({
  name,
  href,
  minutes,
  ...origin
}: Origin & { readonly name: string; readonly href: string; readonly minutes: number }): Letter {
  const { t, language, house } = textsFor(origin);
  return {
    subject: t('addressSubject', { house }),
    language,
    parts: [
      text(t('address', { name, house })),
      link(t('addressConfirm'), href),
      note(`${t('worksOnce', { minutes })} ${t('unasked')}`),
    ],
  };
}

/** Returns the mail to somebody whose address another account wanted to have. */
export function addressKnownLetter(origin: Origin): Letter {
  const { t, language, house } = textsFor(origin);
  return {
    subject: t('addressKnownSubject', { house }),
    language,
    parts: [text(t('addressKnown', { house })), note(t('addressKnownAdvice'))],
  };
}

/** Returns the mail that reports changed credentials of an account to the address that it had until then. */
export function credentialsLetter({
  name,
  what,
  ...origin
}: Origin & { readonly name: string; readonly what: 'password' | 'address' }): Letter {
  const { t, language, house } = textsFor(origin);
  return {
    subject: t('credentialsSubject', { what, house }),
    language,
    parts: [text(t('credentials', { what, name, house })), note(t('credentialsAdvice'))],
  };
}

/** Returns the mail to a publisher about alerts of a window, a line each. */
export function alertLetter({
  window,
  lines,
  href,
  ...origin
}: Origin & { readonly window: string; readonly lines: readonly string[]; readonly href: string }): Letter {
  const { t, language } = textsFor(origin);
  return {
    subject: t('alertSubject', { window }),
    language,
    parts: [{ kind: 'list', items: lines }, link(t('alertOpen'), href), note(t('alertWhy', { window }))],
  };
}

/**
 * Returns the mail to the holder of a key: what it shows has changed, and their program may not fetch that in time. It says nothing
 * of the change but what its writer does.
 */
export function reachLetter({
  window,
  words,
  see,
  feed,
  ...origin
}: Origin & {
  readonly window: string;
  /** What somebody wrote for it; may be empty. */
  readonly words: string;
  /** The address of the calendar's page. */
  readonly see: string;
  readonly feed: string;
}): Letter {
  const { t, language, house } = textsFor(origin);
  return {
    subject: t('changedSubject', { window }),
    language,
    parts: [
      text(t('changed', { window, house })),
      ...(words ? [text(words)] : []),
      link(t('changedOpen'), see),
      note(t('changedAdvice', { feed })),
    ],
  };
}

/** Returns the mail to a publisher whom somebody asks for access. `wish` says to what, as wishWords does. It names no entry. */
export function sightRequestLetter({
  by,
  wish,
  reason,
  href,
  ...origin
}: Origin & {
  readonly by: string;
  readonly wish: string;
  readonly reason: string;
  readonly href: string;
}): Letter {
  const { t, language } = textsFor(origin);
  return {
    subject: t('asksSubject', { by, request: wish }),
    language,
    parts: [
      text(t('asks', { by, request: wish })),
      ...(reason ? [text(t('reason', { reason }))] : []),
      link(t('asksOpen'), href),
      note(t('asksPublisher')),
    ],
  };
}

/** Returns the mail with the answer to a request for access. `given` is what was granted, or null if it was declined. */
export function sightReplyLetter({
  by,
  wish,
  given,
  href,
  ...origin
}: Origin & {
  readonly by: string;
  readonly wish: string;
  readonly given: string | null;
  readonly href: string;
}): Letter {
  const { t, language } = textsFor(origin);
  return {
    subject: given ? t('grantedSubject') : t('declinedSubject'),
    language,
    parts: [
      text(given ? t('granted', { by, given }) : t('declined', { by, request: wish })),
      link(t('openCalendars'), href),
    ],
  };
}

/**
 * Returns the mail to a steward whom somebody asks for a higher ceiling. `request` says what is asked, as ceilingRequestWords does.
 * It names no entry.
 */
export function ceilingRequestLetter({
  by,
  request,
  reason,
  href,
  ...origin
}: Origin & {
  readonly by: string;
  readonly request: string;
  readonly reason: string;
  readonly href: string;
}): Letter {
  const { t, language, house } = textsFor(origin);
  return {
    subject: t('asksStewardSubject', { by, request }),
    language,
    parts: [
      text(t('asksSteward', { by, request })),
      ...(reason ? [text(t('reason', { reason }))] : []),
      link(t('asksOpen'), href),
      note(t('asksStewardWhy', { house })),
    ],
  };
}

/** Returns the mail with the answer to a request for a higher ceiling. */
export function ceilingReplyLetter({
  by,
  request,
  isGranted,
  href,
  ...origin
}: Origin & {
  readonly by: string;
  readonly request: string;
  readonly isGranted: boolean;
  readonly href: string;
}): Letter {
  const { t, language } = textsFor(origin);
  return {
    subject: isGranted ? t('grantedSubject') : t('declinedSubject'),
    language,
    parts: [
      text(t(isGranted ? 'ceilingGranted' : 'ceilingDeclined', { by, request })),
      link(t('openRequests'), href),
    ],
  };
}

/** Returns the mail by which a steward sees that mail arrives. */
export function testLetter({ by, ...origin }: Origin & { readonly by: string }): Letter {
  const { t, language, house } = textsFor(origin);
  return { subject: t('testSubject', { house }), language, parts: [text(t('test', { by }))] };
}
