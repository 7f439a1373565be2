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

/** What an answer about a calendar depends on beside rights, in the store. */
interface State {
  readonly calendar: Pick<CalendarRow, 'id' | 'zone' | 'labelHolds'>;
  /** The id of the last change to it that is still known. */
  readonly last: string;
}

/** Returns the states of calendars, by id, without those that are gone. */
async function statesOf(ids: readonly string[]): Promise<Map<string, State>> {
  if (!ids.length) return new Map();
  const [changes, calendars] = await Promise.all([
    ChangeRow.sequelize!.query<{ id: string; last: string }>(
      `SELECT one AS id, max(changes.id) AS last FROM changes, jsonb_array_elements_text(calendar_ids) AS one
       WHERE one IN (:ids) GROUP BY one`,
      { replacements: { ids }, type: QueryTypes.SELECT },
    ),
    CalendarRow.findAll({ where: { id: ids as string[] }, attributes: ['id', 'zone', 'labelHolds'] }),
  ]);
  const last = new Map(changes.map((row) => [row.id, row.last]));
  return new Map(calendars.map((calendar) => [calendar.id, { calendar, last: last.get(calendar.id) ?? '' }]));
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
    const state = (await statesOf([calendarId])).get(calendarId);
    if (!state) throw new Problem('not-found');
    return this.seenIn(state, rights);
  }

  /** Returns the entries of several calendars as somebody sees them, by id: none where they cannot be worked out. */
  async entriesOf(
    calendarIds: readonly string[],
    rights: HouseRights,
  ): Promise<Map<string, readonly Entry[]>> {
    const states = await statesOf(calendarIds.filter((id) => rights.sight(id) !== 'shut'));
    const told = new Map<string, readonly Entry[]>();
    for (const id of calendarIds) {
      const state = states.get(id);
      told.set(id, state ? await this.entriesOrNone(state, rights) : []);
    }
    return told;
  }

  private async seenIn({ calendar, last }: State, rights: HouseRights): Promise<InsideSeen> {
    const through = rights.through(calendar.id);
    const range = rangeInside(calendar.zone, Date.now());
    const name = JSON.stringify([
      calendar.id,
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

  private async entriesOrNone(state: State, rights: HouseRights): Promise<readonly Entry[]> {
    try {
      return (await this.seenIn(state, rights)).entries;
    } catch (error) {
      if (error instanceof Problem) return [];
      throw error;
    }
  }

  private async workOut(
    { id, zone, labelHolds }: State['calendar'],
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
