import { FORMS, fileNameOf, type FormName } from '@zonal/core/forms';
import type { OutwardView } from '@zonal/core/glass';
import { Problem } from '@zonal/core/problems';
import type { Revision } from '@zonal/core/reach';
import type { Sequelize } from 'sequelize';
import type { LoggedChange } from '../db/changes';
import type { ChangeNews } from '../http/changeStream';
import { log } from '../log';
import { addressesOf } from '../windows/windowStore';
import { Compiler, type KeyPlace, type OpenWindow, type Outside, type Trouble } from './compiler';
import { makeDocument, type Document } from './document';

/**
 * What stands behind a key: a view of an open window, one that is not worked out yet, one that could not be, a closed
 * window, a key that has ended, or nothing that can be vouched for, as the store was not heard for too long.
 */
export type Door =
  | { readonly state: 'open'; readonly shown: Shown; readonly keyId: string }
  | { readonly state: 'waiting' | 'stopped' | 'closed' | 'expired' | 'unheard' };

/** A view as it is shown now. It is never changed, only replaced. */
export interface Shown {
  readonly view: OutwardView;
  readonly revision: Revision;
  readonly listed: boolean;
  /** Steady forms ready to be sent, by key and form; each is made when it is first asked for. */
  readonly documents: Map<string, Document>;
}

export interface PublisherOptions {
  /** Is told what changed inside, once it acts outside. */
  readonly tell?: (news: ChangeNews) => void;
  readonly clock?: () => number;
  /** For how long, in milliseconds, what was last known is served without hearing the store. */
  readonly unheard?: number;
}

const TEN_MINUTES = 600_000;

/**
 * Holds everything that can be fetched from outside in memory, and keeps it in step with the log of changes. What is
 * shown stays as it is while the store is away, for a time.
 */
export class Publisher implements Outside {
  private readonly compiler: Compiler;
  private readonly windows = new Map<string, OpenWindow>();
  private readonly keys = new Map<string, KeyPlace & { readonly windowId: string }>();
  private readonly shown = new Map<string, Shown>();
  private readonly stopped = new Map<string, Trouble>();
  /** Windows that show nothing until a change is taken in, with its number. */
  private readonly suspended = new Map<string, number>();
  private readonly tell: (news: ChangeNews) => void;
  private readonly clock: () => number;
  private readonly unheard: number;
  private heardAt = 0;
  private running: Promise<void> = Promise.resolve();

  constructor(
    sequelize: Sequelize,
    private readonly publicUrl: string,
    { tell = () => undefined, clock = Date.now, unheard = TEN_MINUTES }: PublisherOptions = {},
  ) {
    this.tell = tell;
    this.clock = clock;
    this.unheard = unheard;
    this.compiler = new Compiler(sequelize, this, clock);
  }

  /** Reads all windows, and shows what was worked out before; catchUp brings it up to date. */
  async start(): Promise<void> {
    await this.compiler.start();
    this.heardAt = this.clock();
  }

  /** The last change that acts outside in this process. */
  get taken(): number {
    return this.compiler.taken;
  }

  /** When the store was last heard, and until when what was known then is served. */
  get hearing(): { readonly at: number; readonly until: number } {
    return { at: this.heardAt, until: this.heardAt + this.unheard };
  }

  /** What cannot be worked out just now, by window. */
  get troubles(): ReadonlyMap<string, Trouble> {
    return this.stopped;
  }

  /** Returns what stands behind a key, or null when there is no such key. */
  door(token: string): Door | null {
    const place = this.keys.get(token);
    const window = place && this.windows.get(place.windowId);
    if (!place || !window) return null;
    if (window.closed) return { state: 'closed' };
    const now = this.clock();
    if (now >= place.expiresAt) return { state: 'expired' };
    if (now > this.heardAt + this.unheard) return { state: 'unheard' };
    if (this.taken < (this.suspended.get(window.id) ?? 0)) return { state: 'stopped' };
    const shown = this.shown.get(place.viewId);
    if (shown) return { state: 'open', shown, keyId: place.keyId };
    return { state: this.stopped.has(place.windowId) ? 'stopped' : 'waiting' };
  }

  /** Returns a form's document that is ready, or undefined. */
  ready(shown: Shown, token: string, form: FormName): Document | undefined {
    return shown.documents.get(`${form}|${token}`);
  }

