import type { Entry } from '@zonal/core/entries';
import {
  endOf,
  outwardView,
  outwardWording,
  rangeOfHorizon,
  tellsAlike,
  type Reader,
  type WindowRules,
} from '@zonal/core/glass';
import { Problem } from '@zonal/core/problems';
import { fingerprintOf, nextRevision } from '@zonal/core/reach';
import { DAY, instantOf, type Instant, dayAt } from '@zonal/core/zones';
import { LRUCache } from 'lru-cache';
import PQueue from 'p-queue';
import { Op, type Sequelize, type Transaction } from 'sequelize';
import { groupedBy } from '../db/grouped';
import { readSnapshot } from '../db/snapshot';
import {
  ChangeRow,
  KeyRow,
  MailSettingsRow,
  TurnedTokenRow,
  ViewRow,
  WindowRow,
  type OpenReader,
  type WindowState,
} from '../db/models';
import { log } from '../log';
import type { Trouble } from '../glass/trouble';
import { addressesOf } from '../glass/addresses';
import { EVERYBODY, openReaders, viewIdOf, windowStates } from '../glass/windowStore';
import { publicPlace, placesOfKey } from './keyPlaces';
import { Material, type EntryChange } from './material';
import type {
  Compiling,
  DocumentOrder,
  Farewell,
  KeyPlace,
  Order,
  Outside,
  WindowPlace,
  Written,
} from './outside';
import { LiveViews, readerOf, type LiveView } from './liveViews';
import { firstMentions, oldestChange, stateBefore, touchesSince } from './replay';
import {
  PROGRAM,
  loadView,
  storeBasis,
  storeClosed,
  storeRevision,
  type Basis,
  type Cause,
  type StoredView,
} from './viewStore';
import { imageDocument, imageNames } from './imageDocument';
import { imageBytes } from '../db/imageModel';
import { noticeOf, toldDocument } from './renderDocument';
import { Renderer, type RenderRequest, type Rendering } from './renderer';
import { memoOf, weightOf, type State } from './viewState';
import { writeTold } from './writeTold';

export interface CompilerOptions {
  readonly sequelize: Sequelize;
  readonly publicUrl: string;
  readonly clock?: () => number;
  /** The hub that is told when a listed window changes (WebSub), or empty. */
  readonly hub?: string;
  /** Whether the process was started with a mail server; the house may have set one too. */
  readonly mails?: boolean;
  /** Bytes that views and material may take in memory, more or less. */
  readonly room?: number;
  /** Renders documents (default: in this thread). */
  readonly rendering?: Rendering;
  /** Is called if the database no longer has a change that was applied here: nothing in memory is right any more. */
  readonly onDatabaseReplaced?: () => void;
}

interface OpenWindow extends Omit<WindowState, 'rules'> {
  readonly rules: WindowRules;
  readonly columns: Columns;
}

/** Window columns that the change log does not carry. */
const COLUMNS = [
  ...(['secret', 'slug', 'createdAt', 'listedAt', 'closesAt', 'farewellAt'] as const),
  ...(['unlistedAt', 'publicUntil'] as const),
] as const;
type Columns = Pick<WindowRow, (typeof COLUMNS)[number]>;

/** What the database said of a view at the start. */
interface StoredBasis extends Basis {
  readonly id: string;
  readonly windowId: string;
  readonly madeBy: string;
  readonly open: boolean;
}

/** How often a view is compiled again because another process stored a revision meanwhile. */
const MAX_TRIES = 10;
/** A view that was away longer is worked out as of its last day only. */
const MOST_DAYS = 400;
/** The store is told of a view that no change concerned once it is so many changes on. */
const CHANGES_BEHIND = 1000;
const MEGABYTE = 1024 * 1024;
const ROWS = 200;
/** So often, in milliseconds, it is asked whether there is a mail server. */
const MAIL_ASKED = 10_000;
/** A change that is younger than this is in the log, whatever was dropped from it. */
const SURELY_LOGGED_MS = 7 * DAY;
/** The log goes before what readers ask for: nobody can hold up a withdrawal by asking. What can wait goes last. */
const [LOG, ASKED, REST] = [2, 1, 0];

type By = Pick<Cause, 'userId'> | null;

/**
 * Works out what can be seen from outside, change by change, from the log: what is seen and when it is said to have
 * changed depends on the log alone, and not on when somebody came to look at it. Each window is worked out by itself;
 * what was not looked at for long is not in memory, but in the store.
 */
