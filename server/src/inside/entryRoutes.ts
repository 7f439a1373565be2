import type { EditAnswer } from '@zonal/core/api';
import { ENTRY_LIMITS, FIND_IN, extentOf, finder, found, wallOf, type Entry } from '@zonal/core/entries';
import { DAY } from '@zonal/core/zones';
import { Problem } from '@zonal/core/problems';
import { isUUID } from 'class-validator';
import { Op, type Sequelize } from 'sequelize';
import { calendarOf } from './calendarStore';
import type { MakeChange } from '../db/changes';
import { EntryRow } from '../db/models';
import { editNow } from './editStore';
import { route } from '../http/route';
import { EntryInput } from './entryInput';
import { historyOf } from './entryHistory';
import { entryOf, within } from './entryStore';
import type { InsideViews } from './insideViews';

const MOST_DAYS = 366 * 5;
const MOST_FOUND = 200;
const PAGE = 500;

async function rowOf(id: string): Promise<EntryRow> {
  const row = isUUID(id) ? await EntryRow.findByPk(id) : null;
  if (!row) throw new Problem('not-found');
  return row;
}

/** Returns the version that an address names; 0 for none. Throws `value-out-of-range`. */
function versionIn(text: unknown): number {
  if (text === undefined) return 0;
  if (typeof text !== 'string' || !/^\d{1,9}$/.test(text)) throw new Problem('value-out-of-range');
  return Number(text);
}

function stretch(from: unknown, to: unknown): { from: Date; to: Date } | null {
  if (from === undefined && to === undefined) return null;
  const [a, b] = [new Date(String(from)), new Date(String(to))];
  for (const [text, date] of [
    [from, a],
    [to, b],
  ] as const) {
    const year = date.getUTCFullYear();
    if (!(year >= ENTRY_LIMITS.firstYear && year <= ENTRY_LIMITS.lastYear))
      throw new Problem('time-invalid', { text: String(text) });
  }
  if (b <= a) throw new Problem('range-invalid');
  if (b.getTime() - a.getTime() > MOST_DAYS * DAY)
    throw new Problem('range-too-long', { limit: 'five years' });
  return { from: a, to: b };
}

/** Whether an entry can take place in a stretch of time. */
function canTouch(entry: Entry, zone: string, { from, to }: { from: Date; to: Date }): boolean {
  const extent = extentOf(entry, zone);
  return extent.from - DAY < to.getTime() && extent.to + DAY > from.getTime();
}

export const entryRoutes = (sequelize: Sequelize, makeChange: MakeChange, views: InsideViews) => [
  route('GET /calendars/:id/entries', {
    tag: 'Entries',
    summary:
      'Entries of a calendar, all or those that can take place in a stretch of time; who sees it through a glass gets what it lets through',
    query: { from: 'Start as an ISO 8601 instant', to: 'End as an ISO 8601 instant' },
    handle: async ({ req, param, rights }) => {
      const { id, zone } = await calendarOf(param('id'));
      const range = stretch(req.query['from'], req.query['to']);
      if (rights.sight(id) !== 'all') {
        const { entries } = await views.seen(id, rights);
        return range ? entries.filter((entry) => canTouch(entry, zone, range)) : entries;
      }
      const where = { calendarId: id, ...(range ? within(range.from, range.to) : {}) };
      return (await EntryRow.findAll({ where, order: [['firstAt', 'ASC']] })).map(entryOf);
    },
  }),
  route('POST /calendars/:id/entries', {
    tag: 'Entries',
    summary: 'Write an entry',
    body: EntryInput,
    status: 201,
    again: (_call, edit) => (edit as EditAnswer).entries[0]!,
    handle: async ({ body: { version: _version, lineage: _lineage, ...entry }, param, user }) => {
      const { id: calendarId } = await calendarOf(param('id'));
      const label = `Wrote ${entry.title}`;
      const { entries } = await editNow(sequelize, makeChange, user.id, label, [
        { version: 0, calendarId, entry },
      ]);
      return entries[0]!;
    },
  }),
  route('GET /find', {
    tag: 'Entries',
    summary: 'Entries in which something is found, those that begin last first; only in what the asker sees',
    query: { text: 'Words that must all be found', in: `Where: ${FIND_IN.join(', ')}` },
    handle: async ({ req, rights }) => {
      const query = {
        text: String(req.query['text'] ?? ''),
        in: FIND_IN.find((f) => f === req.query['in']) ?? 'text',
      };
      const matches = finder(query);
      const hits: Entry[] = [];
      const calendarId = rights.calendarsFor('see-all');
      const partly = rights.inSight().filter((id) => !calendarId.includes(id));
      for (const seen of (await views.entriesOf(partly, rights)).values())
        for (const entry of seen) if (found(entry, matches)) hits.push(entry);
      // In pages, so that other work gets its turn.
      for (let last = ''; ;) {
        const where = { calendarId, ...(last ? { id: { [Op.gt]: last } } : {}) };
        const rows = await EntryRow.findAll({ where, order: [['id', 'ASC']], limit: PAGE });
        hits.push(...rows.map(entryOf).filter((entry) => found(entry, matches)));
        if (rows.length < PAGE) break;
        last = rows.at(-1)!.id;
      }
      hits.sort((a, b) => wallOf(b.start) - wallOf(a.start));
      return { total: hits.length, entries: hits.slice(0, MOST_FOUND) };
    },
  }),
  route('GET /entries/:id', {
    tag: 'Entries',
    summary: 'One entry',
    handle: async ({ param }) => entryOf(await rowOf(param('id'))),
  }),
  route('GET /entries/:id/history', {
    tag: 'Entries',
    summary:
      'The edits of an entry of the last 60 days, newest first, with the revisions of windows that followed',
    handle: async ({ param, rights }) => historyOf(sequelize, entryOf(await rowOf(param('id'))), rights),
  }),
  route('PUT /entries/:id', {
    tag: 'Entries',
    summary: 'Change an entry; 409 with both versions when somebody else changed it first',
    body: EntryInput,
    again: (_call, edit) => (edit as EditAnswer).entries[0]!,
    handle: async ({ body: { version, lineage: _lineage, ...entry }, param, user }) => {
      const { id, uid, calendarId, imported } = await rowOf(param('id'));
      const change = { id, uid, calendarId, imported, version: version ?? 0, entry };
      const { entries } = await editNow(sequelize, makeChange, user.id, `Changed ${entry.title}`, [change]);
      return entries[0]!;
    },
  }),
  route('DELETE /entries/:id', {
    tag: 'Entries',
    summary: 'Delete an entry; 409 when somebody else changed it first',
    query: { version: 'The version that was seen' },
    again: () => undefined,
    handle: async ({ req, param, user }) => {
      const { id, calendarId, data } = await rowOf(param('id'));
      const change = { id, calendarId, version: versionIn(req.query['version']), entry: null };
      await editNow(sequelize, makeChange, user.id, `Deleted ${data.title}`, [change]);
    },
  }),
];
