import {
  outwardView,
  rangeOfHorizon,
  type OutwardView,
  type Reader,
  type TellingMemo,
  type WindowRules,
} from '@zonal/core/glass';
import { FORMS, fileNameOf, type FormName } from '@zonal/core/forms';
import type { Entry } from '@zonal/core/entries';
import type { Revision } from '@zonal/core/reach';
import { DAY, dayOfWall, instantOf, wallAt } from '@zonal/core/zones';
import { Op, type Sequelize } from 'sequelize';
import { ChangeRow, KeyRow, WindowRow, WindowSourceRow } from '../db/models';
import type { ChangeNews } from '../http/changeStream';
import { log } from '../log';
import { addressesOf, ruleContext, rulesOf, viewIdOf } from '../windows/windowStore';
import { makeDocument, type Document } from './document';
import { Material } from './material';
import { recordRevision } from './revisionStore';

/** What stands behind a key: a view of an open window, one not compiled yet, a closed window, or the key has ended. */
export type Door =
  | { readonly state: 'open'; readonly shown: Shown; readonly keyId: string }
  | { readonly state: 'waiting' | 'closed' | 'expired' };

/** A view as it is shown now. It is never changed, only replaced. */
export interface Shown {
  readonly view: OutwardView;
  readonly revision: Revision;
  readonly listed: boolean;
  /** Steady forms ready to be sent, by key and form. */
  readonly documents: Map<string, Document>;
}

interface OpenWindow {
  readonly rules: WindowRules;
  readonly listed: boolean;
  readonly closed: boolean;
  readonly tokens: readonly string[];
  readonly version: number;
}

interface KeyPlace {
  readonly keyId: string;
  readonly windowId: string;
  readonly viewId: string;
  readonly reader: Reader;
  /** Instant from which on it is no longer open. */
  readonly expiresAt: number;
}

interface Memo {
  readonly rules: WindowRules;
  readonly from: number;
  readonly telling: TellingMemo;
}

/**
 * Holds everything that can be fetched from outside in memory, and keeps it in step with the log of changes. What is
 * shown stays as it is while the database is away.
 */
export class Publisher {
  private readonly material = new Material();
  private readonly windows = new Map<string, OpenWindow>();
  private readonly keys = new Map<string, KeyPlace>();
  private readonly shown = new Map<string, Shown>();
  private readonly memos = new Map<string, Memo>();
  /** Windows that have to be compiled anew, with whose changes; they stay here until that has worked. */
  private readonly stale = new Map<string, Set<string>>();
  private cursor = 0;
  private running: Promise<void> = Promise.resolve();

  constructor(
    private readonly sequelize: Sequelize,
    private readonly publicUrl: string,
    /** Is told what changed inside, before it is compiled. */
    private readonly tell: (news: ChangeNews) => void = () => undefined,
    private readonly clock: () => number = Date.now,
  ) {}

  /** Reads all windows and compiles what they show. */
  async start(): Promise<void> {
    this.cursor = Number((await ChangeRow.max('id')) ?? 0);
    await this.loadWindows();
    for (const id of this.windows.keys()) await this.compileWindow(id);
  }

  /** Returns what stands behind a key, or null when there is no such key. */
  door(token: string): Door | null {
    const place = this.keys.get(token);
    const window = place && this.windows.get(place.windowId);
    if (!place || !window) return null;
    if (window.closed) return { state: 'closed' };
    if (this.clock() >= place.expiresAt) return { state: 'expired' };
    const shown = this.shown.get(place.viewId);
    return shown ? { state: 'open', shown, keyId: place.keyId } : { state: 'waiting' };
  }

  /** Returns a form's document that is ready, or undefined. */
  ready(shown: Shown, token: string, form: FormName): Document | undefined {
    return shown.documents.get(`${form}|${token}`);
  }