  /** Makes a form's document; steady ones are kept with what is shown. */
  async document(shown: Shown, token: string, form: FormName): Promise<Document> {
    const known = this.ready(shown, token, form);
    if (known) return known;
    const { contentType, steady, dated, write } = FORMS[form];
    const now = this.clock();
    const text = write(shown.view, shown.revision, { addresses: addressesOf(this.publicUrl, token), now });
    const place = form === 'copy' ? 'attachment' : 'inline';
    const document = await makeDocument(
      text,
      `r${shown.revision.number}`,
      {
        'Content-Type': contentType,
        'Content-Disposition': `${place}; filename="${fileNameOf(form, shown.view, now)}"`,
        ...(steady ? { 'Last-Modified': new Date(shown.revision.at).toUTCString() } : {}),
        ...robots(shown.listed),
      },
      dated ? shown.revision.at : null,
    );
    if (steady) shown.documents.set(`${form}|${token}`, document);
    return document;
  }

  /** Returns the entries of a calendar, as far as changes were taken in. */
  entriesOf(calendarId: string) {
    return this.compiler.entriesOf(calendarId);
  }

  /** Takes in all changes since the last time; calls are worked off one after the other. Never throws. */
  catchUp(): Promise<void> {
    return this.hear().catch((error: unknown) =>
      log.warn({ err: error }, 'changes could not be taken in; trying again later'),
    );
  }

  private hear(): Promise<void> {
    const next = this.running.then(async () => {
      const asked = this.clock();
      await this.compiler.catchUp();
      this.heardAt = asked;
    });
    this.running = next.catch(() => undefined);
    return next;
  }

  /**
   * Waits until a change acts outside in this process. Throws `outside-stopped` where readers get nothing now, as what
   * they were to get could not be worked out, and `outside-unsure` where the change is stored but could not be taken in:
   * then nothing that it concerns is served until it is.
   */
  async settle(change: LoggedChange): Promise<void> {
    if (!change.id) return;
    const concerned = () => [...this.windows.values()].filter((w) => concerns(change, w));
    const before = concerned();
    try {
      while (this.taken < change.id) await this.hear();
    } catch (error) {
      log.error({ err: error, changeId: change.id }, 'a change is stored and could not be taken in');
      for (const { id } of before) this.suspended.set(id, change.id);
      throw new Problem('outside-unsure');
    }
    // As it is now: the change may have opened a window, or closed one.
    const stopped = concerned().flatMap((w) => {
      const trouble = this.stopped.get(w.id);
      return !w.closed && trouble?.shows === 'nothing' ? [{ name: w.rules.wording.name, trouble }] : [];
    });
    if (!stopped.length) return;
    const windows = stopped.map((s) => `“${s.name}”`).join(', ');
    throw new Problem('outside-stopped', { windows, reason: stopped[0]!.trouble.reason });
  }

  /** Returns the instant at which the first of all windows gets to its next day; with no window it is Infinity. */
  nextTurn(): number {
    return this.compiler.nextTurn();
  }

  window(window: OpenWindow, keys: readonly KeyPlace[]): void {
    this.windows.set(window.id, window);
    for (const key of keys) this.keys.set(key.token, { ...key, windowId: window.id });
  }

  view(viewId: string, { view, revision, listed }: Omit<Shown, 'documents'>): void {
    const before = this.shown.get(viewId);
    const same = before?.revision === revision && before.view === view && before.listed === listed;
    if (!same) this.shown.set(viewId, { view, revision, listed, documents: new Map() });
  }

  drop(viewId: string): void {
    this.shown.delete(viewId);
  }

  trouble(windowId: string, trouble: Trouble | null): void {
    if (trouble) this.stopped.set(windowId, trouble);
    else this.stopped.delete(windowId);
  }

  news(news: ChangeNews): void {
    this.tell(news);
  }
}

function concerns({ calendarIds, windowIds }: LoggedChange, { id, rules }: OpenWindow): boolean {
  return windowIds.includes(id) || rules.sources.some((s) => calendarIds.includes(s.calendarId));
}

/** Pages and feeds that are not listed tell search engines so. */
export function robots(listed: boolean): Record<string, string> {
  return listed ? {} : { 'X-Robots-Tag': 'noindex, nofollow' };
}
