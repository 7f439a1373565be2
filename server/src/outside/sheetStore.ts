import type { CheckedItem, Sheet, SheetItem } from '@zonal/core/api';
import type { LinkSheet, SheetLink } from '@zonal/core/forms';
import { checkLink, leadsOn, outwardWording, type ShowsBehind } from '@zonal/core/glass';
import { Problem } from '@zonal/core/problems';
import { createHash } from 'node:crypto';
import { QueryTypes, type Sequelize } from 'sequelize';
import { SheetRow } from '../db/models';
import { unsealed } from '../db/sealed';
import { mayStillAct } from '../people/deferred';
import { withTroubles, type Publishing } from '../glass/publishWindow';
import { EVERYBODY, viewIdOf, windowAnswers } from '../glass/windowStore';
import { namesOf } from '../people/names';

/** An item as organisers see it, and as it goes out; null where it leads nowhere. */
interface Looked {
  readonly checked: CheckedItem;
  readonly link: SheetLink | null;
}

/** Returns what items lead to now, in their order. What is not there any more is left out. */
export async function lookAt(publishing: Publishing, items: readonly SheetItem[]): Promise<Looked[]> {
  const { sequelize, publicUrl } = publishing;
  const ids = [...new Set(items.map((i) => i.windowId))];
  const answers = await withTroubles(publishing, await windowAnswers(sequelize, publicUrl, ids));
  const windows = new Map(answers.map((w) => [w.id, w]));
  const found = items.flatMap(({ windowId, keyId }) => {
    const window = windows.get(windowId);
    const key = keyId === null ? null : window?.keys.find((k) => k.id === keyId);
    return window && key !== undefined ? [{ window, key, viewId: viewOf(windowId, key ?? EVERYBODY) }] : [];
  });
  const shows = await showsBehind(
    sequelize,
    found.map((f) => f.viewId),
  );
  const now = Date.now();
  return found.map(({ window, key, viewId }) => {
    const { listed, publicUntil, closedAt, closesAt, trouble, wording, hostZone: zone } = window;
    const behind = shows.get(viewId) ?? null;
    const stopped = trouble?.shows === 'nothing';
    const notes = checkLink({ key, listed, publicUntil, closedAt, closesAt, stopped, shows: behind }, now);
    const { see, feed } = key ?? { see: window.listedSee, feed: window.listedFeed };
    return {
      checked: {
        windowId: window.id,
        keyId: key?.id ?? null,
        name: wording.name,
        madeOutTo: key?.madeOutTo ?? '',
        ...{ see, feed, notes },
      },
      link: leadsOn(notes) ? { wording: outwardWording(wording), zone, see, feed, shows: behind } : null,
    };
  });
}

function viewOf(windowId: string, reader: Pick<typeof EVERYBODY, 'audience' | 'cap'>): string {
  return viewIdOf({ windowId, audience: reader.audience, cap: reader.cap });
}

/** Returns what readers find in some views; those that are not worked out yet are left out. */
async function showsBehind(
  sequelize: Sequelize,
  viewIds: readonly string[],
): Promise<Map<string, ShowsBehind>> {
  if (!viewIds.length) return new Map();
  const rows = await sequelize.query<{ id: string; some: boolean; more: boolean }>(
    `SELECT v.id,
       EXISTS (SELECT 1 FROM view_items i WHERE i.view_id = v.id) AS some,
       EXISTS (SELECT 1 FROM view_items i WHERE i.view_id = v.id AND i.item->>'kind' <> 'busy') AS more
     FROM views v WHERE v.id IN (:viewIds)`,
    { replacements: { viewIds: [...new Set(viewIds)] }, type: QueryTypes.SELECT },
  );
  return new Map(rows.map(({ id, some, more }) => [id, more ? 'entries' : some ? 'busy' : 'nothing']));
}

/** Returns link sheets as organisers see them, with what each address leads to now. */
export async function sheetAnswers(publishing: Publishing, rows: readonly SheetRow[]): Promise<Sheet[]> {
  const names = await namesOf(rows.map((r) => r.userId));
  const all = await lookAt(
    publishing,
    rows.flatMap((r) => r.items),
  );
  const nameOf = (item: SheetItem) => `${item.windowId}|${item.keyId ?? ''}`;
  const byName = new Map(all.map(({ checked }) => [nameOf(checked), checked]));
  return rows.map(({ id, name, note, items, token, withdrawnAt, userId, updatedAt, version }) => ({
    ...{ id, name, note, version },
    items: items.flatMap((item) => byName.get(nameOf(item)) ?? []),
    address: addressOfSheet(publishing.publicUrl, unsealed(token)),
    withdrawnAt: withdrawnAt?.toISOString() ?? null,
    by: (userId && names.get(userId)) ?? '',
    at: updatedAt.toISOString(),
  }));
}

/** Returns a sheet as whoever has its address gets it: without what leads nowhere. */
export async function sheetTold(publishing: Publishing, row: SheetRow): Promise<LinkSheet> {
  const { name, note, userId } = row;
  // What its author may no longer see is not handed on any more.
  const items: SheetItem[] = [];
  for (const item of row.items)
    if (!userId || (await mayStillAct('link-sheet', userId, { windowIds: [item.windowId] })))
      items.push(item);
  const links = (await lookAt(publishing, items)).flatMap(({ link }) => link ?? []);
  return { name, note, address: addressOfSheet(publishing.publicUrl, unsealed(row.token)), links };
}

/** Throws `link-unknown` unless every item is there. */
export async function checkItems(publishing: Publishing, items: readonly SheetItem[]): Promise<void> {
  if ((await lookAt(publishing, items)).length < items.length) throw new Problem('link-unknown');
}

/** Returns what the address of a sheet is found by in the store, which tells nothing of the address. */
export function tokenPrint(token: string): string {
  return createHash('sha256').update(token).digest('base64url');
}

function addressOfSheet(publicUrl: string, token: string): string {
  return `${publicUrl}/links/${token}`;
}
