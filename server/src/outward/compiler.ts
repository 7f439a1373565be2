import {
  outwardView,
  rangeOfHorizon,
  tellsAlike,
  type OutwardView,
  type Reader,
  type TellingMemo,
  type WindowRules,
} from '@zonal/core/glass';
import type { Entry } from '@zonal/core/entries';
import { Problem } from '@zonal/core/problems';
import { nextRevision, type Revision } from '@zonal/core/reach';
import { DAY, dayOfWall, instantOf, wallAt, type Instant } from '@zonal/core/zones';
import { Op, Transaction, type Sequelize } from 'sequelize';
import { ChangeRow, KeyRow, ViewRow, WindowRow, type WindowState } from '../db/models';
import type { ChangeNews } from '../http/changeStream';
import { log } from '../log';
import { viewIdOf, windowStates } from '../windows/windowStore';
import { Material, type EntryChange } from './material';
import { loadView, storeBasis, storeRevision, type Basis, type Cause } from './viewStore';

/** What cannot be worked out for a window, and what readers get meanwhile: what they had, or nothing. */
export interface Trouble {
  readonly windowId: string;
  readonly at: string;
  /** For organisers: it may name what readers must not see. */
  readonly reason: string;
  readonly shows: 'last' | 'nothing';
}

/** Is told what can be fetched from outside, in the order in which it is to act. */
export interface Outside {
  /** A window as it is open or closed from now on, with its keys. */
  window(state: OpenWindow, keys: readonly KeyPlace[]): void;
  view(viewId: string, shown: { view: OutwardView; revision: Revision; listed: boolean }): void;
  /** A view is not to be served any more. */
  drop(viewId: string): void;
  trouble(windowId: string, trouble: Trouble | null): void;
  news(news: ChangeNews): void;
}

export interface OpenWindow extends Omit<WindowState, 'rules'> {
  readonly rules: WindowRules;
  readonly createdAt: Instant;
}

export interface KeyPlace {
  readonly token: string;
  readonly keyId: string;
  readonly viewId: string;
  readonly reader: Reader;
  /** Instant from which on it is no longer open. */
  readonly expiresAt: number;
}

/** A view that is kept in step. Without a revision it was never worked out. */
interface LiveView {
  readonly id: string;
  readonly windowId: string;
  readonly reader: Reader;
  basis: Basis;
  /** The basis that the store knows of. */
  stored: Basis;
  state: { view: OutwardView; revision: Revision } | null;
  memo: { rules: WindowRules; from: Instant; telling: TellingMemo } | null;
  /** Whether it has to be worked out anew, as what it was worked out from may be another program's. */
  unsure: boolean;
}

/** A view that was away longer is worked out as of its last day only. */
const MOST_DAYS = 400;

/**
 * Works out what can be seen from outside, change by change, from the log: what is seen and when it is said to have
 * changed depends on the log alone, and not on when somebody came to look at it. Each window is worked out by itself.
 */
export class Compiler {
  private readonly material = new Material();
  private readonly windows = new Map<string, OpenWindow>();
  private readonly views = new Map<string, LiveView>();
  /** By id of the view. */
  private readonly troubles = new Map<string, Trouble>();
  private cursor = 0;
  /** What the change that is being taken in did to entries, in case it has to be begun again. */
  private applied: { readonly id: number; readonly changes: readonly EntryChange[] } | null = null;

  constructor(
    private readonly sequelize: Sequelize,
    private readonly outside: Outside,
    private readonly clock: () => number = Date.now,
  ) {}

  /** The last change that was taken in. */
  get taken(): number {
    return this.cursor;
  }

  /** Returns the entries of a calendar, as far as changes were taken in. */
  async entriesOf(calendarId: string): Promise<Iterable<Entry>> {
    await this.need([calendarId]);
    return this.material.entriesOf(calendarId);
  }