export class Compiler implements Compiling {
  private readonly sequelize: Sequelize;
  private readonly publicUrl: string;
  private readonly clock: () => number;
  private readonly mails: boolean;
  private readonly hub: string;
  private readonly material: Material;
  private readonly states: LRUCache<string, State>;
  private readonly windows = new Map<string, OpenWindow>();
  private readonly views = new LiveViews();
  /** By id of the view. */
  private readonly troubles = new Map<string, Trouble>();
  private readonly rendering: Rendering;
  private readonly queue = new PQueue({ concurrency: 1 });
  /** The last change that was taken in, and the last one when this began: what is shown is never older. */
  private cursor = 0;
  private begun = 0;
  /** What the change that is being taken in did to entries, in case it has to be begun again. */
  private applied: { readonly id: number; readonly changes: readonly EntryChange[] } | null = null;
  private resting: Promise<void> | null = null;
  private closing = false;
  private mail = { known: false, askedAt: -Infinity };
  /** When the change at the cursor was made, as the log says; null if it is not known. */
  private cursorAt: Instant | null = null;
  private readonly onDatabaseReplaced: () => void;
  /** Changes that were read and not taken in yet. */
  private waiting: ChangeRow[] = [];
  /** Views that changes concerned since the store was told what they take into account. */
  private readonly concerned = new Set<LiveView>();
  /** Views that are not marked as closed in the database yet, with the change as of which they are closed. */
  private readonly closedAt = new Map<string, number>();
  /** The bases that were stored at the start, by id of the view. */
  private bases = new Map<string, StoredBasis>();

  constructor(
    private readonly outside: Outside,
    {
      sequelize,
      publicUrl,
      clock = Date.now,
      room = 512 * MEGABYTE,
      mails = false,
      hub = '',
      rendering = new Renderer(room / 4),
      onDatabaseReplaced = () => undefined,
    }: CompilerOptions,
  ) {
    this.sequelize = sequelize;
    this.publicUrl = publicUrl;
    this.clock = clock;
    this.mails = mails;
    this.hub = hub;
    this.onDatabaseReplaced = onDatabaseReplaced;
    this.rendering = rendering;
    const forMaterial = Math.ceil(room / 5);
    this.material = new Material(forMaterial);
    this.states = new LRUCache({ maxSize: room - forMaterial, sizeCalculation: weightOf });
  }

  async start(): Promise<void> {
    const places = await readSnapshot(this.sequelize, async (transaction) => {
      this.begun = Number((await ChangeRow.max('id', { transaction })) ?? 0);
      this.mail = { known: (await MailSettingsRow.count({ transaction })) > 0, askedAt: this.clock() };
      const now = await windowStates(null, transaction);
      const attributes = ['id', ...COLUMNS];
      const rows = await WindowRow.unscoped().findAll({ attributes, raw: true, transaction });
      const rowById = new Map(rows.map((r) => [r.id, r]));
      for (const state of now) this.setWindow(state, rowById.get(state.id)!);
      const keys = groupedBy(await KeyRow.findAll({ raw: true, transaction }), (k) => k.windowId);
      const turned = await TurnedTokenRow.findAll({ raw: true, transaction });
      const known = [...this.windows.values()].map((w) =>
        placeOf(w, this.keyPlaces(w, keys.get(w.id) ?? [], turned), this.publicUrl),
      );
      const attributesOfBasis = ['id', 'windowId', 'changeId', 'day', 'madeBy', 'open'];
      const bases = await ViewRow.findAll({ attributes: attributesOfBasis, raw: true, transaction });
      this.bases = new Map(bases.map((row) => [row.id, { ...row, changeId: Number(row.changeId) }]));
      for (const state of now) this.openViews(state, state.readers ?? []);
      this.cursor = await this.rewind(now, transaction);
      for (const { id, open } of this.bases.values())
        if (open && !this.views.has(id)) this.closedAt.set(id, this.begun);
      return known;
    });
    await this.outside.begin();
    for (let i = 0; i < places.length; i += ROWS) await this.outside.windows(places.slice(i, i + ROWS));
  }

