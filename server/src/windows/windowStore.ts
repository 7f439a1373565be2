import type { WindowRules } from '@zonal/core/glass';
import { Problem } from '@zonal/core/problems';
import { isUUID } from 'class-validator';
import type { Transaction } from 'sequelize';
import { KeyRow, WindowRow, WindowSourceRow } from '../db/models';

/** A window with its sources and keys, as the API gives it. */
export interface WindowAnswer extends WindowRules {
  readonly id: string;
  readonly slug: string;
  readonly listed: boolean;
  readonly closedAt: string | null;
  readonly version: number;
  readonly keys: readonly KeyAnswer[];
}

export interface KeyAnswer {
  readonly id: string;
  readonly madeOutTo: string;
  readonly audience: KeyRow['audience'];
  readonly cap: KeyRow['cap'];
  readonly token: string;
  readonly see: string;
  readonly embed: string;
  readonly feed: string;
  readonly copy: string;
}

/** Returns the rules of a window for the core. */
export function rulesOf(row: WindowRow, sources: readonly WindowSourceRow[]): WindowRules {
  const { description, colour, busyWord, dueAs, ...rest } = row.settings;
  return {
    ...rest,
    wording: { name: row.name, description, colour, busyWord, dueAs },
    secret: row.secret,
    sources: [...sources]
      .sort((a, b) => a.position - b.position)
      .map(({ calendarId, glass }) => ({ calendarId, glass })),
  };
}

/** Returns the name of the view that a key opens: keys of one audience and cap share it. */
export function viewIdOf({ windowId, audience, cap }: Pick<KeyRow, 'windowId' | 'audience' | 'cap'>): string {
  return `${windowId}|${audience}|${cap ?? ''}`;
}

/** Returns all outward addresses of a key. */
export function addressesOf(publicUrl: string, token: string) {
  return {
    see: `${publicUrl}/see/${token}`,
    embed: `${publicUrl}/embed/${token}`,
    feed: `${publicUrl}/feed/${token}.ics`,
    copy: `${publicUrl}/copy/${token}.ics`,
  };
}

/** Returns windows with sources and keys: one, or all by name. */
export async function windowAnswers(
  publicUrl: string,
  id?: string,
  transaction?: Transaction,
): Promise<WindowAnswer[]> {
  const t = transaction ?? null;
  const rows = await WindowRow.findAll({ where: id ? { id } : {}, order: [['name', 'ASC']], transaction: t });
  const where = { windowId: rows.map((r) => r.id) };
  const sources = await WindowSourceRow.findAll({ where, transaction: t });
  const keys = await KeyRow.findAll({ where, order: [['createdAt', 'ASC']], transaction: t });
  return rows.map((row) => ({
    ...rulesOf(
      row,
      sources.filter((s) => s.windowId === row.id),
    ),
    id: row.id,
    slug: row.slug,
    listed: row.listed,
    closedAt: row.closedAt?.toISOString() ?? null,
    version: row.version,
    keys: keys
      .filter((k) => k.windowId === row.id)
      .map((k) => ({
        id: k.id,
        madeOutTo: k.madeOutTo,
        audience: k.audience,
        cap: k.cap,
        token: k.token,
        ...addressesOf(publicUrl, k.token),
      })),
  }));
}

/** Returns one window. Throws `not-found`. */
export async function windowAnswer(publicUrl: string, id: string): Promise<WindowAnswer> {
  const [found] = isUUID(id) ? await windowAnswers(publicUrl, id) : [];
  if (!found) throw new Problem('not-found');
  return found;
}
