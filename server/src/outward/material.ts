import type { Entry } from '@zonal/core/entries';
import { Op, QueryTypes, type Sequelize, type Transaction } from 'sequelize';
import { ChangeRow, EntryRow, type EditTarget, type EntryState } from '../db/models';
import { entryOf } from '../entries/entryStore';

/** An entry before and after a change; null where it is not in a calendar that is looked at. */
export interface EntryChange {
  readonly before: Entry | null;
  readonly after: Entry | null;
}

/** The entries of calendars in memory, as they were after one change of the log. An entry that did not change stays the same object. */
export class Material {
  private readonly calendars = new Map<string, Map<string, Entry>>();
  private readonly places = new Map<string, string>();

  /** Returns whether a calendar's entries are here. */
  has(calendarId: string): boolean {
    return this.calendars.has(calendarId);
  }

  /** Returns the entries of a calendar; none where it is not here. */
  entriesOf(calendarId: string): Iterable<Entry> {
    return this.calendars.get(calendarId)?.values() ?? [];
  }

  /** Reads calendars as they were after a change, from what is stored now and from what later changes did. */
  async load(
    sequelize: Sequelize,
    calendarIds: readonly string[],
    changeId: number,
    transaction: Transaction,
  ): Promise<void> {
    for (const calendarId of calendarIds) {
      const rows = await EntryRow.findAll({ where: { calendarId }, transaction });
      this.calendars.set(calendarId, new Map());
      for (const row of rows) this.put(entryOf(row));
    }
    const later = await ChangeRow.findAll({
      where: { id: { [Op.gt]: changeId } },
      order: [['id', 'DESC']],
      transaction,
    });
    for (const { edit } of later) {
      if (!edit) continue;
      const states = await statesOf(
        sequelize,
        { id: edit.id, target: OTHER[edit.target] },
        calendarIds,
        transaction,
      );
      for (const [id, entry] of states) this.set(id, entry, calendarIds);
    }
  }

  /** Takes in what an edit did, and returns it, as far as its calendars are here. */
  async apply(sequelize: Sequelize, edit: EditTarget): Promise<EntryChange[]> {
    const here = [...this.calendars.keys()];
    const states = await statesOf(sequelize, edit, here);
    return [...states].map(([id, after]) => {
      const before = this.find(id);
      return { before, after: this.set(id, after, here) };
    });
  }

  /** Forgets a calendar and what was in it. */
  drop(calendarId: string): void {
    for (const { id } of this.entriesOf(calendarId)) this.places.delete(id);
    this.calendars.delete(calendarId);
  }

  private find(id: string): Entry | null {
    const place = this.places.get(id);
    return (place !== undefined && this.calendars.get(place)?.get(id)) || null;
  }

  private set(id: string, entry: Entry | null, here: readonly string[]): Entry | null {
    const place = this.places.get(id);
    if (place !== undefined) {
      this.places.delete(id);
      this.calendars.get(place)?.delete(id);
    }
    if (!entry || !here.includes(entry.calendarId)) return null;
    this.put(entry);
    return entry;
  }

  private put(entry: Entry): void {
    this.calendars.get(entry.calendarId)?.set(entry.id, entry);
    this.places.set(entry.id, entry.calendarId);
  }
}

const OTHER = { before: 'after', after: 'before' } as const;

/** Returns the entries that an edit concerns in some calendars, as they are before or after it; null for one that is not there. */
async function statesOf(
  sequelize: Sequelize,
  { id, target }: EditTarget,
  calendarIds: readonly string[],
  transaction?: Transaction,
): Promise<Map<string, Entry | null>> {
  if (!calendarIds.length) return new Map();
  const rows = await sequelize.query<{ entry_id: string; state: EntryState | null }>(
    `SELECT entry_id, ${target} AS state FROM edit_entries
     WHERE edit_id = :id AND (before->>'calendarId' IN (:calendarIds) OR after->>'calendarId' IN (:calendarIds))
     ORDER BY entry_id`,
    { replacements: { id, calendarIds }, type: QueryTypes.SELECT, ...(transaction ? { transaction } : {}) },
  );
  return new Map(
    rows.map(({ entry_id: entryId, state }) => [
      entryId,
      state && {
        ...state.data,
        id: entryId,
        calendarId: state.calendarId,
        version: 0,
        uid: state.uid,
        imported: state.imported,
      },
    ]),
  );
}
