import type { Journal, JournalLine } from '@zonal/core/api';
import { AUDIENCE_WORDS, type Audience } from '@zonal/core/glass';
import {
  JOURNAL_AREAS,
  journalChanges,
  turnOf,
  type JournalArea,
  type JournalKindName,
} from '@zonal/core/journal';
import { Problem } from '@zonal/core/problems';
import { isUUID } from 'class-validator';
import { QueryTypes, type Sequelize } from 'sequelize';
import { requestLanguage } from '../http/requestLanguage';
import { route } from '../http/route';

/** Lines of one page. */
const PAGE = 100;

type Noted = Readonly<Record<string, unknown>> | null;

interface Row {
  readonly id: string;
  readonly at: Date;
  readonly user_name: string;
  readonly area: JournalArea;
  readonly kind: JournalKindName;
  readonly item: Readonly<Record<string, string | number | null>>;
  readonly before: Noted;
  readonly after: Noted;
}

/** Names of what has an id, as they are, or were before it was gone. */
async function namesOf(sequelize: Sequelize, ids: readonly string[]): Promise<ReadonlyMap<string, string>> {
  if (!ids.length) return new Map();
  const rows = await sequelize.query<{ id: string; name: string | null }>(
    `SELECT item->>'id' AS id, coalesce(before->>'name', before->>'made_out_to', before->>'email') AS name FROM journal
       WHERE after IS NULL AND item->>'id' IN (:ids)
     UNION ALL SELECT id::text, name FROM users WHERE id::text IN (:ids)
     UNION ALL SELECT id::text, name FROM calendars WHERE id::text IN (:ids)
     UNION ALL SELECT id::text, name FROM windows WHERE id::text IN (:ids)
     UNION ALL SELECT id::text, made_out_to FROM keys WHERE id::text IN (:ids)
     UNION ALL SELECT id::text, name FROM link_sheets WHERE id::text IN (:ids)
     UNION ALL SELECT id::text, email FROM invitations WHERE id::text IN (:ids)`,
    { replacements: { ids: [...ids] }, type: QueryTypes.SELECT },
  );
  return new Map(rows.flatMap(({ id, name }) => (name ? [[id, name] as const] : [])));
}

/** Ids in what was changed are told as names. */
const ID = /[0-9a-f]{8}(?:-[0-9a-f]{4}){3}-[0-9a-f]{12}/g;

/** Columns that name what a line concerns, in the order in which it is told. */
const NAMING = ['user_id', 'key_id', 'id', 'calendar_id', 'window_id'] as const;

function aboutWords(row: Row, names: ReadonlyMap<string, string>): string {
  const { item, kind } = row;
  if (kind === 'house' || kind === 'mail_settings') return '';
  const named = NAMING.flatMap((column) => {
    const id = item[column];
    return typeof id === 'string' ? (names.get(id) ?? []) : [];
  });
  const audience = item['audience'];
  if (kind === 'ceilings')
    return [AUDIENCE_WORDS[audience as Audience].word, named[0] ?? 'the whole house'].join(' · ');
  return named.join(' · ');
}

async function people(sequelize: Sequelize): Promise<Journal['people']> {
  return sequelize.query<{ id: string; name: string }>(
    `SELECT u.id, u.name FROM users u WHERE EXISTS (SELECT 1 FROM journal j WHERE j.user_id = u.id) ORDER BY u.name`,
    { type: QueryTypes.SELECT },
  );
}

/** Returns the instant that a text names, or null for none. Throws `time-invalid`. */
function momentIn(text: unknown): Date | null {
  if (text === undefined || text === '') return null;
  const at = new Date(String(text));
  if (Number.isNaN(at.getTime())) throw new Problem('time-invalid', { text: String(text) });
  return at;
}

export const journalRoutes = (sequelize: Sequelize) => [
  route('GET /journal', {
    tag: 'House',
    summary:
      'Who changed people, rights, ceilings, windows and keys, when, from what to what; newest first; for stewards',
    query: {
      area: Object.keys(JOURNAL_AREAS).join(', '),
      by: 'id of a person',
      about: 'id of a calendar, a window, a key or a person that it concerns',
      from: 'from this instant on (ISO 8601)',
      to: 'before this instant (ISO 8601)',
      before: 'lines older than the one with this id',
    },
    handle: async ({ req }) => {
      const { area, by, about, from, to, before } = req.query;
      const older = before === undefined || before === '' ? null : Number(before);
      if (older !== null && !Number.isSafeInteger(older))
        throw new Problem('request-malformed', { reason: '“before” is the number of a line' });
      const rows = await sequelize.query<Row>(
        `SELECT id, at, user_name, area, kind, item, before, after FROM journal
         WHERE (:area::text IS NULL OR area = :area) AND (:by::uuid IS NULL OR user_id = :by::uuid)
           AND (:about::text IS NULL OR EXISTS (SELECT 1 FROM jsonb_each_text(item) WHERE value = :about))
           AND (:from::timestamptz IS NULL OR at >= :from) AND (:to::timestamptz IS NULL OR at < :to)
           AND (:older::bigint IS NULL OR id < :older)
         ORDER BY id DESC LIMIT ${PAGE + 1}`,
        {
          replacements: {
            area: area ? String(area) : null,
            // Nobody has an id that is none.
            by: by ? (isUUID(by) ? by : '00000000-0000-0000-0000-000000000000') : null,
            about: about ? String(about) : null,
            from: momentIn(from),
            to: momentIn(to),
            older,
          },
          type: QueryTypes.SELECT,
        },
      );
      const told = rows.slice(0, PAGE);
      const changes = new Map(
        told.map((row) => [row.id, journalChanges(row.before, row.after, requestLanguage(req))]),
      );
      const named = JSON.stringify([...changes.values()]).match(ID) ?? [];
      const ids = told.flatMap((row) =>
        NAMING.flatMap((c) => (typeof row.item[c] === 'string' ? row.item[c] : [])),
      );
      const names = await namesOf(sequelize, [...new Set([...ids, ...named])]);
      const withNames = (text: string) => text.replace(ID, (id) => names.get(id) ?? 'what is gone');
      const lines = told.map((row): JournalLine => ({
        id: Number(row.id),
        at: row.at.toISOString(),
        by: row.user_name,
        area: row.area,
        kind: row.kind,
        turn: turnOf(row.before, row.after),
        about: aboutWords(row, names),
        changes: changes.get(row.id)!.map((c) => ({ ...c, from: withNames(c.from), to: withNames(c.to) })),
      }));
      return { lines, more: rows.length > PAGE, people: await people(sequelize) };
    },
  }),
];
