import type { BoardWindow, FormName } from '@zonal/core/forms';
import { keyState } from '@zonal/core/glass';
import { Problem, sentence } from '@zonal/core/problems';
import type { LoggedChange } from '../db/changes';
import type { Trouble } from '../glass/trouble';
import type { ChangeNews } from '@zonal/core/api';
import { log } from '../log';
import { ThreadUnavailable } from '../threads/thread';
import { DocumentShelf } from './documentShelf';
import type { Document } from './document';
import { NOTHING_HELD, type HeldRevision } from './syncToken';
import type {
  Compiling,
  DavOrder,
  EntryOrder,
  ImageOrder,
  KeyPlace,
  Outside,
  PageOrder,
  ShownView,
  Told,
  ToldOrder,
  WindowPlace,
} from './outside';

/**
 * What stands behind a key: a view of an open window, one that is not in memory yet, one that could not be worked out, a
 * closed window, a key that has ended, was withdrawn or turned, or nothing that can be vouched for, as the store was not
 * heard for too long.
 */
export type Door =
  | { readonly state: 'open'; readonly shown: ShownView; readonly place: KeyPlace }
  | { readonly state: 'closed'; readonly closing: WindowPlace['closing'] }
  | { readonly state: 'waiting' | 'stopped' | 'unheard' | KeyPlace['ends'] };

/** What stands behind an address, for those who are told of changes by it. */
export interface ShownAt {
  readonly viewId: string;
  readonly number: number;
  readonly keyId: string;
  readonly windowId: string;
}

/** What is told, and of which view. */
export type ToldAt = Told & { readonly viewId: string };

export type OpenDoor = Extract<Door, { state: 'open' }>;

type Make = (door: OpenDoor, now: number) => Promise<Document | null>;

export interface PublisherOptions {
  /** Is told what changed inside, once it acts outside. */
  readonly tell?: (news: ChangeNews) => void;
  readonly clock?: () => number;
  /** A clock in milliseconds that never jumps; by it the time without the database is measured. */
  readonly elapsed?: () => number;
  /** Whether this process may answer readers at all now (default: always). */
  readonly mayServe?: () => boolean;
  /** How long, in milliseconds, the last known state is served without hearing the database. */
  readonly unheard?: number;
  /** Bytes that documents may take in memory, more or less. */
  readonly room?: number;
}

const TEN_MINUTES = 600_000;
const MEGABYTE = 1024 * 1024;
/** So often a document is asked for again where what is shown changed meanwhile. */
const TRIES = 4;
/** Pages tell of days and clocks: they are written anew every quarter of an hour, where all zones' days begin. */
const QUARTER = 900_000;

/**
 * Knows what stands behind each key, and holds the documents that were asked for. It works nothing out: that is another
 * thread's work, which says what is to be shown. What is shown stays as it is while the store is away, for a time.
 */
export class Publisher implements Outside {
  private readonly compiling: Compiling;
  private readonly places = new Map<string, WindowPlace>();
  private readonly keys = new Map<string, KeyPlace & { readonly windowId: string }>();
  /** By id of the window: what leads to it. */
  private readonly tokens = new Map<string, readonly string[]>();
  private readonly listed = new Map<string, BoardWindow>();
  private listings = 0;
  private readonly shown = new Map<string, ShownView>();
  private readonly stopped = new Map<string, Trouble>();
  /** Windows that show nothing until a change is taken in, with its number. */
  private readonly suspended = new Map<string, number>();
  private readonly shelf: DocumentShelf;
  private readonly tell: (news: ChangeNews) => void;
  private readonly clock: () => number;
  private readonly elapsed: () => number;
  private readonly unheard: number;
  private readonly mayServe: () => boolean;
  private last = 0;
  private turnAt = Infinity;
  /** When the database was last heard: on the wall clock, and on the one that never jumps. */
  private heardAt = 0;
  private heard = -Infinity;
  private running: Promise<void> = Promise.resolve();

