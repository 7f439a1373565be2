import type {
  BoardWindow,
  Closing,
  DavAnswer,
  DavAsked,
  EmbedLook,
  FormName,
  PageKind,
  PageQuery,
  PushEvent,
} from '@zonal/core/forms';
import type { DigestReading, Letter } from '@zonal/core/post';
import type { Instant } from '@zonal/core/zones';
import type { Trouble } from '../glass/trouble';
import type { ChangeNews } from '@zonal/core/api';

/*
 * What the thread that answers readers and the one that works views out tell each other. All of it is plain data, as it
 * goes from thread to thread.
 */

/** A window as far as answering readers needs it. */
export interface WindowPlace {
  readonly id: string;
  readonly name: string;
  readonly closed: boolean;
  /** What readers of a closed window are told: since when it is, by the clocks of its zone, and whom to ask. */
  readonly closing: Closing;
  /** From when on it is closed whatever is told later; null for never. */
  readonly closesAt: Instant | null;
  readonly calendarIds: readonly string[];
  /** What everybody may know of it, where it is listed; null where it is not. */
  readonly board: BoardWindow | null;
}

export interface KeyPlace {
  readonly token: string;
  /** The key; the window where it is listed, and this its own name. */
  readonly keyId: string;
  readonly viewId: string;
  /** Instant from which on it is no longer open; null for never. */
  readonly expiresAt: Instant | null;
  /** How its embed looks where its address says nothing else, and the origins that may hold it; none for all. */
  readonly look: EmbedLook;
  readonly hosts: readonly string[];
  /** Why it then is not, as readers are told. */
  readonly ends: 'expired' | 'withdrawn' | 'turned' | 'unlisted';
  /** The address that is to be used in its place, where it was turned. */
  readonly moved: Moved | null;
  /** That the window or this address ends, if readers are to know. */
  readonly farewell: Farewell | null;
}

/** That a window or an address of it ends, and since when readers see a notice of that. */
export interface Farewell {
  readonly ends: 'window' | 'address';
  readonly at: Instant;
  readonly until: Instant;
}

/** That an address was turned at an instant: it leads on to another one until it ends. */
export interface Moved {
  readonly token: string;
  readonly at: Instant;
  readonly until: Instant;
}

/** What is shown of a view from now on. */
export interface ShownView {
  readonly viewId: string;
  /** Of its revision. */
  readonly number: number;
  readonly fingerprint: string;
  /** The day of the host zone up to which it is worked out: its horizon and its busy time depend on it. */
  readonly day: number;
  readonly listed: boolean;
}

/** Is told what can be fetched from outside, in the order in which it is to act; each call is over once it acts. */
export interface Outside {
  /** What was told so far does not count any more: whoever works views out begins anew, and knows nothing of it. */
  begin(): Acting;
  /** Windows as they are open or closed from now on, with all their keys. */
  windows(places: readonly { readonly window: WindowPlace; readonly keys: readonly KeyPlace[] }[]): Acting;
  view(shown: ShownView): Acting;
  /** Views are not to be served any more. */
  drop(viewIds: readonly string[]): Acting;
  trouble(windowId: string, trouble: Trouble | null): Acting;
  news(news: ChangeNews): Acting;
}

type Acting = void | Promise<void>;

/** Works views out and writes their documents. */
export interface Compiling {
  /** Reads which windows there are. */
  start(): Promise<void>;
  /** Takes in all changes since the last time; returns the number of the last one. Throws when the store is away. */
  catchUp(): Promise<number>;
  /** Does what can wait: turns of the day, views that were never worked out. Changes that come meanwhile go first. */
  rest(): Promise<void>;
  /** Returns the instant at which the first of all windows gets to its next day; with no window it is Infinity. */
  nextTurn(): Promise<Instant>;
  /** Shows a view that nobody has asked for yet, where it can be shown. */
  bring(viewId: string): Promise<void>;
  /** Returns a document of a view, or null where that revision is not the one to be shown any more. */
  write(order: Order): Promise<Written | null>;
  close(): Promise<void>;
}