  /**
   * Returns the change from which on the log has to be applied again for the view that is furthest behind, and brings the
   * windows into the state that they were in then, with the views that were open then. `now` is their present state.
   */
  private async rewind(now: readonly WindowState[], transaction: Transaction): Promise<number> {
    const store = { sequelize: this.sequelize, transaction };
    // Views that are closed by now, and that nobody has marked so, were open when the log was last applied.
    for (const { id, windowId, open } of this.bases.values())
      if (open && !this.views.has(id) && this.windows.has(windowId)) this.addView(windowId, readerOf(id), 0);
    const openOnly = (state: WindowState, readers: readonly OpenReader[]) => {
      for (const { id } of this.openViews(state, readers)) this.views.delete(id);
    };
    const fresh = [...this.views.values()].filter((v) => !v.known);
    // A view that was never compiled begins when its window was opened, if the log still says so.
    const opened = await firstMentions(store, [...new Set(fresh.map((v) => v.windowId))]);
    for (const view of fresh) {
      const first = this.bases.has(view.id) ? undefined : opened.get(view.windowId);
      if (first !== undefined) view.basis = { ...view.basis, changeId: first - 1 };
    }
    const oldest = (await oldestChange(store)) ?? this.begun + 1;
    for (const view of this.views.values()) {
      if (view.basis.changeId >= oldest - 1) continue;
      // The log no longer says what happened since.
      view.known = false;
      view.basis = { ...view.basis, changeId: -1 };
    }
    const begun = [...this.views.values()].filter((v) => v.basis.changeId >= 0);
    const furthest = begun.reduce((least, { basis }) => Math.min(least, basis.changeId), this.begun);
    const touches = await touchesSince(store, furthest);
    const ruled = new Map<string, number>();
    for (const { id, windowIds } of touches) for (const windowId of windowIds) ruled.set(windowId, id);
    let from = this.begun;
    for (const view of begun) {
      // By the rules of then it may have been another change that concerned it first.
      if ((ruled.get(view.windowId) ?? 0) <= view.basis.changeId) {
        const own = this.windows.get(view.windowId)!;
        const first = touches.find((t) => t.id > view.basis.changeId && takesAny(own, t.calendarIds));
        view.basis = { ...view.basis, changeId: (first?.id ?? this.begun + 1) - 1 };
      }
      from = Math.min(from, view.basis.changeId);
    }
    for (const state of now) {
      if ((ruled.get(state.id) ?? 0) <= from) {
        openOnly(state, state.readers ?? []);
        continue;
      }
      const then = await stateBefore(store, state.id, from);
      if (then) {
        this.setWindow(then, this.windows.get(state.id)!.columns);
        openOnly(then, then.readers ?? state.readers ?? []);
      }
      // It was not open yet: it is when the log comes to it.
      else if (opened.has(state.id) || (await firstMentions(store, [state.id])).has(state.id)) {
        this.windows.delete(state.id);
        openOnly(state, []);
      }
    }
    return from;
  }

  async catchUp(): Promise<number> {
    while (await this.queue.add(() => this.takeNext(), { priority: LOG })) {
      // One change after the other.
    }
    // Only needed while the log is applied again.
    this.bases.clear();
    return this.cursor;
  }

  /** Takes in the next change; returns false when there is none. */
  private async takeNext(): Promise<boolean> {
    while (this.waiting.length && this.waiting[0]!.id <= this.cursor) this.waiting.shift();
    if (!this.waiting.length)
      this.waiting = await ChangeRow.findAll({
        where: { id: { [Op.gt]: this.cursor } },
        order: [['id', 'ASC']],
        limit: ROWS,
      });
    const [row] = this.waiting;
    if (row) await this.take(row);
    else await this.requireSameDatabase();
    return row !== undefined;
  }

  /**
   * Throws if the change that was applied last is not in the log: the database was replaced by an older state of it, by a restored
   * back-up or a fail-over, and numbers of changes will come again with other contents.
   */
  private async requireSameDatabase(): Promise<void> {
    const row = await ChangeRow.findByPk(this.cursor, { attributes: ['createdAt'], raw: true });
    const at = row ? row.createdAt.getTime() : null;
    const isGone = at === null && this.cursorAt !== null && this.clock() - this.cursorAt < SURELY_LOGGED_MS;
    if (isGone || (at !== null && this.cursorAt !== null && at !== this.cursorAt)) {
      log.error(
        { changeId: this.cursor },
        'the database was replaced by an older state; everything is read again',
      );
      this.onDatabaseReplaced();
      throw new Error('The database no longer has a change that was applied.');
    }
    this.cursorAt = at;
  }

  rest(): Promise<void> {
    this.resting ??= this.restAll().finally(() => (this.resting = null));
    return this.resting;
  }

  private async restAll(): Promise<void> {
    for (const view of [...this.views.values()])
      if (!this.closing && this.hasRest(view))
        await this.queue.add(() => this.restOf(view), { priority: REST });
    await this.queue.add(() => this.noteBases(), { priority: REST });
  }

