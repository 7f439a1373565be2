import type { Glass } from '../glass';
import type { LetterKind, MailState } from '../post';
import type { InvitationState, Made, NamedPerson } from '../rights';
import type { InsideLanguage } from '../texts';

/** Somebody with an account. */
export interface Account {
  readonly id: string;
  readonly name: string;
  readonly email: string;
  readonly steward: boolean;
  /** Since when the account is at rest, so that nobody signs in with it; null where it is not. */
  readonly restedAt: string | null;
}

/** Who is what to the calendars whose people one may look after, by name. */
export interface Standings {
  readonly calendars: readonly {
    readonly calendarId: string;
    readonly houseGlass: Glass;
    readonly people: readonly NamedPerson[];
  }[];
  /** Names of the stewards, who see everything. */
  readonly stewards: readonly string[];
}

/** What somebody is, or will be, to a calendar. */
export interface ToCalendar extends Made {
  readonly calendarId: string;
}

/** Somebody who was asked into the house. */
export interface Invitation {
  readonly id: string;
  readonly email: string;
  readonly steward: boolean;
  readonly standings: readonly ToCalendar[];
  readonly state: InvitationState;
  readonly by: string;
  readonly sentAt: string;
  readonly endsAt: string;
  /** When it was accepted or withdrawn, or null. */
  readonly answeredAt: string | null;
  /** Whether the address is outside the house's own domains. */
  readonly outside: boolean;
  /** How its newest mail stands. */
  readonly mail: MailState | null;
  /**
   * The address to accept it, for the steward to hand over: only in the answer to the call that sends it, and only without a mail
   * server. Otherwise null.
   */
  readonly handOutAddress: string | null;
  readonly version: number;
}

/** An address that works once, for a steward to hand over. */
export interface HandOutAddress {
  readonly address: string;
  readonly endsAt: string;
}

/** People who are to be asked into the house. */
export interface InvitationsInput {
  readonly emails: readonly string[];
  readonly steward: boolean;
  readonly standings: readonly ToCalendar[];
}

/** What somebody who was asked in is to be; `version` is the one that was seen. */
export interface InvitationInput {
  readonly steward: boolean;
  readonly standings: readonly ToCalendar[];
  readonly version: number;
}

/** The secret part of an address that works once. */
export interface PassInput {
  readonly token: string;
}

/** What an address that works once is for. */
export interface PassTold {
  readonly kind: 'first' | 'invitation' | 'password' | 'address';
  readonly house: string;
  /** Whose account it concerns, or whom it asks in; empty for the first one. */
  readonly email: string;
  /** Who asks them in. */
  readonly by: string;
  /** What they will be to which calendars, a line each. */
  readonly lines: readonly string[];
  readonly endsAt: string;
}

/** Somebody accepts an invitation. */
export interface Acceptance extends PassInput {
  readonly name: string;
  readonly password: string;
}

/** The first steward, and the house. */
export interface FirstSteward extends Acceptance {
  readonly email: string;
  readonly house: string;
  readonly zone: string;
  /** ISO 3166-1, or empty. */
  readonly country: string;
}

/** A new password by an address that works once. */
export interface NewPassword extends PassInput {
  readonly password: string;
}

/** A program that somebody is signed in with. */
export interface Device {
  readonly id: string;
  /** The program and what it runs on, in words. */
  readonly program: string;
  readonly since: string;
  /** When it was last used, to the hour. */
  readonly usedAt: string;
  /** Whether it is the one that asks. */
  readonly own: boolean;
}

/** One's own account. */
export interface OwnAccount {
  readonly name: string;
  readonly email: string;
  /** Null for the language of the browser. */
  readonly language: InsideLanguage | null;
  readonly devices: readonly Device[];
  /** Feeds that are one's own, for one's own programs. */
  readonly feeds: readonly OwnFeed[];
}

/** A window that a colleague follows with a key of their own. */
export interface OwnFeed {
  readonly keyId: string;
  readonly window: string;
  /** The clearest that it shows just now; null for all that the window does. */
  readonly cap: Glass | null;
  readonly see: string;
  readonly feed: string;
}

/** A mail as it stands under House. What it says is told to nobody. */
export interface Mail {
  readonly id: string;
  readonly kind: LetterKind;
  readonly to: string;
  readonly state: MailState;
  readonly tries: number;
  /** Why it was not sent, or empty. */
  readonly trouble: string;
  readonly at: string;
  readonly sentAt: string | null;
}

/** The mail server that the house sends from; its password is told to nobody. */
export interface MailServerTold {
  readonly host: string;
  readonly port: number;
  /** Whether the connection is encrypted from its beginning. */
  readonly secure: boolean;
  readonly account: string;
  readonly sender: string;
}

/** Where mail is sent from, and what became of it, newest first. */
export interface Post {
  readonly server: MailServerTold | null;
  /** Whether the house set it here, or it was set where the server is started. */
  readonly setBy: 'house' | 'start' | null;
  /** Rises with each change; 0 where the house set nothing. */
  readonly version: number;
  readonly mails: readonly Mail[];
}

/** A mail server as it is set. */
export interface MailServerInput extends MailServerTold {
  /** Null keeps the one that there is. */
  readonly password: string | null;
  readonly version: number;
}