  /** Reads all windows; what was worked out before is shown at once, and brought up to date afterwards by catchUp. */
  async start(): Promise<void> {
    const isolationLevel = Transaction.ISOLATION_LEVELS.REPEATABLE_READ;
    await this.sequelize.transaction({ isolationLevel }, async (transaction) => {
      const newest = Number((await ChangeRow.max('id', { transaction })) ?? 0);
      const now = await windowStates(this.sequelize, null, transaction);
      const rows = await WindowRow.findAll({ attributes: ['id', 'secret', 'createdAt'], transaction });
      const rowById = new Map(rows.map((r) => [r.id, r]));
      for (const state of now) this.setWindow(state, rowById.get(state.id)!);
      const keys = new Map([...this.windows.keys()].map((id): [string, KeyRow[]] => [id, []]));
      for (const key of await KeyRow.findAll({ transaction })) keys.get(key.windowId)?.push(key);
      for (const [id, of] of keys) this.setKeys(id, of);
      const bases = await ViewRow.findAll({ attributes: ['id', 'changeId', 'day'], raw: true, transaction });
      for (const { id, changeId, day } of bases) {
        const view = this.views.get(id);
        if (view) view.basis = view.stored = { changeId: Number(changeId), day };
      }
      this.cursor = await this.rewind(newest, transaction);
      const calendars = [...this.windows.values()].flatMap((w) => w.rules.sources.map((s) => s.calendarId));
      await this.material.load(this.sequelize, [...new Set(calendars)], this.cursor, transaction);
    });
    for (const view of this.views.values()) await this.takeUp(view);
  }

  /**
   * Returns the change from which on the log has to be gone through again for the view that is furthest behind, and
   * brings the windows into the state that they were in then.
   */
  private async rewind(newest: number, transaction: Transaction): Promise<number> {
    const changes = await ChangeRow.findAll({
      attributes: ['id', 'windows'],
      order: [['id', 'ASC']],
      transaction,
    });
    const oldest = changes[0]?.id ?? newest + 1;
    let from = newest;
    for (const view of this.views.values()) {
      const opened = changes.find((c) => c.windows.some((w) => w.id === view.windowId))?.id;
      // One that was never worked out begins with the opening of its window, where the log still tells of it.
      if (view.basis.changeId < 0 && opened !== undefined)
        view.basis = { ...view.basis, changeId: opened - 1 };
      if (view.basis.changeId >= 0) from = Math.min(from, Math.max(view.basis.changeId, oldest - 1));
    }
    for (const window of [...this.windows.values()]) {
      const of = changes.flatMap((c) =>
        c.windows.filter((w) => w.id === window.id).map((state) => ({ id: c.id, state })),
      );
      const then = of.findLast(({ id }) => id <= from)?.state;
      if (then) this.setWindow(then, { secret: window.rules.secret, createdAt: new Date(window.createdAt) });
      // It was not open yet: it is when the log comes to it.
      else if (of.length) this.windows.delete(window.id);
    }
    return from;
  }

  /** Shows what is stored of a view. */
  private async takeUp(view: LiveView): Promise<void> {
    const stored = await loadView(view.id);
    if (!stored) return;
    const { changeId, day } = stored;
    view.basis = view.stored = { changeId, day };
    view.state = stored;
    view.memo = null;
    const window = this.windows.get(view.windowId);
    if (window && !window.closed) this.outside.view(view.id, { ...stored, listed: window.listed });
  }

  /** Takes in all changes since the last time, one after the other, and the turns of the day. Throws when the store is away. */
  async catchUp(): Promise<void> {
    const rows = await ChangeRow.findAll({ where: { id: { [Op.gt]: this.cursor } }, order: [['id', 'ASC']] });
    for (const row of rows) await this.take(row);
    const now = this.clock();
    for (const view of [...this.views.values()]) {
      const window = this.windows.get(view.windowId);
      if (!window || window.closed) continue;
      if (!view.state) await this.work(view, this.basisAt(window, view, now), window.createdAt, null);
      await this.turn(view, window, now);
      if (view.unsure && view.state) {
        view.unsure = false;
        await this.work(view, view.basis, view.state.revision.at, null);
      }
    }
    await this.noteBases();
  }

  /** Returns the instant at which the first of all windows gets to its next day; with no window it is Infinity. */
  nextTurn(): number {
    const now = this.clock();
    const turns = [...this.windows.values()].map(({ rules: { hostZone } }) =>
      dayStart(hostZone, dayAt(hostZone, now) + 1),
    );
    return Math.min(...turns);
  }

