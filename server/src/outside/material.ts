import type { Entry } from '@zonal/core/entries';
import { LRUCache } from 'lru-cache';
import { Op, QueryTypes, type Sequelize, type Transaction } from 'sequelize';
import { ChangeRow, EntryRow, type EditTarget, type EntryState } from '../db/models';
import { readSnapshot } from '../db/snapshot';
import { entryOf, entryOfState } from '../inside/entryStore';

/** An entry before and after a change; null where it is not in a calendar that is looked at. */
export interface EntryChange {
  readonly before: Entry | null;
  readonly after: Entry | null;
}

/** Bytes that an entry takes in memory, more or less. */
const WEIGHT = 1_200;

/**
 * The entries of calendars in memory, as they were after one change of the log: as many as there is room for, others are
 * read again when they are needed. An entry that did not change stays the same object as long as it is here.
 */
export class Material {
  private readonly calendars: LRUCache<string, Map<string, Entry>>;

  constructor(room: number) {
    this.calendars = new LRUCache({
      maxSize: room,
      sizeCalculation: ({ size }) => (size + 1) * WEIGHT,
    });
  }

  /** Returns the entries of calendars as they were after a change, from here or from the store. */
  async entriesOf(sequelize: Sequelize, calendarIds: readonly string[], changeId: number): Promise<Entry[]> {
    const found = new Map(calendarIds.map((id) => [id, this.calendars.get(id)]));
    const missing = calendarIds.filter((id) => !found.get(id));
    if (missing.length) {
      const read = await readSnapshot(sequelize, (transaction) =>
        asAfter(sequelize, missing, changeId, transaction),
      );
      for (const [id, entries] of read) {
        found.set(id, entries);
        this.calendars.set(id, entries);
      }
    }
    const out: Entry[] = [];
    for (const entries of found.values()) for (const entry of entries!.values()) out.push(entry);
    return out;
  }

  /** Returns whether a calendar's entries are here. */
  has(calendarId: string): boolean {
    return this.calendars.has(calendarId);
  }

  /** Takes in what an edit did, and returns it, as far as it concerns some calendars; others are not here. */
  async apply(
    sequelize: Sequelize,
    edit: EditTarget,
    calendarIds: readonly string[],
  ): Promise<EntryChange[]> {
    const concerned = new Set(calendarIds);
    const rows = await statesOf(sequelize, edit.id, calendarIds);
    const changed = new Set<string>();
    const changes = rows.map((row): EntryChange => {
      const [was, is] = [row[OTHER[edit.target]], row[edit.target]];
      const before = was && (this.calendars.peek(was.calendarId)?.get(was.id) ?? was);
      if (was) this.calendars.peek(was.calendarId)?.delete(was.id);
      if (is) this.calendars.peek(is.calendarId)?.set(is.id, is);
      for (const one of [was, is]) if (one) changed.add(one.calendarId);
      const within = (one: Entry | null) => (one && concerned.has(one.calendarId) ? one : null);
      return { before: within(before), after: within(is) };
    });
    // What they weigh now.
    for (const id of changed) {
      const entries = this.calendars.peek(id);
      if (entries) this.calendars.set(id, entries);
    }
    return changes;
  }

  /** Forgets a calendar and what was in it. */
  drop(calendarId: string): void {
    this.calendars.delete(calendarId);
  }
}

/** Reads calendars as they were after a change, from what is stored now and from what later changes did. */
async function asAfter(
  sequelize: Sequelize,
  calendarIds: readonly string[],
  changeId: number,
  transaction: Transaction,
): Promise<Map<string, Map<string, Entry>>> {
  const calendars = new Map(calendarIds.map((id) => [id, new Map<string, Entry>()]));
  for (const row of await EntryRow.findAll({
    where: { calendarId: [...calendarIds] },
    raw: true,
    transaction,
  }))
    calendars.get(row.calendarId)!.set(row.id, entryOf(row));
  const later = await ChangeRow.findAll({
    attributes: ['edit'],
    where: { id: { [Op.gt]: changeId } },
    order: [['id', 'DESC']],
    transaction,
  });
  for (const { edit } of later) {
    if (!edit) continue;
    for (const row of await statesOf(sequelize, edit.id, calendarIds, transaction)) {
      const [was, is] = [row[OTHER[edit.target]], row[edit.target]];
      if (is) calendars.get(is.calendarId)?.delete(is.id);
      if (was) calendars.get(was.calendarId)?.set(was.id, was);
    }
  }
  return calendars;
}

const OTHER = { before: 'after', after: 'before' } as const;

/** Returns the entries that an edit concerns in some calendars, before and after it; null where one is not there. */
async function statesOf(
  sequelize: Sequelize,
  editId: string,
  calendarIds: readonly string[],
  transaction?: Transaction,
): Promise<Record<EditTarget['target'], Entry | null>[]> {
  if (!calendarIds.length) return [];
  const rows = await sequelize.query<{ id: string; before: EntryState | null; after: EntryState | null }>(
    `SELECT entry_id AS id, before, after FROM edit_entries
     WHERE edit_id = :editId AND (before->>'calendarId' IN (:calendarIds) OR after->>'calendarId' IN (:calendarIds))
     ORDER BY entry_id`,
    {
      replacements: { editId, calendarIds },
      type: QueryTypes.SELECT,
      ...(transaction ? { transaction } : {}),
    },
  );
  return rows.map(({ id, before, after }) => ({
    before: entryOfState(id, before),
    after: entryOfState(id, after),
  }));
}