/** A document that is asked for: of a revision of a view, for one key. */
export type Order = {
  readonly viewId: string;
  readonly number: number;
  readonly token: string;
  readonly moved: Moved | null;
  readonly farewell: Farewell | null;
  readonly now: Instant;
} & (
  | {
      readonly form: FormName;
      /** The print of the body that is at hand already, or null. */
      readonly body: string | null;
    }
  | PageOrder
  | ({ readonly form: 'entry' } & EntryOrder)
  | ({ readonly form: 'image' } & ImageOrder)
  | ({ readonly form: 'difference' } & DifferenceOrder)
  | ({ readonly form: 'dav' } & DavOrder)
  | ({ readonly form: 'told' } & ToldOrder)
);

/** One whose document goes to readers as it is. */
export type DocumentOrder = Exclude<Order, { readonly form: 'told' | 'image' }>;

/** Which page is asked for, and by whom as far as it is told: languages that are accepted, best first. */
export interface PageOrder {
  readonly form: 'page' | 'embed';
  readonly page: PageKind;
  readonly query: PageQuery;
  readonly accepted: readonly string[];
}

/** A file with one entry is asked for, by its outward identifier, and by one of its dates or none. */
export interface EntryOrder {
  readonly uid: string;
  readonly on: string;
}

/** The image of an entry is asked for, by its name. */
export interface ImageOrder {
  readonly name: string;
}

/** What changed after a revision is asked for. */
export interface DifferenceOrder {
  readonly since: number;
  /** Of the revision that is held. */
  readonly fingerprint: string;
}

/** Something is asked of a window as a collection. */
export interface DavOrder {
  readonly asked: DavAsked;
}

/** What somebody is to be told who does not look by themselves; `since` is the revision that they were told last, null for none of this view. */
export type ToldOrder =
  | {
      readonly as: 'digest';
      readonly since: number | null;
      /** When that was. */
      readonly sinceAt: Instant;
      readonly reading: DigestReading;
      readonly stop: string;
    }
  | { readonly as: 'confirm'; readonly reading: DigestReading; readonly href: string }
  | { readonly as: 'push'; readonly since: number | null; readonly type: PushEvent['type'] };

/** The answer to each, as JSON: which revision it tells of, and a letter or what is told to a system. */
export interface Told {
  readonly number: number;
  /** Null where there is nothing to tell. */
  readonly letter?: Letter | null;
  readonly event?: PushEvent;
}

/** The bytes of a document but its body. */
export interface WrittenHead {
  readonly plain: Uint8Array;
  /** The beginning of a gzip file (RFC 1952), up to where the body follows. */
  readonly gzip: Uint8Array;
  /** The end of that file. */
  readonly tail: Uint8Array;
}

/** The bytes that the documents of all keys of a view have in common. */
export interface WrittenBody {
  readonly plain: Uint8Array;
  /** Raw deflate (RFC 1951) that ends at a whole byte and looks back at nothing before it. */
  readonly deflated: Uint8Array;
  readonly print: string;
}

export interface Written {
  readonly head: WrittenHead;
  /** Null where it is the one that was at hand. */
  readonly body: WrittenBody | null;
  /** Stands for all of the plain bytes. */
  readonly print: string;
  readonly headers: Readonly<Record<string, string>>;
  /** What of a request it depends on (RFC 9110 section 12.5.5). */
  readonly vary: string;
  /** Such as 404 where the view has no such thing, 409 where it is known no more what changed, which the document then says. */
  readonly status: number;
  /** The one tag that it has in every encoding, which then is but one; left out where it follows from the bytes. */
  readonly tag?: string;
  /** What the reader knows who has it; see DavAnswer. */
  readonly learns: DavAnswer['learns'];
  /** Instant of the revision, in whole seconds, where the bytes follow from it alone; else null. */
  readonly dated: Instant | null;
}