  /** Closes the views that no address leads to since before an instant, after the days until then have been applied. */
  private async closeEnded(windowIds: ReadonlySet<string>, at: Instant): Promise<void> {
    for (const view of [...this.views.values()]) {
      if (view.openUntil > at || !windowIds.has(view.windowId)) continue;
      const window = this.windows.get(view.windowId);
      if (window && view.known) await this.turn(view, window, view.openUntil - 1);
      await this.closeView(view);
    }
  }

  private async closeView(view: LiveView): Promise<void> {
    this.views.delete(view.id);
    this.states.delete(view.id);
    this.bases.delete(view.id);
    this.concerned.delete(view);
    this.closedAt.set(view.id, Math.max(this.cursor, view.basis.changeId));
    await this.outside.drop([view.id]);
    if (this.troubles.delete(view.id)) await this.tellTrouble(view.windowId);
  }

  private hasRest(view: LiveView): boolean {
    const window = this.windows.get(view.windowId);
    if (!window || window.closed) return false;
    if (!view.known) return !this.troubles.has(view.id);
    const now = this.clock();
    return view.openUntil <= now || view.unsure || dayAt(window.rules.hostZone, now) !== view.basis.day;
  }

  private async restOf(view: LiveView): Promise<void> {
    const window = this.windows.get(view.windowId);
    if (!window || window.closed || this.views.get(view.id) !== view) return;
    const now = this.clock();
    if (view.openUntil <= now) return this.closeEnded(new Set([view.windowId]), now);
    this.concerned.add(view);
    if (!view.known && !this.troubles.has(view.id)) {
      const day = dayAt(window.rules.hostZone, now);
      await this.work(view, { changeId: this.cursor, day }, window.columns.createdAt.getTime(), null);
    }
    // Days follow the clock, also back.
    const today = dayAt(window.rules.hostZone, now);
    if (today < view.basis.day) await this.work(view, { ...view.basis, day: today }, now, null, true);
    await this.turn(view, window, now);
    const state = view.unsure && view.known ? await this.stateOf(view) : null;
    view.unsure = false;
    if (state) {
      await this.work(view, view.basis, state.revision.at, null);
      if (!this.troubles.has(view.id)) await this.note([view]);
    }
  }

  async nextTurn(): Promise<Instant> {
    const now = this.clock();
    const zones = new Set<string>();
    for (const { closed, rules } of this.windows.values()) if (!closed) zones.add(rules.hostZone);
    return Math.min(...[...zones].map((zone) => dayStart(zone, dayAt(zone, now) + 1)));
  }

  async bring(viewId: string): Promise<void> {
    await this.queue.add(() => this.bringNow(viewId), { priority: ASKED });
  }

  private async bringNow(viewId: string): Promise<void> {
    const view = this.views.get(viewId);
    if (!view || !this.windows.get(view.windowId)) return;
    if (!view.known && this.cursor >= this.begun) await this.restOf(view);
    else await this.show(view, await this.stateOf(view, true));
  }

  async write(order: Order): Promise<Written | null> {
    if (order.form === 'told') return this.writeTold(order);
    if (order.form === 'image') return this.writeImage(order);
    const shown = await this.queue.add(() => this.toRender(order), { priority: ASKED });
    // Changes do not wait for it: the thread that sends the document checks that it is still to be shown.
    return shown ? this.rendering.render(shown.request, shown.state) : null;
  }

  /** What was shown before is looked up in the store, which changes do not wait for. */
  private async writeTold(order: Extract<Order, { form: 'told' }>): Promise<Written | null> {
    const shown = await this.queue.add(() => this.toWrite(order), { priority: ASKED });
    if (!shown) return null;
    const { see } = addressesOf(this.publicUrl, order.token);
    const notice = noticeOf(order, this.publicUrl);
    return toldDocument(await writeTold(order, shown.state, { sequelize: this.sequelize, see, notice }));
  }

  /** Only an image of an entry that is shown is looked up. */
  private async writeImage(order: Extract<Order, { form: 'image' }>): Promise<Written | null> {
    const shown = await this.queue.add(() => this.toWrite(order), { priority: ASKED });
    if (!shown) return null;
    const isShown = imageNames(shown.state.view).has(order.name);
    return imageDocument(order.name, isShown ? await imageBytes(order.name) : null, {
      view: shown.state.view,
      isListed: this.isListed(shown),
    });
  }

  /** Returns what an order is about, or null where it is not the one to be shown any more. */
  private async toWrite(order: Order) {
    const view = this.views.get(order.viewId);
    const window = view && this.windows.get(view.windowId);
    if (!view || !window || !this.mayShow(view)) return null;
    const state = await this.stateOf(view, true);
    if (state && state.revision.number !== order.number) await this.show(view, state);
    return state?.revision.number === order.number ? { view, window, state } : null;
  }