  private async take(row: ChangeRow): Promise<void> {
    const at = row.createdAt.getTime();
    for (const view of this.views.values()) {
      const window = this.windows.get(view.windowId);
      if (window && !window.closed && view.state && view.basis.changeId < row.id)
        await this.turn(view, window, at);
    }
    if (this.applied?.id !== row.id) {
      const changes = row.edit ? await this.material.apply(this.sequelize, row.edit) : [];
      this.applied = { id: row.id, changes };
    }
    const { changes } = this.applied;
    for (const state of row.windows) await this.takeWindow(state);
    const needed = row.windows.flatMap((w) => w.rules.sources.map((s) => s.calendarId));
    await this.need(needed, row.id);
    const ruled = new Set(row.windows.map((w) => w.id));
    const cause = { userId: row.userId };
    for (const view of [...this.views.values()]) {
      const window = this.windows.get(view.windowId);
      if (!window || view.basis.changeId >= row.id) continue;
      const basis = this.basisAt(window, view, at, row.id);
      const touched = ruled.has(window.id) || row.dropped.some((id) => takes(window, id));
      if (window.closed) {
        view.basis = basis;
        if (touched) this.outside.drop(view.id);
      } else if (touched) await this.work(view, basis, at, cause, true);
      else await this.takeEntries(view, window, changes, basis, at, cause);
    }
    for (const id of row.dropped) this.material.drop(id);
    this.cursor = row.id;
    this.outside.news({
      calendarIds: [...row.calendarIds, ...row.dropped],
      windowIds: [...ruled],
    });
  }