  /** Makes a form's document; steady ones are kept with what is shown. */
  async document(shown: Shown, token: string, form: FormName): Promise<Document> {
    const known = this.ready(shown, token, form);
    if (known) return known;
    const { contentType, steady, write } = FORMS[form];
    const now = this.clock();
    const text = write(shown.view, shown.revision, { addresses: addressesOf(this.publicUrl, token), now });
    const place = form === 'copy' ? 'attachment' : 'inline';
    const document = await makeDocument(text, `r${shown.revision.number}`, {
      'Content-Type': contentType,
      'Content-Disposition': `${place}; filename="${fileNameOf(form, shown.view, now)}"`,
      ...robots(shown.listed),
    });
    if (steady) shown.documents.set(`${form}|${token}`, document);
    return document;
  }

  /** Returns the entries of a calendar, as far as changes were taken in. */
  entriesOf(calendarId: string): Promise<Iterable<Entry>> {
    return this.material.entriesOf(calendarId);
  }

  /** Takes in all changes since the last time; calls are worked off one after the other. */
  catchUp(): Promise<void> {
    this.running = this.running
      .then(() => this.takeChanges())
      .catch((error: unknown) =>
        log.warn({ err: error }, 'changes could not be taken in; trying again later'),
      );
    return this.running;
  }

  /** Returns the instant at which the first of all windows gets to its next day; with no window it is Infinity. */
  nextTurn(): number {
    const now = this.clock();
    const turns = [...this.windows.values()].map(({ rules: { hostZone } }) => dayStart(hostZone, now, 1));
    return Math.min(...turns);
  }

  /**
   * Compiles the windows whose day has turned, before anything newer is taken in: what comes and goes by the turn of
   * the day is stamped with that midnight, whenever it is looked at and whatever was edited inside since.
   */
  private async turnDays(): Promise<void> {
    for (const [id, window] of this.windows) {
      if (!this.dayHasTurned(window)) continue;
      if (!this.stale.has(id)) this.stale.set(id, new Set());
      await this.compileWindow(id, dayStart(window.rules.hostZone, this.clock()));
    }
  }

  private async takeChanges(): Promise<void> {
    await this.turnDays();
    const rows = await ChangeRow.findAll({ where: { id: { [Op.gt]: this.cursor } }, order: [['id', 'ASC']] });
    const windowIds = new Set<string>();
    const calendarIds = new Set<string>();
    const causes = new Map<string, Set<string>>();
    for (const row of rows) {
      const place = row.windowId ?? row.calendarId!;
      causes.set(place, new Set([...(causes.get(place) ?? []), ...(row.userId ? [row.userId] : [])]));
      if (row.windowId) windowIds.add(row.windowId);
      if (row.calendarId) {
        calendarIds.add(row.calendarId);
        await this.material.refresh(row.calendarId, row.entryIds);
      }
    }
    if (rows.length) this.tell({ calendarIds: [...calendarIds], windowIds: [...windowIds] });
    if (windowIds.size) await this.loadWindows([...windowIds]);
    // Only now: after a failure on the way the same changes are taken again.
    this.cursor = rows.at(-1)?.id ?? this.cursor;
    for (const [id, window] of this.windows) {
      const places = [id, ...window.rules.sources.map((s) => s.calendarId)].filter((p) => causes.has(p));
      if (!places.length) continue;
      const users = places.flatMap((p) => [...causes.get(p)!]);
      this.stale.set(id, new Set([...(this.stale.get(id) ?? []), ...users]));
    }
    for (const id of [...this.stale.keys()]) await this.compileWindow(id);
  }