  private async toRender(order: DocumentOrder): Promise<{ request: RenderRequest; state: State } | null> {
    const shown = await this.toWrite(order);
    if (!shown) return null;
    const { view, window, state } = shown;
    const listed = this.isListed(shown);
    const place = {
      publicUrl: this.publicUrl,
      asOf: dayStart(window.rules.hostZone, view.basis.day),
      listed: listed ? window.columns.slug : null,
      hub: this.hub,
      mayMail: this.mayMail(),
    };
    return { request: { order, place }, state };
  }

  /** Partners' pages are nobody's to find, also if the window is on the notice board. */
  private isListed({ view, window }: { view: LiveView; window: OpenWindow }): boolean {
    const { audience, cap } = view.reader;
    return window.listed && audience === EVERYBODY.audience && cap === EVERYBODY.cap;
  }

  /** Whether there is a mail server, as it was last known: nothing waits for the store to say so. */
  private mayMail(): boolean {
    const now = this.clock();
    if (!this.mails && now >= this.mail.askedAt + MAIL_ASKED) {
      this.mail = { ...this.mail, askedAt: now };
      MailSettingsRow.count().then(
        (count) => (this.mail = { ...this.mail, known: count > 0 }),
        () => undefined,
      );
    }
    return this.mails || this.mail.known;
  }

  async close(): Promise<void> {
    this.closing = true;
    await this.queue.onIdle();
    await this.rendering.close();
    for (const view of this.views.values()) this.concerned.add(view);
    await this.noteBases().catch((error: unknown) =>
      log.warn({ err: error }, 'what was taken in could not be noted'),
    );
  }

  private async take(row: ChangeRow): Promise<void> {
    const at = row.createdAt.getTime();
    const cause = { userId: row.userId };
    const ruled = new Set(row.windows.map((w) => w.id));
    const calendars = [...row.calendarIds, ...row.dropped];
    const concerned = () =>
      [...this.views.values()].filter(({ windowId, basis }) => {
        const window = this.windows.get(windowId);
        return window && basis.changeId < row.id && (ruled.has(windowId) || takesAny(window, calendars));
      });
    // Days that were over by then were over before it, and so were addresses that had ended.
    for (const view of concerned()) {
      const window = this.windows.get(view.windowId)!;
      if (!window.closed && view.known) await this.turn(view, window, at);
    }
    await this.closeEnded(new Set(concerned().map((view) => view.windowId)), at);
    if (this.applied?.id !== row.id) {
      const looked = new Set([...this.windows.values()].flatMap((w) => sourcesOf(w.rules)));
      const touched = row.calendarIds.filter((id) => looked.has(id) || this.material.has(id));
      const changes = row.edit ? await this.material.apply(this.sequelize, row.edit, touched) : [];
      this.applied = { id: row.id, changes };
    }
    const { changes } = this.applied;
    for (const state of row.windows) await this.takeWindow(state, row.id);
    for (const view of concerned()) {
      this.concerned.add(view);
      view.concern = row.id;
      const window = this.windows.get(view.windowId)!;
      const day = dayAt(window.rules.hostZone, at);
      const basis = { changeId: row.id, day: view.known ? Math.max(day, view.basis.day) : day };
      if (ruled.has(window.id) || row.dropped.some((id) => sourcesOf(window.rules).includes(id)))
        await this.work(view, basis, at, cause, true);
      else await this.takeEntries(view, window, changes, basis, at, cause);
    }
    for (const view of this.views.values())
      if (view.basis.changeId < row.id && view.known) view.basis = { ...view.basis, changeId: row.id };
    for (const id of row.dropped) this.material.drop(id);
    this.cursor = row.id;
    this.cursorAt = at;
    if (row.id <= this.begun) return;
    await this.outside.news({ calendarIds: calendars, windowIds: [...ruled] });
  }

  /** A change of entries, where it tells readers of the view anything at all. */
  private async takeEntries(
    view: LiveView,
    window: OpenWindow,
    changes: readonly EntryChange[],
    basis: Basis,
    at: Instant,
    cause: By,
  ): Promise<void> {
    const own = sourcesOf(window.rules);
    const [before, after] = (['before', 'after'] as const).map((side) =>
      changes.flatMap((c) => (c[side] && own.includes(c[side].calendarId) ? [c[side]] : [])),
    ) as [Entry[], Entry[]];
    const settled = view.known && !this.troubles.has(view.id);
    if (settled && !before.length && !after.length) {
      view.basis = basis;
      return;
    }
    const { rules } = window;
    try {
      const range = rangeOf(rules, basis.day);
      const memo = memoOf(this.states.peek(view.id), rules, range);
      if (settled && tellsAlike(before, after, rules, range, view.reader, memo)) {
        view.basis = basis;
        return;
      }
    } catch {
      // Working it out says what is wrong.
    }
    // What was there before may have been taken away; what only comes takes nothing.
    await this.work(view, basis, at, cause, before.length > 0);
  }

