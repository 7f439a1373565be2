import type { OutwardWindow } from '@zonal/core/api';
import { plainName } from '@zonal/core/forms';
import {
  checkRules,
  listingAfter,
  rehearsedWindow,
  settingsOf,
  type Demand,
  type WindowInput,
} from '@zonal/core/glass';
import { Problem } from '@zonal/core/problems';
import { Op, type Sequelize, type Transaction } from 'sequelize';
import type { MakeChange } from '../db/changes';
import { CalendarRow, DraftRow, WindowRow, WindowSourceRow } from '../db/models';
import { validated } from '../http/validated';
import { log } from '../log';
import { mayStillAct } from '../people/deferred';
import { requireConfirmed } from './requireConfirmed';
import type { Trouble } from './trouble';
import * as input from './windowInput';
import {
  lostLabelsOf,
  rememberVersion,
  ruleContext,
  rulesOf,
  sourceRowsOf,
  windowAnswer,
  type WindowAnswer,
} from './windowStore';

/** What publishing needs from the server around it. */
export interface Publishing {
  readonly sequelize: Sequelize;
  /** Returns what cannot be worked out just now, by window. */
  readonly troubles: () => Promise<ReadonlyMap<string, Trouble>>;
  readonly publicUrl: string;
  /** Makes a change, and waits until it acts outside. */
  readonly change: MakeChange;
}

/** Returns windows with what cannot be worked out of them just now. */
export async function withTroubles(
  { troubles }: Publishing,
  windows: readonly WindowAnswer[],
): Promise<OutwardWindow[]> {
  const known = await troubles();
  return windows.map((window) => ({ ...window, trouble: known.get(window.id) ?? null }));
}

/** Returns one window with what cannot be worked out of it. Throws `not-found`. */
export async function windowTold(publishing: Publishing, id: string): Promise<OutwardWindow> {
  const window = await windowAnswer(publishing.sequelize, publishing.publicUrl, id);
  return (await withTroubles(publishing, [window]))[0]!;
}

/** Throws what keeps an input from being shown: see checkRules, and `source-missing` for an unknown calendar. */
export async function checkInput(body: WindowInput, transaction?: Transaction): Promise<void> {
  checkRules(body);
  const ids = body.sources.map((s) => s.calendarId);
  const found = await CalendarRow.count({ where: { id: ids }, transaction: transaction ?? null });
  if (found < ids.length) throw new Problem('source-missing');
}

/** Throws `confirm-needed` as {@link requireConfirmed} does; `before` is null for a window that is not open yet. */
export async function checkConfirmed(
  publishing: Publishing,
  before: WindowAnswer | null,
  body: WindowInput,
  confirmed: readonly Demand[],
): Promise<void> {
  const context = await ruleContext();
  const settings = settingsOf(body);
  const row = {
    name: body.name,
    settings,
    secret: before?.secret ?? 'not opened yet',
    lostLabels: await lostLabelsOf(publishing.sequelize, body),
    listed: body.listed,
  };
  const firstKey = {
    id: '',
    madeOutTo: 'First key',
    audience: body.audience ?? 'street',
    cap: null,
    expiresAt: null,
  } as const;
  const now = Date.now();
  const old = before && rehearsedWindow(before, before, now);
  const { publicUntil } = listingAfter(before, body, now);
  const window = {
    ...{ id: before?.id ?? '', listed: body.listed, publicUntil, closedAt: null },
    keys: before?.keys ?? [firstKey],
  };
  const after = rehearsedWindow(window, rulesOf(row, sourceRowsOf('', body), context), now);
  await requireConfirmed([{ before: old, after }], confirmed);
}

/**
 * Shows new rules of an open window outside, all at once. Its draft is done with. `scheduled` says that nobody asks for it
 * now: then its author must still be allowed to, else it throws `author-not-allowed`.
 */