  private async loadWindows(ids?: readonly string[]): Promise<void> {
    const where = ids ? { id: [...ids] } : {};
    const rows = await WindowRow.findAll({ where });
    const of = { where: { windowId: rows.map((r) => r.id) } };
    const sources = await WindowSourceRow.findAll(of);
    const keys = await KeyRow.findAll(of);
    const context = await ruleContext(this.sequelize);
    for (const row of rows) {
      const own = keys.filter((k) => k.windowId === row.id);
      for (const key of own) {
        const { id: keyId, token, audience, cap } = key;
        const reader = { audience, cap };
        const expiresAt = key.expiresAt?.getTime() ?? Infinity;
        this.keys.set(token, { keyId, windowId: row.id, viewId: viewIdOf(key), reader, expiresAt });
      }
      const rules = rulesOf(
        row,
        sources.filter((s) => s.windowId === row.id),
        context,
      );
      const { listed } = row;
      this.windows.set(row.id, {
        rules,
        listed,
        closed: row.closedAt !== null,
        tokens: own.map((k) => k.token),
        version: row.version,
      });
    }
  }

  private dayHasTurned({ rules, tokens }: OpenWindow): boolean {
    const shown = tokens.map((t) => this.shown.get(this.keys.get(t)!.viewId));
    const { from } = rangeOfHorizon(rules.horizon, rules.hostZone, this.clock());
    return shown.some((s) => s && s.view.range.from !== from);
  }

  /** `at` is when what is new in it has come about. */
  private async compileWindow(windowId: string, at = this.clock()): Promise<void> {
    const window = this.windows.get(windowId)!;
    const views = new Map<string, { reader: Reader; tokens: string[] }>();
    for (const token of window.closed ? [] : window.tokens) {
      const { viewId, reader } = this.keys.get(token)!;
      const known = views.get(viewId);
      if (known) known.tokens.push(token);
      else views.set(viewId, { reader, tokens: [token] });
    }
    let done = true;
    for (const [viewId, { reader, tokens }] of views) {
      done = (await this.compileView(windowId, viewId, reader, tokens, at)) && done;
    }
    if (done) this.stale.delete(windowId);
  }

  /** Returns false when another process has stored a newer state: this one has changes to take in first. */
  private async compileView(
    windowId: string,
    viewId: string,
    reader: Reader,
    tokens: string[],
    at: number,
  ): Promise<boolean> {
    const { rules, listed, version } = this.windows.get(windowId)!;
    const now = this.clock();
    const range = rangeOfHorizon(rules.horizon, rules.hostZone, now);
    const entries = [];
    for (const { calendarId } of rules.sources) entries.push(...(await this.material.entriesOf(calendarId)));
    const view = outwardView(entries, rules, range, reader, this.memoFor(viewId, rules, range.from));
    const basis = { changeId: this.cursor, day: dayOfWall(wallAt(rules.hostZone, now)) };
    const cause = { userIds: [...(this.stale.get(windowId) ?? [])], windowVersion: version };
    const revision = await recordRevision(this.sequelize, viewId, windowId, view, basis, cause, at);
    if (!revision) return false;
    const before = this.shown.get(viewId);
    const shown: Shown = { view, revision, listed, documents: new Map() };
    // Programs that follow get the new bytes from memory from the first poll on.
    for (const token of tokens) {
      for (const form of ['feed', 'freeBusy'] as const) {
        if (!before || this.ready(before, token, form)) await this.document(shown, token, form);
      }
    }
    this.shown.set(viewId, shown);
    return true;
  }

  private memoFor(viewId: string, rules: WindowRules, from: number): TellingMemo {
    let memo = this.memos.get(viewId);
    if (!memo || memo.rules !== rules || memo.from !== from) {
      memo = { rules, from, telling: new WeakMap() };
      this.memos.set(viewId, memo);
    }
    return memo.telling;
  }
}

/** Returns the instant at which the day of a zone began, or the one so many days later. */
function dayStart(zone: string, now: number, later = 0): number {
  return instantOf(zone, (dayOfWall(wallAt(zone, now)) + later) * DAY);
}

/** Pages and feeds that are not listed tell search engines so. */
export function robots(listed: boolean): Record<string, string> {
  return listed ? {} : { 'X-Robots-Tag': 'noindex, nofollow' };
}