  /** A change of entries, where it tells readers of the view anything at all. */
  private async takeEntries(
    view: LiveView,
    window: OpenWindow,
    changes: readonly EntryChange[],
    basis: Basis,
    at: Instant,
    cause: Pick<Cause, 'userId'>,
  ): Promise<void> {
    const [before, after] = (['before', 'after'] as const).map((side) =>
      changes.flatMap((c) => (c[side] && takes(window, c[side].calendarId) ? [c[side]] : [])),
    ) as [Entry[], Entry[]];
    if (!before.length && !after.length) {
      view.basis = basis;
      return;
    }
    const { rules } = window;
    try {
      const range = this.rangeOf(rules, basis.day);
      const alike = tellsAlike(before, after, rules, range, view.reader, memoOf(view, rules, range.from));
      if (alike && view.state && !this.troubles.has(view.id)) {
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
    const today = dayAt(rules.hostZone, until);
    // Days follow the clock, also back.
    if (today < view.basis.day) {
      await this.work(view, { ...view.basis, day: today }, until, null, true);
      return;
    }
    const first = Math.max(view.basis.day + 1, today - MOST_DAYS);
    for (let day = first; day <= today; day++)
      await this.work(view, { ...view.basis, day }, dayStart(rules.hostZone, day), null, true);
  }

  /**
   * Works a view out and shows it. Where that fails, other windows go on; what `takesAway` stops being served, and
   * everything else stays as it was.
   */
  private async work(
    view: LiveView,
    basis: Basis,
    at: Instant,
    cause: Pick<Cause, 'userId'> | null,
    takesAway = false,
  ): Promise<void> {
    const window = this.windows.get(view.windowId)!;
    try {
      await this.workOut(view, window, basis, at, cause);
      if (this.troubles.delete(view.id)) this.tellTrouble(window.id);
    } catch (error) {
      if (!(error instanceof Problem) && !(error instanceof RangeError) && !(error instanceof TypeError))
        throw error;
      // What stopped being served stays so until it is worked out, whatever comes after.
      const stopped = takesAway || !view.state || this.troubles.get(view.id)?.shows === 'nothing';
      const shows = stopped ? 'nothing' : 'last';
      const reason = error instanceof Problem ? error.message : 'something in it is not as it should be.';
      const trouble = { windowId: window.id, at: new Date(at).toISOString(), reason, shows } as const;
      if (stopped) this.outside.drop(view.id);
      this.troubles.set(view.id, trouble);
      this.tellTrouble(window.id);
      view.basis = basis;
      log.error({ windowId: window.id, viewId: view.id, shows, reason }, 'a window could not be worked out');
    }
  }

  /** A window is in trouble where any view of it is; one that shows nothing is what is told of. */
  private tellTrouble(windowId: string): void {
    const all = [...this.troubles.values()].filter((t) => t.windowId === windowId);
    this.outside.trouble(windowId, all.find((t) => t.shows === 'nothing') ?? all[0] ?? null);
  }

  private async workOut(
    view: LiveView,
    window: OpenWindow,
    basis: Basis,
    at: Instant,
    cause: Pick<Cause, 'userId'> | null,
  ): Promise<void> {
    const { rules, listed, version } = window;
    const range = this.rangeOf(rules, basis.day);
    const entries: Entry[] = [];
    for (const { calendarId } of rules.sources)
      for (const entry of this.material.entriesOf(calendarId)) entries.push(entry);
    const next = outwardView(entries, rules, range, view.reader, memoOf(view, rules, range.from));
    const revision = nextRevision(view.state?.revision ?? null, next, at);
    if (revision !== view.state?.revision) {
      const told = { userId: cause?.userId ?? null, windowVersion: version };
      const stored = { view: next, revision, ...basis };
      if (!(await storeRevision(this.sequelize, view, view.state, stored, told))) {
        await this.follow(view, basis);
        return;
      }
      view.stored = basis;
    }
    view.state = { view: next, revision };
    view.basis = basis;
    this.outside.view(view.id, { view: next, revision, listed });
  }

  /** Another process was first. What it has stored is the same, or further on. */
  private async follow(view: LiveView, basis: Basis): Promise<void> {
    await this.takeUp(view);
    if (view.basis.changeId < basis.changeId) view.basis = basis;
  }

  private async takeWindow(state: WindowState): Promise<void> {
    const known = this.windows.get(state.id);
    const row = known
      ? { secret: known.rules.secret, createdAt: new Date(known.createdAt) }
      : await WindowRow.findByPk(state.id, { attributes: ['secret', 'createdAt'] });
    if (!row) return;
    this.setWindow(state, row);
    // What is closed is shut before anything else; what opens is worked out before it is shown.
    await this.keysOf(state.id);
    if (state.closed) {
      for (const view of this.views.values()) if (view.windowId === state.id) this.outside.drop(view.id);
    }
  }

  private setWindow(
    state: WindowState,
    { secret, createdAt }: Pick<WindowRow, 'secret'> & { createdAt: Date },
  ): void {
    const rules: WindowRules = { ...state.rules, secret };
    this.windows.set(state.id, { ...state, rules, createdAt: createdAt.getTime() });
  }

  private async keysOf(windowId: string): Promise<KeyPlace[]> {
    return this.setKeys(windowId, await KeyRow.findAll({ where: { windowId } }));
  }

  /** Takes note of the views that keys open. */
  private setKeys(windowId: string, rows: readonly KeyRow[]): KeyPlace[] {
    const keys = rows.map((key): KeyPlace => ({
      token: key.token,
      keyId: key.id,
      viewId: viewIdOf(key),
      reader: { audience: key.audience, cap: key.cap },
      expiresAt: key.expiresAt?.getTime() ?? Infinity,
    }));
    for (const { viewId, reader } of keys) {
      const basis = { changeId: -1, day: 0 };
      if (!this.views.has(viewId))
        this.views.set(viewId, {
          id: viewId,
          windowId,
          reader,
          basis,
          stored: basis,
          state: null,
          memo: null,
          unsure: true,
        });
    }
    const window = this.windows.get(windowId);
    if (window) this.outside.window(window, keys);
    return keys;
  }

  private async need(calendarIds: readonly string[], changeId = this.cursor): Promise<void> {
    const missing = [...new Set(calendarIds)].filter((id) => !this.material.has(id));
    if (!missing.length) return;
    const isolationLevel = Transaction.ISOLATION_LEVELS.REPEATABLE_READ;
    await this.sequelize.transaction({ isolationLevel }, (transaction) =>
      this.material.load(this.sequelize, missing, changeId, transaction),
    );
  }

  private basisAt(window: OpenWindow, view: LiveView, at: Instant, changeId = this.cursor): Basis {
    const day = dayAt(window.rules.hostZone, at);
    return { changeId, day: view.state ? Math.max(day, view.basis.day) : day };
  }

  private rangeOf({ horizon, hostZone }: WindowRules, day: number) {
    return rangeOfHorizon(horizon, hostZone, dayStart(hostZone, day));
  }

  /** The store learns now and then what views take into account that did not change. */
  private async noteBases(): Promise<void> {
    const behind = [...this.views.values()].filter(
      // What is in trouble is gone through again after a restart: only then it is known what it must not show.
      (v) =>
        v.state &&
        !this.troubles.has(v.id) &&
        (v.stored.changeId !== v.basis.changeId || v.stored.day !== v.basis.day),
    );
    await storeBasis(
      this.sequelize,
      behind.map((v) => ({ id: v.id, ...v.basis })),
    );
    for (const view of behind) view.stored = view.basis;
  }
}

function takes({ rules }: OpenWindow, calendarId: string): boolean {
  return rules.sources.some((s) => s.calendarId === calendarId);
}

function memoOf(view: LiveView, rules: WindowRules, from: Instant): TellingMemo {
  if (view.memo?.rules !== rules || view.memo.from !== from)
    view.memo = { rules, from, telling: new WeakMap() };
  return view.memo.telling;
}

function dayAt(zone: string, at: Instant): number {
  return dayOfWall(wallAt(zone, at));
}

/** Returns the instant at which a day of a zone begins. */
function dayStart(zone: string, day: number): Instant {
  return instantOf(zone, day * DAY);
}
