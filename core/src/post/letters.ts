import type { Letter, LetterPart } from './letter';

/** What a mail is about: by this it is told under House. */
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
const UNASKED =
  'If you did not ask for this, nothing has to be done: nothing changes unless the address above is followed.';

/** Where a letter comes from; `house` is the organisation's name, or empty. */
interface From {
  readonly house: string;
}

const houseWords = ({ house }: From) => house || 'your organisation';

/** Returns the letter by which somebody is asked to come into the house. `ends` is a day in words. */
export function invitationLetter(
  from: From & {
    readonly by: string;
    /** What they will be to which calendars, a line each. */
    readonly lines: readonly string[];
    readonly href: string;
    readonly ends: string;
  },
): Letter {
  const calendars: LetterPart[] = from.lines.length
    ? [text('What you will be there:'), { kind: 'list', items: from.lines }]
    : [];
  return {
    subject: `You are invited to the calendars of ${houseWords(from)}`,
    parts: [
      text(`${from.by} invites you to the calendars of ${houseWords(from)}.`),
      ...calendars,
      link('Accept, and choose a name and a password', from.href),
      note(
        `This address works once, and until ${from.ends}. If you do not know what this is about, leave it.`,
      ),
    ],
  };
}

/** Returns the letter with which somebody sets a new password. `minutes` says how long its address works. */
export function passwordLetter(from: From & { readonly href: string; readonly minutes: number }): Letter {
  return {
    subject: `A new password for ${houseWords(from)}`,
    parts: [
      text(`Somebody, probably you, asked for a new password to your account at ${houseWords(from)}.`),
      link('Choose a new password', from.href),
      note(`This address works once, and for ${from.minutes} minutes. ${UNASKED}`),
    ],
  };
}

/** Returns the letter by which somebody confirms that a mail address is theirs. */
export function addressLetter(
  from: From & { readonly name: string; readonly href: string; readonly minutes: number },
): Letter {
  return {
    subject: `Confirm your address for ${houseWords(from)}`,
    parts: [
      text(
        `${from.name} wants to sign in to the calendars of ${houseWords(from)} with this address from now on.`,
      ),
      link('Yes, this is my address', from.href),
      note(`This address works once, and for ${from.minutes} minutes. ${UNASKED}`),
    ],
  };
}

/** Returns the letter to somebody whose address another account wanted to have. */
export function addressKnownLetter(from: From): Letter {
  return {
    subject: `Your address is known to ${houseWords(from)} already`,
    parts: [
      text(
        `Somebody with an account at ${houseWords(from)} wanted to sign in with this address. It belongs to your account, so nothing was changed.`,
      ),
      note('If that was you with a second account, ask a steward which of the two is to stay.'),
    ],
  };
}

/** Returns the letter that reports changed credentials of an account to the address that it had until then. */
export function credentialsLetter(
  from: From & { readonly name: string; readonly what: 'password' | 'address' },
): Letter {
  const what = from.what === 'password' ? 'password' : 'mail address';
  return {
    subject: `The ${what} of your account at ${houseWords(from)} was changed`,
    parts: [
      text(`The ${what} of the account of ${from.name} at ${houseWords(from)} has just been changed.`),
      note(
        'If this was not you, ask a steward at once to suspend the account and to set it up again with you.',
      ),
    ],
  };
}

/** Returns the letter to a publisher about what came to pass with a window, a line each. */
export function alertLetter(
  from: From & { readonly window: string; readonly lines: readonly string[]; readonly href: string },
): Letter {
  return {
    subject: `“${from.window}” needs a look`,
    parts: [
      { kind: 'list', items: from.lines },
      link('See it under Reach', from.href),
      note('You get this because you publish a calendar that is shown there. Under Reach it can be muted.'),
    ],
  };
}

/**
 * Returns the letter to whom a key is made out, that what it shows has changed and a program may not know it in time. It says
 * nothing of the change but what its writer does.
 */
export function reachLetter(
  from: From & {
    readonly window: string;
    /** What somebody wrote for it; may be empty. */
    readonly words: string;
    /** Where the calendar is to be seen as it is now. */
    readonly see: string;
    readonly feed: string;
  },
): Letter {
  return {
    subject: `“${from.window}” has changed`,
    parts: [
      text(
        `“${from.window}” of ${houseWords(from)} has changed. Your calendar program may not have looked since, and show what was before.`,
      ),
      ...(from.words ? [text(from.words)] : []),
      link('See the calendar as it is now', from.see),
      note(
        `To have it in your program at once, have it look again (often called “refresh”). The address that it follows is ${from.feed}`,
      ),
    ],
  };
}

/** Returns the letter to a publisher whom somebody asks for more of a calendar. `wish` says what, as wishWords does. It says no entry. */
export function sightRequestLetter(
  from: From & {
    readonly by: string;
    readonly wish: string;
    readonly reason: string;
    readonly href: string;
  },
): Letter {
  return {
    subject: `${from.by} asks to ${from.wish}`,
    parts: [
      text(`${from.by} asks to ${from.wish}.`),
      ...(from.reason ? [text(`They say: “${from.reason}”`)] : []),
      link('See what it would show, and answer', from.href),
      note('You get this because you publish this calendar.'),
    ],
  };
}

/** Returns the letter that tells what became of a wish; `given` is what was granted, or null where it was refused. */
export function sightReplyLetter(
  from: From & {
    readonly by: string;
    readonly wish: string;
    readonly given: string | null;
    readonly href: string;
  },
): Letter {
  const became = from.given
    ? `You may ${from.given} now; ${from.by} lets you.`
    : `${from.by} did not grant your wish to ${from.wish}.`;
  return {
    subject: from.given ? 'Your wish was granted' : 'Your wish was not granted',
    parts: [text(became), link('Open the calendars', from.href)],
  };
}

/**
 * Returns the letter to a steward whom somebody asks for a higher ceiling. `request` says what is asked, as ceilingRequestWords
 * does. It names no entry.
 */
export function ceilingRequestLetter(
  from: From & {
    readonly by: string;
    readonly request: string;
    readonly reason: string;
    readonly href: string;
  },
): Letter {
  return {
    subject: `${from.by} asks you to ${from.request}`,
    parts: [
      text(`${from.by} asks you to ${from.request}.`),
      ...(from.reason ? [text(`They say: “${from.reason}”`)] : []),
      link('See what it would show, and answer', from.href),
      note(`You get this because you are a steward of ${houseWords(from)}.`),
    ],
  };
}

/** Returns the letter with the answer to a request for a higher ceiling. */
export function ceilingReplyLetter(
  from: From & {
    readonly by: string;
    readonly request: string;
    readonly isGranted: boolean;
    readonly href: string;
  },
): Letter {
  const { by, request, isGranted, href } = from;
  return {
    subject: isGranted ? 'Your request was granted' : 'Your request was declined',
    parts: [
      text(`You asked to ${request}. ${by} ${isGranted ? 'has done so' : 'declined'}.`),
      link('Open your requests', href),
    ],
  };
}

/** Returns the letter by which a steward sees that mail arrives. */
export function testLetter(from: From & { readonly by: string }): Letter {
  return {
    subject: `A test from ${houseWords(from)}`,
    parts: [
      text(`This is a test mail. ${from.by} sent it to see that mail arrives; nothing has to be done.`),
    ],
  };
}