  /** The turns of the day up to an instant, each by itself, stamped with its midnight. */
  private async turn(view: LiveView, { rules }: OpenWindow, until: Instant): Promise<void> {
    const today = dayAt(rules.hostZone, Math.min(until, view.openUntil - 1));
    const first = Math.max(view.basis.day + 1, today - MOST_DAYS);
    for (let day = first; day <= today; day++) {
      // Another process has turned it meanwhile.
      if (day <= view.basis.day) continue;
      const basis = { ...view.basis, day };
      const stays = rules.horizon.kind === 'fixed' && !this.troubles.has(view.id);
      // What has left is told for some days.
      const leaves = stays && (await this.stateOf(view))?.revision.gone.length;
      if (stays && !leaves) view.basis = basis;
      else await this.work(view, basis, dayStart(rules.hostZone, day), null, true);
    }
  }

  /**
   * Works a view out and shows it. Where that fails, other windows go on; what `takesAway` stops being served, and
   * everything else stays as it was.
   */
  private async work(view: LiveView, basis: Basis, at: Instant, cause: By, takesAway = false): Promise<void> {
    const window = this.windows.get(view.windowId)!;
    try {
      const state = await this.workOut(view, window, basis, at, cause);
      if (this.troubles.delete(view.id)) await this.tellTrouble(window.id);
      await this.show(view, state);
    } catch (error) {
      if (!(error instanceof Problem) && !(error instanceof RangeError) && !(error instanceof TypeError))
        throw error;
      // What stopped being served stays so until it is worked out, whatever comes after.
      const stopped = takesAway || !view.known || this.troubles.get(view.id)?.shows === 'nothing';
      const shows = stopped ? 'nothing' : 'last';
      const problem = error instanceof Problem ? error : new Problem('window-uncomputable');
      const { code, details, message: reason } = problem;
      const trouble = {
        windowId: window.id,
        at: new Date(at).toISOString(),
        problem: { code, details },
        shows,
      } as const;
      this.troubles.set(view.id, trouble);
      if (stopped) await this.outside.drop([view.id]);
      await this.tellTrouble(window.id);
      view.basis = basis;
      log.error({ windowId: window.id, viewId: view.id, shows, reason }, 'a window could not be worked out');
    }
  }

  /** A window is in trouble where any view of it is; one that shows nothing is what is told of. */
  private async tellTrouble(windowId: string): Promise<void> {
    const all = [...this.troubles.values()].filter((t) => t.windowId === windowId);
    await this.outside.trouble(windowId, all.find((t) => t.shows === 'nothing') ?? all[0] ?? null);
  }

  private async workOut(
    view: LiveView,
    { rules, version }: OpenWindow,
    basis: Basis,
    at: Instant,
    cause: By,
  ): Promise<State | null> {
    for (let tries = 1; tries <= MAX_TRIES; tries++) {
      const before = await this.stateOf(view);
      // Another process is further on: what it has worked out stands until this one has taken in as much.
      const here = Math.max(this.cursor, this.applied?.id ?? 0);
      if (view.known && view.basis.changeId > Math.min(basis.changeId, here)) return before;
      const range = rangeOf(rules, basis.day);
      const entries = await this.entriesOf(rules, basis.changeId);
      const memo = memoOf(before, rules, range);
      const next = outwardView(entries, rules, range, view.reader, memo);
      const revision = nextRevision(before?.revision ?? null, next, at);
      if (revision !== before?.revision) {
        const told = { userId: cause?.userId ?? null, windowVersion: version };
        const stored = { view: next, revision, ...basis };
        if (!(await storeRevision(this.sequelize, view, before, stored, told))) {
          // Another process was first. What it stored is as much, or it is where this one goes on.
          this.states.delete(view.id);
          const stored = await this.stateOf(view);
          if (view.known && covers(view.basis, basis)) return stored;
          continue;
        }
        view.stored = basis;
      }
      view.basis = basis;
      view.known = true;
      const told = { rules, from: range.from, telling: memo };
      return this.keep(view.id, { view: next, revision, memo: told });
    }
    throw new Error(`Other processes stored revisions of ${view.id} again and again.`);
  }

