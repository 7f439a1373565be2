import type { Entry, Range } from '@zonal/core/entries';
import { Problem } from '@zonal/core/problems';
import { entriesInside, rangeInside, type HouseRights, type InsideGlass } from '@zonal/core/rights';
import { createHash } from 'node:crypto';
import { LRUCache } from 'lru-cache';
import { QueryTypes } from 'sequelize';
import { secretFor } from '../db/sealed';
import { CalendarRow, ChangeRow, EntryRow } from '../db/models';
import { entryOf } from './entryStore';

/** Entries that are kept of what was worked out last. */
const MOST_KEPT = 200_000;
/** Changes are forgotten after days, so what was worked out is so much earlier. */
const KEPT_FOR = 10 * 60_000;

/** What somebody sees of a calendar through a glass, and a print of it that says nothing else. */
export interface InsideSeen {
  readonly entries: readonly Entry[];
  readonly print: string;
}

async function lastChangeOf(calendarId: string): Promise<string> {
  const [row] = await ChangeRow.sequelize!.query<{ last: string | null }>(
    'SELECT max(id) AS last FROM changes WHERE calendar_ids @> CAST(:ids AS jsonb)',
    { replacements: { ids: JSON.stringify([calendarId]) }, type: QueryTypes.SELECT },
  );
  return row?.last ?? '';
}

/** Works out what people inside see of calendars of which they do not see everything. */
export class InsideViews {
  private readonly kept = new LRUCache<string, InsideSeen>({
    maxSize: MOST_KEPT,
    ttl: KEPT_FOR,
    sizeCalculation: ({ entries }) => entries.length + 1,
  });

  /**
   * Returns what somebody sees of a calendar through their glass. Throws `not-found` for a calendar of which they see nothing,
   * `sight-stopped` where it cannot be worked out: what stands in the way is nothing that they may know.
   */
  async seen(calendarId: string, rights: HouseRights): Promise<InsideSeen> {
    if (rights.sight(calendarId) === 'shut') throw new Problem('not-found');
    const through = rights.through(calendarId);
    const last = await lastChangeOf(calendarId);
    const calendar = await CalendarRow.findByPk(calendarId, { attributes: ['id', 'zone', 'labelHolds'] });
    if (!calendar) throw new Problem('not-found');
    const range = rangeInside(calendar.zone, Date.now());
    const name = JSON.stringify([
      calendarId,
      calendar.zone,
      calendar.labelHolds,
      through,
      rights.ceilings,
      last,
      range,
    ]);
    const known = this.kept.get(name);
    if (known) return known;
    const seen = await this.workOut(calendar, through, rights, range);
    this.kept.set(name, seen);
    return seen;
  }

  /** Returns the same entries, or none where they cannot be worked out. */
  async entriesOrNone(calendarId: string, rights: HouseRights): Promise<readonly Entry[]> {
    try {
      return (await this.seen(calendarId, rights)).entries;
    } catch (error) {
      if (error instanceof Problem) return [];
      throw error;
    }
  }

  private async workOut(
    { id, zone, labelHolds }: Pick<CalendarRow, 'id' | 'zone' | 'labelHolds'>,
    through: InsideGlass,
    { ceilings }: HouseRights,
    range: Range,
  ): Promise<InsideSeen> {
    const rows = await EntryRow.findAll({ where: { calendarId: id }, raw: true });
    const secret = secretFor(`inside|${id}|${through.audience}|${through.glass}`);
    try {
      const setting = { calendar: { id, zone, labelHolds }, ceilings, secret, range };
      const entries = entriesInside(rows.map(entryOf), through, setting);
      const print = createHash('sha256').update(JSON.stringify(entries)).digest('base64url');
      return { entries, print };
    } catch (error) {
      if (error instanceof Problem) throw new Problem('sight-stopped');
      throw error;
    }
  }
}