export async function publishWindow(
  publishing: Publishing,
  id: string,
  body: WindowInput,
  userId: string,
  scheduled = false,
): Promise<OutwardWindow> {
  const { sequelize, publicUrl, change } = publishing;
  const before = await windowAnswer(sequelize, publicUrl, id);
  if (before.closedAt) throw new Problem('window-closed');
  await checkInput(body);
  if (body.version === before.version) await checkConfirmed(publishing, before, body, body.confirmed ?? []);
  await change(userId, async (transaction) => {
    const subject = { windowIds: [id], calendarIds: body.sources.map((s) => s.calendarId) };
    if (scheduled && !(await mayStillAct('scheduled-draft', userId, subject, transaction)))
      throw new Problem('author-not-allowed');
    const version = body.version ?? 0;
    const row = (await WindowRow.findByPk(id, { transaction, lock: true }))!;
    const settings = settingsOf(body);
    const lostLabels = await lostLabelsOf(sequelize, body, transaction);
    const [changed] = await WindowRow.update(
      {
        name: body.name,
        settings,
        lostLabels,
        ...(await listingColumns(row, body, transaction)),
        version: version + 1,
      },
      { where: { id, version }, transaction },
    );
    if (!changed) throw new Problem('version-conflict', { current: before, yours: body });
    await WindowSourceRow.destroy({ where: { windowId: id }, transaction });
    await WindowSourceRow.bulkCreate(sourceRowsOf(id, body), { transaction });
    await DraftRow.destroy({ where: { windowId: id }, transaction });
    await rememberVersion(id, userId, transaction);
    return { result: undefined, touched: [{ windowId: id }] };
  });
  return windowTold(publishing, id);
}

/** Returns a name for public addresses that no window ever had: the window's in plain letters, numbered if that is taken. */
async function freeSlug(name: string, transaction: Transaction): Promise<string> {
  const base = plainName(name, 'window');
  for (let n = 1; ; n++) {
    const slug = n === 1 ? base : `${base}-${n}`;
    if (!(await WindowRow.unscoped().count({ where: { slug }, transaction }))) return slug;
  }
}

/**
 * Returns what the columns about the public address are after a window was published; `row` is the window before, or null for
 * a new one. The public name is made when the window is first listed, so that it tells nothing of windows that never were.
 */
export async function listingColumns(
  row: WindowRow | null,
  body: WindowInput,
  transaction: Transaction,
): Promise<Pick<WindowRow, 'slug' | 'listed' | 'listedAt' | 'unlistedAt' | 'publicUntil'>> {
  const now = Date.now();
  const { unlistedAt, publicUntil } = listingAfter(row, body, now);
  const slug = row?.slug ?? (body.listed ? await freeSlug(body.name, transaction) : null);
  const listedAt = body.listed ? ((row?.listed ? row.listedAt : null) ?? new Date(now)) : null;
  const date = (at: number | null) => (at === null ? null : new Date(at));
  return {
    slug,
    listed: body.listed,
    listedAt,
    unlistedAt: date(unlistedAt),
    publicUntil: date(publicUntil),
  };
}

/** Notes of each window whose time to close has come that it is closed: its readers get nothing since that very moment. */
export async function closeDue({ change }: Publishing, now: number): Promise<void> {
  const due = await WindowRow.findAll({
    where: { closedAt: null, closesAt: { [Op.lte]: new Date(now) } },
    attributes: ['id'],
  });
  for (const { id } of due)
    await change(null, async (transaction) => {
      const row = (await WindowRow.findByPk(id, { transaction, lock: true }))!;
      // Somebody may have changed it meanwhile, or another process have done it.
      if (row.closedAt || !row.closesAt || row.closesAt.getTime() > now)
        return { result: undefined, touched: [] };
      const { closesAt: closedAt, version } = row;
      await row.update({ closedAt, closesAt: null, farewellAt: null, version: version + 1 }, { transaction });
      await rememberVersion(id, null, transaction);
      return { result: undefined, touched: [{ windowId: id }] };
    });
}

/**
 * Shows every draft whose time has come. One that would have a large effect that nobody confirmed when it was
 * scheduled, or that cannot be shown at all, stays a draft and says why.
 */
export async function publishDue(publishing: Publishing, now: number): Promise<void> {
  const due = await DraftRow.findAll({ where: { publishAt: { [Op.lte]: new Date(now) } } });
  for (const draft of due) {
    const { windowId, confirmed, scheduledBy, userId } = draft;
    try {
      const row = await WindowRow.findByPk(windowId);
      const body = validated(input.WindowInput, { ...draft.body, version: row!.version, confirmed });
      await publishWindow(publishing, windowId, body, scheduledBy ?? userId, true);
    } catch (error) {
      if (!(error instanceof Problem)) throw error;
      // Another process has shown it already.
      if (error.code === 'version-conflict') continue;
      log.warn({ windowId, code: error.code }, 'a scheduled draft was not shown');
      await DraftRow.update({ publishAt: null, stopped: error.message }, { where: { windowId } });
    }
  }
}

/** Returns the ids of all windows, or of those that show a calendar. */
export async function windowIdsOn(calendarId: string | null, transaction: Transaction): Promise<string[]> {
  if (!calendarId) return (await WindowRow.findAll({ attributes: ['id'], transaction })).map((w) => w.id);
  const rows = await WindowSourceRow.findAll({ where: { calendarId }, transaction });
  return rows.map((r) => r.windowId);
}
