import type { CallName, EntryChange, SheetItem } from '@zonal/core/api';
import { WINDOW_LIMITS } from '@zonal/core/glass';
import { Problem } from '@zonal/core/problems';
import {
  CALL_RIGHTS,
  deedWords,
  may,
  whoMay,
  type Concerned,
  type Deed,
  type HouseRights,
} from '@zonal/core/rights';
import { isUUID } from 'class-validator';
import { QueryTypes } from 'sequelize';
import {
  DraftRow,
  EditEntryRow,
  EditRow,
  EntryRow,
  KeyRow,
  SheetRow,
  WishRow,
  WindowRow,
  WindowSourceRow,
  type UserRow,
} from '../db/models';
import { rightsOf } from './rights';

/** A call as far as it says which calendars it concerns. */
export interface Asked {
  readonly name: CallName;
  /** Returns a part of the path. */
  readonly param: (name: string) => string;
  /** As it was checked. */
  readonly body: object;
}

/** Calendars that a call concerns: it is enough to have the right to one of each group, but it must be to all groups. */
type Groups = readonly (readonly string[])[];

/**
 * Returns what somebody may do, where the call is one that they may make: the one place that asks. Throws `not-found` where
 * it leads to something of which they may not even know, else `steward-only` or `not-allowed` with who could do it.
 */
export async function guard(asked: Asked, user: UserRow): Promise<HouseRights> {
  const rights = await rightsOf(user);
  const right = CALL_RIGHTS[asked.name];
  if (right === 'steward' && !may('run-house', rights.steward ? 'steward' : 'house'))
    throw new Problem('steward-only');
  if (typeof right === 'object') {
    const { deed, on } = right;
    const groups = await CONCERNED[on](asked, user, rights);
    for (const group of groups) {
      if (group.some((id) => rights.may(deed, id)) || (!group.length && rights.steward)) continue;
      refuse(deed, OF_WINDOWS.has(on) ? groups.flat() : null, group, rights);
    }
  }
  return rights;
}

/** `sources` are those of the window that is concerned, where it is one. */
function refuse(
  deed: Deed,
  sources: readonly string[] | null,
  group: readonly string[],
  rights: HouseRights,
): never {
  const inSight = group.filter((id) => rights.sight(id) !== 'shut');
  const known = sources
    ? sources.some((id) => rights.may('see-windows', id))
    : !group.length || inSight.length > 0;
  if (!known) throw new Problem('not-found');
  throw new Problem('not-allowed', {
    right: deed,
    deed: deedWords(deed),
    who: whoMay(deed),
    calendars: inSight,
  });
}

/** What stands on windows is known to those alone who see one of its calendars' windows. */
const OF_WINDOWS: ReadonlySet<Concerned> = new Set([
  'all of a window',
  'all of a window and sent draft',
  'all of a window and stored draft',
  'any of a window',
  'all of a key',
  'any of a key',
  'sheet',
  'sheet and items',
  'items',
]);

const each = (ids: readonly string[]): Groups => [...new Set(ids)].map((id) => [id]);

async function sourcesOf(windowIds: readonly string[]): Promise<Groups> {
  const ids = windowIds.filter((id) => isUUID(id));
  const windows = await WindowRow.findAll({ where: { id: ids }, attributes: ['id'] });
  if (windows.length < new Set(windowIds).size) throw new Problem('not-found');
  const rows = await WindowSourceRow.findAll({ where: { windowId: ids } });
  return windows.map((w) => rows.filter((r) => r.windowId === w.id).map((r) => r.calendarId));
}

/** Each source of a window by itself; one with no source at all is a steward's. */
async function allOf(windowId: string): Promise<Groups> {
  const [sources = []] = await sourcesOf([windowId]);
  return sources.length ? each(sources) : [[]];
}

/** Returns the same as {@link allOf}. Throws `not-found` if the asker may not even know of the window, whatever else is sent with it. */
async function allOfKnown(windowId: string, rights: HouseRights): Promise<Groups> {
  const groups = await allOf(windowId);
  if (!rights.steward && !groups.flat().some((id) => rights.may('see-windows', id)))
    throw new Problem('not-found');
  return groups;
}

async function windowOfKey(id: string): Promise<string> {
  const key = isUUID(id) ? await KeyRow.findByPk(id) : null;
  if (!key) throw new Problem('not-found');
  return key.windowId;
}

/** Throws `not-found` where one of them is in a calendar of which the asker does not see everything: else its id would tell. */
async function calendarsOfEntries(ids: readonly string[], rights: HouseRights): Promise<string[]> {
  const rows = await EntryRow.findAll({ where: { id: [...new Set(ids)] }, attributes: ['calendarId'] });
  if (!rows.every((r) => rights.may('see-all', r.calendarId))) throw new Problem('not-found');
  return rows.map((r) => r.calendarId);
}

/** One with nothing on it is its maker's. */
async function ofSheet(id: string, user: UserRow): Promise<Groups> {
  const row = isUUID(id) ? await SheetRow.findByPk(id) : null;
  if (!row) throw new Problem('not-found');
  if (!row.items.length) return row.userId === user.id ? [] : [[]];
  return sourcesOf(row.items.map((i) => i.windowId));
}

