import type { Audience, Glass } from '../glass';
import type { AlertKind, PollForm, PushState, SubscriberState } from '../reach';

/** Instants are in ISO 8601, lengths in milliseconds, shares from 0 to 1. */

/** How many readers are in each state. */
export type ReachCounts = Readonly<Record<SubscriberState, number>>;

/** What is expected of a revision. */
export interface ReachForecast {
  /** When it was made. */
  readonly at: string;
  readonly readers: number;
  readonly curve: readonly ReachPoint[];
  readonly halfBy: string | null;
  readonly nineInTenBy: string | null;
  readonly never: number;
}

/** What share of readers holds a revision a length of time after it was made. */
export interface ReachPoint {
  readonly after: number;
  readonly share: number;
}

/** A subscriber of a key: a program somewhere, for one reader or many. */
export interface ReachSubscriber {
  readonly id: string;
  readonly readers: number;
  readonly form: PollForm;
  readonly state: SubscriberState;
  readonly firstLook: string;
  readonly lastLook: string;
  readonly looks: number;
  /** Usual time between its looks; null while it is not known. */
  readonly interval: number | null;
  readonly nextBy: string | null;
  readonly nineInTenBy: string | null;
  /** The revision that it holds, and how many there were since; null where it holds one of another view, or none is known. */
  readonly revision: number | null;
  readonly behind: number | null;
}

export interface ReachKey {
  readonly id: string;
  readonly madeOutTo: string;
  readonly contact: string;
  readonly audience: Audience;
  readonly cap: Glass | null;
  /** How many readers it is made out for; null where that is not said. */
  readonly meantFor: number | null;
  /** The newest revision of what it shows; null where it never was. */
  readonly revision: number | null;
  /** How many have changes told to a mail address that they left and confirmed. */
  readonly byMail: number;
  /** How changes are pushed to a system of its own; null where they are not. */
  readonly push: PushState | null;
  readonly subscribers: readonly ReachSubscriber[];
}

/** A revision of what readers see: what was expected of it, and what happened. */
export interface ReachRevision {
  readonly number: number;
  readonly at: string;
  readonly appeared: number;
  readonly vanished: number;
  readonly changed: number;
  /** What was expected when it was made; null where nobody followed then. */
  readonly forecast: ReachForecast | null;
  /** What happened up to now; empty where nobody followed then. */
  readonly actual: readonly ReachPoint[];
}

/** One way in which readers see a window, with its newest revisions, the newest first. */
export interface ReachView {
  readonly audience: Audience;
  readonly cap: Glass | null;
  /** What is expected of the newest revision from now on. */
  readonly next: ReachForecast;
  readonly holding: number;
  readonly revisions: readonly ReachRevision[];
}

/** Whether the subscribers of a window are in sync. */
export interface WindowReach {
  readonly id: string;
  readonly at: string;
  /** The moment by which its newest change has to be known, where somebody said that it is urgent. */
  readonly urgentBy: string | null;
  readonly keys: readonly ReachKey[];
  readonly views: readonly ReachView[];
}

/** The same in a line. */
export interface ReachLine {
  readonly id: string;
  readonly name: string;
  readonly closed: boolean;
  readonly keys: number;
  readonly readers: number;
  readonly counts: ReachCounts;
  /** Readers who hold the newest revision. */
  readonly holding: number;
  /** When what readers see changed last. */
  readonly changedAt: string | null;
  readonly halfBy: string | null;
  readonly nineInTenBy: string | null;
  readonly never: number;
}

export interface Reach {
  readonly at: string;
  readonly windows: readonly ReachLine[];
}

/** When readers of a window would know of a change that is made now. */
export interface Knowing {
  readonly id: string;
  readonly name: string;
  readonly forecast: ReachForecast;
  /** How many readers are expected to know by the moment that was asked for. */
  readonly known: number;
  /** Keys with readers who will probably not. */
  readonly late: readonly LateKey[];
}

export interface LateKey {
  readonly id: string;
  readonly madeOutTo: string;
  readonly contact: string;
  /** Whether that is a mail address, by which it can be written to. */
  readonly byMail: boolean;
  readonly readers: number;
  /** Of them those who probably do not look in time. */
  readonly late: number;
}

export interface KnowingAnswer {
  readonly at: string;
  readonly by: string;
  readonly windows: readonly Knowing[];
}

/** Something that organisers should hear of. */
export interface Alert {
  readonly id: string;
  readonly kind: AlertKind;
  readonly windowId: string;
  readonly keyId: string | null;
  /** What it is, in a sentence. */
  readonly say: string;
  readonly since: string;
  readonly muted: boolean;
}

/** Whether alerts of a kind about a window, or one of its keys, are to be heard. */
export interface MuteInput {
  readonly kind: AlertKind;
  readonly keyId: string | null;
  readonly muted: boolean;
}

/** A mail to those to whom keys are made out: that something has changed which their programs may not show in time. */
export interface ReachMail {
  readonly keyIds: readonly string[];
  readonly words: string;
}

/** To how many it goes, and the keys whose contact is no mail address. */
export interface ReachMailAnswer {
  readonly sent: number;
  readonly without: readonly string[];
}

/** One request by which a system outside was told, or was to be. */
export interface PushTry {
  readonly message: string;
  readonly revision: number;
  readonly at: string;
  /** Of HTTP; null where nothing was answered. */
  readonly status: number | null;
  /** Milliseconds. */
  readonly took: number;
  /** Why it did not count as told, or empty. */
  readonly trouble: string;
}

/** How changes of what a key shows are pushed to a system outside. */
export interface Push {
  readonly address: string;
  readonly state: PushState;
  /** The revision that was told last. */
  readonly told: number;
  /** Whether something waits to be told, or is being tried. */
  readonly waits: boolean;
  /** The newest first. */
  readonly tries: readonly PushTry[];
  readonly version: number;
  /** By which its requests are signed; only where it was just made. */
  readonly secret: string | null;
  /** Until when the secret before it counts as well. */
  readonly oldUntil: string | null;
}

export interface PushInput {
  readonly address: string;
  /** The version that was changed; 0 where there was none. */
  readonly version: number;
}

export interface PushStateInput {
  readonly paused: boolean;
}