  /** Returns the newest state of a view, from memory or from the database. Only if the view is known may it be shown. */
  private async stateOf(view: LiveView, asked = false): Promise<State | null> {
    const known = asked ? this.states.get(view.id) : this.states.peek(view.id);
    if (known) return known;
    const stored = await loadView(this.sequelize, view.id);
    if (!stored) return null;
    const { changeId, day } = stored;
    const { basis } = view;
    // Another process may have gone on, by changes or by days. What it stored before the view was closed says nothing.
    const further = changeId > basis.changeId || (changeId === basis.changeId && day > basis.day);
    if (view.known ? further : changeId >= view.concern && view.concern > 0) {
      view.basis = view.stored = { changeId, day };
      view.known = true;
    }
    return this.keep(view.id, this.atDay(view, stored), asked);
  }

  /** A stored view stands as of the day on which it last changed. */
  private atDay(view: LiveView, { view: stored, revision }: StoredView): State {
    const rules = this.windows.get(view.windowId)?.rules;
    const range = rules ? rangeOf(rules, view.basis.day) : stored.range;
    return { view: { ...stored, range }, revision, memo: null };
  }

  /**
   * Keeps a view in memory. What readers ask for pushes out what nobody asked for longest; what only changes does so not:
   * a change that concerns more views than there is room for would push out all of them, one by the other.
   */
  private keep(viewId: string, state: State, asked = false): State {
    const fits = this.states.calculatedSize + weightOf(state) <= this.states.maxSize;
    if (asked || fits || this.states.has(viewId)) this.states.set(viewId, state);
    return state;
  }

  /**
   * Whether a view's newest revision may be shown: if it covers the last change that concerns it, and whatever other
   * processes had confirmed when this one began. Everything that is shown is asked about here.
   */
  private mayShow(view: LiveView): boolean {
    if (this.views.get(view.id) !== view || !view.known) return false;
    if (view.basis.changeId < Math.max(view.concern, this.begun)) return false;
    return this.troubles.get(view.id)?.shows !== 'nothing';
  }

  private async show(view: LiveView, state: State | null): Promise<void> {
    if (!state || !this.mayShow(view)) return;
    const { listed } = this.windows.get(view.windowId)!;
    const { number } = state.revision;
    const fingerprint = fingerprintOf(state.revision) ?? '';
    await this.outside.view({ viewId: view.id, number, fingerprint, day: view.basis.day, listed });
  }

  private async takeWindow(state: WindowState, changeId: number): Promise<void> {
    // What its changes do not tell may be new: since when it is listed, when it closes.
    const row = await WindowRow.unscoped().findByPk(state.id, { attributes: [...COLUMNS], raw: true });
    if (!row) return;
    const window = this.setWindow(state, row);
    const rows = await KeyRow.findAll({ where: { windowId: state.id }, raw: true });
    const where = { keyId: rows.map((r) => r.id) };
    const keys = this.keyPlaces(window, rows, await TurnedTokenRow.findAll({ where, raw: true }));
    // What is closed is shut before anything else; what opens is compiled before it is shown.
    const closed = this.openViews(
      state,
      state.readers ?? openReaders({ ...row, ...state, closedAt: null }, rows),
    );
    for (const view of closed) await this.closeView(view);
    // On start-up the keys are already in their final state.
    if (changeId > this.begun) await this.outside.windows([placeOf(window, keys, this.publicUrl)]);
  }

  private setWindow(state: WindowState, columns: Columns): OpenWindow {
    const window = { ...state, rules: { ...state.rules, secret: columns.secret }, columns };
    this.windows.set(state.id, window);
    return window;
  }

  /** Returns where the addresses of a window lead; replaced addresses lead to the view of their key. */
  private keyPlaces(
    { id, listed, columns }: OpenWindow,
    rows: readonly KeyRow[],
    turned: readonly TurnedTokenRow[],
  ): KeyPlace[] {
    const byKey = groupedBy(turned, (t) => t.keyId);
    const places = rows.flatMap((key) => placesOfKey(key, viewIdOf(key), byKey.get(key.id) ?? []));
    const everybody = publicPlace({ ...columns, listed }, id, viewIdOf({ windowId: id, ...EVERYBODY }));
    return everybody ? [...places, everybody] : places;
  }