/** What is put on a sheet has to be there, and to be known: both are answered alike where it is not. */
async function checkItems({ body }: Asked, rights: HouseRights): Promise<Groups> {
  const ids = [...new Set((body as { items: readonly SheetItem[] }).items.map((i) => i.windowId))];
  const rows = await WindowSourceRow.findAll({ where: { windowId: ids } });
  const seen = (id: string) =>
    rows.some((r) => r.windowId === id && rights.may('see-windows', r.calendarId)) ||
    (rights.steward && rows.every((r) => r.windowId !== id));
  if (!ids.every(seen)) throw new Problem('link-unknown');
  return [];
}

/** A draft is kept as it was typed: its sources may be missing, or be no sources at all. */
function ofDraft(body: unknown, rights: HouseRights): Groups {
  const sources = (body as { sources?: unknown } | null | undefined)?.sources;
  const listed = Array.isArray(sources) ? (sources as ({ calendarId?: unknown } | null)[]) : [];
  const ids = listed.flatMap((s) =>
    typeof s?.calendarId === 'string' ? [{ calendarId: s.calendarId }] : [],
  );
  return ofSources(ids, rights);
}

/** Calendars that are not there and those that may not be known of are answered alike. */
function ofSources(sources: readonly { readonly calendarId: string }[], rights: HouseRights): Groups {
  // More than that is refused whatever they are.
  if (sources.length > WINDOW_LIMITS.sources) return [];
  const ids = sources.map((s) => s.calendarId);
  if (ids.some((id) => rights.sight(id) === 'shut')) throw new Problem('source-missing');
  return each(ids);
}

/** Finds the calendars that a call concerns. Throws `not-found` where it leads nowhere. */
const CONCERNED: Readonly<
  Record<Concerned, (asked: Asked, user: UserRow, rights: HouseRights) => Groups | Promise<Groups>>
> = {
  calendar: ({ param }) => [[param('id')]],
  // Whoever sees everything of it has nothing to ask for.
  'known calendar': ({ param }, _user, rights) => {
    if (!rights.knows(param('id'))) throw new Problem('not-found');
    return [[param('id')]];
  },
  wish: async ({ param }, _user, rights) => {
    const wish = isUUID(param('id')) ? await WishRow.findByPk(param('id')) : null;
    if (!wish || !rights.may('see-all', wish.calendarId)) throw new Problem('not-found');
    return [[wish.calendarId]];
  },
  source: ({ param }) => [[param('calendarId')]],
  entry: async ({ param }, _user, rights) => {
    const [calendarId] = isUUID(param('id')) ? await calendarsOfEntries([param('id')], rights) : [];
    if (!calendarId) throw new Problem('not-found');
    return [[calendarId]];
  },
  changes: async ({ body }, _user, rights) => {
    const { changes } = body as { changes: readonly Pick<EntryChange, 'id' | 'continues' | 'calendarId'>[] };
    const ids = changes.flatMap((c) => [c.id ?? [], c.continues ?? []].flat());
    const from = await calendarsOfEntries(ids, rights);
    return each([...changes.map((c) => c.calendarId), ...from]);
  },
  edit: async ({ param }, user) => {
    const id = param('id');
    const edit = isUUID(id) ? await EditRow.findOne({ where: { id, userId: user.id } }) : null;
    if (!edit) throw new Problem('not-found');
    const rows = await EditEntryRow.sequelize!.query<{ id: string }>(
      `SELECT DISTINCT concerned.id FROM edit_entries e LEFT JOIN entries n ON n.id = e.entry_id, LATERAL (
         VALUES (e.before->>'calendarId'), (e.after->>'calendarId'), (n.calendar_id::text)
       ) AS concerned(id) WHERE e.edit_id = :edit AND concerned.id IS NOT NULL`,
      { replacements: { edit: id }, type: QueryTypes.SELECT },
    );
    return each([...rows.map((r) => r.id), ...(edit.calendar ? [edit.calendar.id] : [])]);
  },
  sources: ({ body }, _user, rights) =>
    ofSources((body as { sources: { calendarId: string }[] }).sources, rights),
  // One of the house is asked for by whoever looks after a calendar.
  ceiling: ({ body }, _user, rights) => {
    const { calendarId } = body as { calendarId?: string | null };
    return [calendarId ? [calendarId] : rights.calendarsFor('ask-ceiling')];
  },
  'all of a window': ({ param }) => allOf(param('id')),
  'all of a window and sources': async (asked, _user, rights) => [
    ...(await allOfKnown(asked.param('id'), rights)),
    ...ofSources((asked.body as { sources: { calendarId: string }[] }).sources, rights),
  ],
  'all of a window and sent draft': async ({ param, body }, _user, rights) => [
    ...(await allOfKnown(param('id'), rights)),
    ...ofDraft((body as { body?: unknown }).body, rights),
  ],
  'all of a window and stored draft': async ({ param }, _user, rights) => [
    ...(await allOfKnown(param('id'), rights)),
    ...ofDraft((await DraftRow.findByPk(param('id')))?.body, rights),
  ],
  'any of a window': ({ param }) => sourcesOf([param('id')]),
  'all of a key': async ({ param }) => allOf(await windowOfKey(param('id'))),
  'any of a key': async ({ param }) => sourcesOf([await windowOfKey(param('id'))]),
  sheet: ({ param }, user) => ofSheet(param('id'), user),
  'sheet and items': async (asked, user, rights) => {
    await checkItems(asked, rights);
    return ofSheet(asked.param('id'), user);
  },
  items: (asked, _user, rights) => checkItems(asked, rights),
};
