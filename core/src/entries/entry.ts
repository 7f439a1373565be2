import type { When } from './when';

export const KINDS = ['event', 'milestone', 'due'] as const;
/** A milestone and a due item are one day or one moment; a milestone has a planned date besides its present one. */
export type Kind = (typeof KINDS)[number];

/** `done` is for due items and milestones. */
export const STATUSES = ['confirmed', 'tentative', 'cancelled', 'done'] as const;
export type Status = (typeof STATUSES)[number];

export const SHOWS = ['busy', 'free'] as const;
/** Whether the time of an entry counts as taken. */
export type Shows = (typeof SHOWS)[number];

export const HOLDS = ['none', 'frost', 'keep-in'] as const;
/** A mark on one entry: `frost` lets out never more than busy time, `keep-in` nothing at all. */
export type Hold = (typeof HOLDS)[number];

/** Somebody named on an entry. `address` is a mail address, or empty. */
export interface Person {
  readonly name: string;
  readonly address: string;
  /** Set for a team or a group in place of one person. */
  readonly group?: boolean;
}

export interface Attachment {
  readonly name: string;
  readonly href: string;
}

/** The picture of an entry, stored by the server. */
export interface EntryImage {
  /** The name by which the server stores it: 32 hexadecimal digits, which nobody guesses. */
  readonly name: string;
  /** What it shows, for readers who do not see it. Never empty. */
  readonly alt: string;
  /** In pixels. */
  readonly width: number;
  readonly height: number;
}

/** A value of one of the house's own properties, as text: a date is written `2026-05-31`. */
export interface PropertyValue {
  readonly name: string;
  readonly value: string;
}

/** A property of an iCalendar file that has no field here, kept as jCal (RFC 7265) for the round trip. */
export type KeptProperty = readonly [name: string, parameters: object, type: string, ...values: unknown[]];

/** What an entry says, apart from when it recurs. Texts are plain text; lines end in \n. */
export interface Content {
  readonly kind: Kind;
  /** When a milestone was planned for; its start is what is expected now. Null for everything else. */
  readonly planned: When | null;
  readonly title: string;
  readonly place: string;
  readonly description: string;
  readonly publicLink: string;
  readonly joinLink: string;
  readonly labels: readonly string[];
  readonly people: readonly Person[];
  readonly contact: string;
  readonly attachments: readonly Attachment[];
  readonly image: EntryImage | null;
  readonly status: Status;
  readonly shows: Shows;
  readonly hold: Hold;
  readonly properties: readonly PropertyValue[];
  readonly kept: readonly KeptProperty[];
}

/** The rule and the dates by which an entry recurs (RFC 5545 section 3.8.5). */
export interface Recurrence {
  /** An RRULE value in its standard text, or empty when only dates are given. */
  readonly rule: string;
  readonly dates: readonly When[];
  readonly exceptDates: readonly When[];
}

/** What differs on one occurrence. `slot` is where the rule had put it (RECURRENCE-ID). */
export interface Override {
  readonly slot: When;
  readonly start: When;
  readonly end: When;
  readonly content: Content;
}

/** What is remembered of the file that an entry was last brought in from. */
export interface Imported {
  /** Fingerprint of what the file said of it. */
  readonly print: string;
  readonly sequence: number;
}

/** One entry of a calendar with everything that is known of it inside. `end` is exclusive. */
export interface Entry extends Content {
  readonly id: string;
  readonly calendarId: string;
  /** Rises by one with each stored change. */
  readonly version: number;
  /** The UID that it had in the file it came from, or its own. */
  readonly uid: string;
  readonly start: When;
  readonly end: When;
  readonly recurrence: Recurrence | null;
  readonly overrides: readonly Override[];
  /** Absent or null for an entry that was written here. */
  readonly imported?: Imported | null;
  /** The id of the entry that it was once a part of; absent or null for one that begins with itself. See lineageOf. */
  readonly lineage?: string | null;
}

/** Returns the content of an entry or an override without its times. */
export function contentOf(from: Content): Content {
  // Field by field, as this is done for every entry of a window: much faster than a loop over names.
  return {
    kind: from.kind,
    planned: from.planned,
    title: from.title,
    place: from.place,
    description: from.description,
    publicLink: from.publicLink,
    joinLink: from.joinLink,
    labels: from.labels,
    people: from.people,
    contact: from.contact,
    attachments: from.attachments,
    image: from.image,
    status: from.status,
    shows: from.shows,
    hold: from.hold,
    properties: from.properties,
    kept: from.kept,
  };
}