  constructor(
    compilingFor: (outside: Outside) => Compiling,
    {
      tell = () => undefined,
      clock = () => Date.now(),
      elapsed = () => performance.now(),
      unheard = TEN_MINUTES,
      mayServe = () => true,
      room = 256 * MEGABYTE,
    }: PublisherOptions = {},
  ) {
    this.tell = tell;
    this.clock = clock;
    this.elapsed = elapsed;
    this.unheard = unheard;
    this.mayServe = mayServe;
    this.compiling = compilingFor(this);
    this.shelf = new DocumentShelf(this.compiling, room);
  }

  /** Learns which windows there are; what was worked out before can be shown at once, catchUp brings it up to date. */
  async start(): Promise<void> {
    const began = this.elapsed();
    await this.compiling.start();
    this.heardAt = this.clock();
    this.heard = began;
  }

  /** The last change that acts outside in this process. */
  get taken(): number {
    return this.last;
  }

  /** For how many milliseconds the database has not been heard, and when it last was. */
  get hearing(): { readonly at: number; readonly silence: number } {
    return { at: this.heardAt, silence: this.elapsed() - this.heard };
  }

  /** Whether what is known here may be served: the process has caught up, and the database was heard not too long ago. */
  get canVouch(): boolean {
    return this.mayServe() && this.elapsed() <= this.heard + this.unheard;
  }

  /** What cannot be worked out just now, by window. */
  get troubles(): ReadonlyMap<string, Trouble> {
    return this.stopped;
  }

  /** The instant at which the first of all windows gets to its next day; with no window it is Infinity. */
  get nextTurn(): number {
    return this.turnAt;
  }

  /** Returns what stands behind a key, or null when there is no such key. */
  door(token: string): Door | null {
    if (!this.canVouch) return { state: 'unheard' };
    const place = this.keys.get(token);
    const window = place && this.places.get(place.windowId);
    if (!place || !window) return null;
    const now = this.clock();
    if (isClosed(window, now)) return { state: 'closed', closing: window.closing };
    if (keyState(place, now) === 'ended') return { state: place.ends };
    if (this.last < (this.suspended.get(window.id) ?? 0)) return { state: 'stopped' };
    const shown = this.shown.get(place.viewId);
    if (shown) return { state: 'open', shown, place };
    return { state: this.stopped.get(place.windowId)?.shows === 'nothing' ? 'stopped' : 'waiting' };
  }

  /** Returns what the window behind a key is called, or null. */
  nameOf(token: string): string | null {
    return this.places.get(this.keys.get(token)?.windowId ?? '')?.name ?? null;
  }

  /** Listed windows as everybody may know of them, and a number that is another one whenever they may have changed. */
  get board(): { readonly windows: readonly BoardWindow[]; readonly version: string } {
    const now = this.clock();
    const windows = [...this.listed].flatMap(([id, window]) =>
      isClosed(this.places.get(id)!, now) ? [] : [window],
    );
    return { windows, version: `${this.listings}|${windows.length}` };
  }

  /** Returns the origins that may hold the embed of a key; none for all. */
  hostsOf(token: string): readonly string[] {
    return this.keys.get(token)?.hosts ?? [];
  }

  /** Returns what stands behind a key once what was worked out of it is fetched from the store. */
  async opened(token: string): Promise<Door | null> {
    const door = this.door(token);
    const viewId = this.keys.get(token)?.viewId;
    // Of a window in trouble some views can be shown.
    if ((door?.state !== 'waiting' && door?.state !== 'stopped') || viewId === undefined) return door;
    await this.compiling.bring(viewId).catch(noted);
    return this.door(token);
  }

  /** Returns a form's document that is ready, or undefined. */
  ready(shown: ShownView, place: KeyPlace, form: FormName): Document | undefined {
    return this.shelf.ready(shown, place, form);
  }

  /** Returns a form's document of what is shown behind a key, or null when nothing is. */
  document(token: string, form: FormName): Promise<Document | null> {
    return this.served(token, ({ shown, place }, now) => this.shelf.form(shown, place, form, now));
  }