  /** Opens the views of a window's readers, and returns its views that are open and that nobody reads any more. */
  private openViews({ id, closed }: WindowState, readers: readonly OpenReader[]): LiveView[] {
    const open = new Map((closed ? [] : readers).map((r) => [viewIdOf({ windowId: id, ...r }), r]));
    for (const [viewId, { audience, cap, until }] of open) {
      const openUntil = endOf({ expiresAt: until });
      const view = this.views.get(viewId);
      if (view) view.openUntil = openUntil;
      else this.addView(id, { audience, cap }, openUntil);
    }
    return this.views.of(id).filter((v) => !open.has(v.id));
  }

  private addView(windowId: string, reader: Reader, openUntil: Instant): void {
    const id = viewIdOf({ windowId, ...reader });
    const base = this.bases.get(id);
    // What is stored counts if the log was last applied while the view was open.
    const stored = base?.open ? { changeId: base.changeId, day: base.day } : null;
    this.views.add({
      ...{ id, windowId, reader, openUntil, stored, concern: 0 },
      basis: stored ?? { changeId: -1, day: 0 },
      known: stored !== null,
      unsure: stored !== null && base!.madeBy !== PROGRAM,
    });
    this.closedAt.delete(id);
  }

  private entriesOf(rules: WindowRules, changeId: number): Promise<Entry[]> {
    const position = this.applied?.id === changeId ? changeId : this.cursor;
    return this.material.entriesOf(this.sequelize, sourcesOf(rules), position);
  }

  /** The store learns what views take into account that did not change: at once where changes concerned them. */
  private async noteBases(): Promise<void> {
    const lagging = [...this.views.values()].filter((view) => {
      const { id, stored, basis } = view;
      // What is in trouble is gone through again after a restart: only then it is known what it must not show.
      if (!view.known || this.troubles.has(id)) return false;
      if (stored?.changeId === basis.changeId && stored.day === basis.day) return false;
      return this.concerned.has(view) || !stored || basis.changeId - stored.changeId >= CHANGES_BEHIND;
    });
    await this.note(lagging);
    this.concerned.clear();
    const closed = [...this.closedAt].map(([id, changeId]) => ({ id, changeId }));
    await storeClosed(this.sequelize, closed);
    for (const { id, changeId } of closed) if (this.closedAt.get(id) === changeId) this.closedAt.delete(id);
  }

  private async note(views: readonly LiveView[]): Promise<void> {
    await storeBasis(
      this.sequelize,
      views.map((v) => ({ id: v.id, ...v.basis })),
    );
    for (const view of views) view.stored = view.basis;
  }
}

/** Whether one basis takes as much into account as another. */
function covers({ changeId, day }: Basis, other: Basis): boolean {
  return changeId > other.changeId || (changeId === other.changeId && day >= other.day);
}

function placeOf(
  window: OpenWindow,
  keys: readonly KeyPlace[],
  publicUrl: string,
): { window: WindowPlace; keys: readonly KeyPlace[] } {
  const { id, closed, closedAt, rules, listed, columns } = window;
  const own = outwardWording(rules.wording);
  const { name, contact, language, description, topic, place = '', colour, translations } = own;
  const zone = rules.hostZone;
  const closesAt = columns.closesAt?.getTime() ?? null;
  const closing = { at: closedAt ? Date.parse(closedAt) : closesAt, zone, contact };
  const wording = { name, language, description, topic, place, colour, translations };
  const { see, feed } = addressesOf(publicUrl, columns.slug ?? '');
  const listedAt = (columns.listedAt ?? columns.createdAt).getTime();
  const board = listed && !closed ? { wording, zone, listedAt, see, feed } : null;
  const farewell =
    columns.farewellAt !== null && closesAt !== null
      ? ({ ends: 'window', at: columns.farewellAt.getTime(), until: closesAt } as const)
      : null;
  return {
    window: { id, name, closed, closing, closesAt, calendarIds: sourcesOf(rules), board },
    keys: keys.map((key) => ({ ...key, farewell: firstEnd(key.farewell, farewell) })),
  };
}

/** Returns whichever ends first: readers see one notice at a time. */
function firstEnd(address: Farewell | null, window: Farewell | null): Farewell | null {
  return address && window ? (address.until < window.until ? address : window) : (address ?? window);
}

function sourcesOf({ sources }: WindowRules): string[] {
  return sources.map((s) => s.calendarId);
}

function takesAny({ rules }: OpenWindow, calendarIds: readonly string[]): boolean {
  return rules.sources.some((s) => calendarIds.includes(s.calendarId));
}

function rangeOf({ horizon, hostZone }: WindowRules, day: number) {
  return rangeOfHorizon(horizon, hostZone, dayStart(hostZone, day));
}

/** Returns the instant at which a day of a zone begins. */
function dayStart(zone: string, day: number): Instant {
  return instantOf(zone, day * DAY);
}