  /** Returns a page of what is shown behind a key, or null when nothing is. */
  page(token: string, page: PageOrder): Promise<Document | null> {
    return this.served(token, ({ shown, place }, now) => {
      // It says as of when it is true, which is no later than the store was heard.
      const asOf = Math.floor(Math.min(now, this.heardAt) / QUARTER) * QUARTER;
      // What the address says goes before what is held with the key.
      const query = page.form === 'embed' ? { ...place.look, ...page.query } : page.query;
      return this.shelf.page(shown, place, { ...page, query }, asOf);
    });
  }

  /** Returns a file with one entry of what is shown behind a key, or null when nothing is. */
  entry(token: string, entry: EntryOrder): Promise<Document | null> {
    return this.served(token, ({ shown, place }, now) => this.shelf.entry(shown, place, entry, now));
  }

  /** Returns the image of an entry that is shown behind a key, or null when nothing is. */
  image(token: string, image: ImageOrder): Promise<Document | null> {
    return this.served(token, ({ shown, place }, now) => this.shelf.image(shown, place, image, now));
  }

  /**
   * Returns what changed behind a key after a revision of a view, or that it is not known: any more, or as the key shows
   * another view by now. Null when nothing is shown.
   */
  difference(token: string, viewId: string, held: HeldRevision): Promise<Document | null> {
    return this.served(token, ({ shown, place }, now) => {
      const { number: since, fingerprint } = shown.viewId === viewId ? held : NOTHING_HELD;
      return this.shelf.difference(shown, place, { since, fingerprint }, now);
    });
  }

  /** Returns what is answered to a program that asks something of a window as a collection, or null when nothing is shown. */
  dav(token: string, asked: DavOrder): Promise<Document | null> {
    return this.served(token, ({ shown, place }, now) => this.shelf.dav(shown, place, asked, now));
  }

  /** Returns which view stands behind a key, and its newest revision; null where nothing is shown. */
  async shownAt(token: string): Promise<ShownAt | null> {
    const door = await this.opened(token);
    if (door?.state !== 'open') return null;
    const { viewId, number } = door.shown;
    return { viewId, number, keyId: door.place.keyId, windowId: this.keys.get(token)!.windowId };
  }

  /** Returns what somebody is told who does not look by themselves, or null when nothing is shown. */
  async told(token: string, viewId: string | null, asked: ToldOrder): Promise<ToldAt | null> {
    let view = '';
    const document = await this.made(token, ({ shown, place }, now) => {
      view = shown.viewId;
      const known = view === viewId;
      return this.shelf.told(
        shown,
        place,
        'since' in asked && !known ? { ...asked, since: null } : asked,
        now,
      );
    });
    if (!document) return null;
    const text = Buffer.concat(document.identity.pieces).toString();
    return { ...(JSON.parse(text) as Told), viewId: view };
  }

  /** As {@link made}, for readers: while the compiler is started again they are asked to come back. */
  private async served(token: string, make: Make): Promise<Document | null> {
    try {
      return await this.made(token, make);
    } catch (error) {
      if (error instanceof ThreadUnavailable) return null;
      throw error;
    }
  }

  /** What is shown may be another thing by the time that it is written: then it is written again. */
  private async made(token: string, make: Make): Promise<Document | null> {
    for (let i = 0; i < TRIES; i++) {
      const door = await this.opened(token);
      if (door?.state !== 'open') return null;
      const document = await make(door, this.clock());
      const now = this.door(token);
      if (now?.state !== 'open') return null;
      if (document && now.shown === door.shown && now.place === door.place) return document;
    }
    return null;
  }

  /** Applies all changes since the last time, one call after the other; returns whether it could. Never throws. */
  async catchUp(): Promise<boolean> {
    try {
      await this.hear();
      return true;
    } catch (error) {
      log.warn({ err: error }, 'changes could not be applied; trying again later');
      return false;
    }
  }

  /** Has done what can wait, such as turns of the day. Never throws. */
  async rest(): Promise<void> {
    try {
      await this.compiling.rest();
      this.turnAt = await this.compiling.nextTurn();
    } catch (error) {
      log.warn({ err: error }, 'what can wait could not be done; trying again later');
    }
  }

  private hear(): Promise<void> {
    const next = this.running.then(async () => {
      const [asked, askedAt] = [this.elapsed(), this.clock()];
      this.last = await this.compiling.catchUp();
      this.heard = asked;
      this.heardAt = askedAt;
    });
    this.running = next.catch(() => undefined);
    return next;
  }

  /**
   * Waits until a change acts outside in this process. Throws `outside-stopped` where readers get nothing now, as what
   * they were to get could not be worked out, and `outside-unsure` where the change is stored but could not be taken in:
   * then, if it takes anything away, nothing that it concerns is served until it is.
   */
  async settle(change: LoggedChange): Promise<void> {
    if (!change.id) return;
    const concerned = () => [...this.places.values()].filter((w) => concerns(change, w));
    const before = concerned();
    try {
      while (this.last < change.id) await this.hear();
    } catch (error) {
      log.error({ err: error, changeId: change.id }, 'a change is stored and could not be applied');
      // If it takes nothing away, the last good state stays.
      if (change.takesAway) for (const { id } of before) this.suspended.set(id, change.id);
      throw new Problem('outside-unsure');
    }
    // As it is now: the change may have opened a window, or closed one.
    const stopped = concerned().flatMap((w) => {
      const trouble = this.stopped.get(w.id);
      return !w.closed && trouble?.shows === 'nothing' ? [{ name: w.name, trouble }] : [];
    });
    if (!stopped.length) return;
    const windows = stopped.map((s) => `“${s.name}”`).join(', ');
    const { code, details } = stopped[0]!.trouble.problem;
    const reason = sentence(code, details);
    throw new Problem('outside-stopped', { windows, reason });
  }

  begin(): void {
    this.shown.clear();
    this.stopped.clear();
  }

  windows(places: readonly { readonly window: WindowPlace; readonly keys: readonly KeyPlace[] }[]): void {
    for (const { window, keys } of places) {
      this.places.set(window.id, window);
      // What leads to it no more, such as its name once it is not listed, leads nowhere.
      for (const token of this.tokens.get(window.id) ?? []) this.keys.delete(token);
      for (const key of keys) this.keys.set(key.token, { ...key, windowId: window.id });
      this.tokens.set(
        window.id,
        keys.map((k) => k.token),
      );
      if (window.board) this.listed.set(window.id, window.board);
      else this.listed.delete(window.id);
    }
    this.listings++;
  }

  view(shown: ShownView): void {
    const before = this.shown.get(shown.viewId);
    const { number, fingerprint, listed, day } = shown;
    const same =
      before?.number === number &&
      before.fingerprint === fingerprint &&
      before.listed === listed &&
      before.day === day;
    if (!same) this.shown.set(shown.viewId, shown);
  }

  drop(viewIds: readonly string[]): void {
    for (const id of viewIds) this.shown.delete(id);
  }

  trouble(windowId: string, trouble: Trouble | null): void {
    if (trouble) this.stopped.set(windowId, trouble);
    else this.stopped.delete(windowId);
  }

  news(news: ChangeNews): void {
    this.tell(news);
  }

  async close(): Promise<void> {
    await this.compiling.close();
  }
}

/** Whether a window is closed, by hand or as its time has come. */
function isClosed({ closed, closesAt }: WindowPlace, now: number): boolean {
  return closed || (closesAt !== null && now >= closesAt);
}

function concerns({ calendarIds, windowIds }: LoggedChange, { id, calendarIds: own }: WindowPlace): boolean {
  return windowIds.includes(id) || own.some((c) => calendarIds.includes(c));
}

function noted(error: unknown): void {
  log.warn({ err: error }, 'a view could not be fetched');
}
