import type { Entry } from '@zonal/core/entries';
import { EntryRow } from '../db/models';
import { entryOf } from '../entries/entryStore';

/** The entries of calendars in memory. An entry that did not change stays the same object. */
export class Material {
  private readonly calendars = new Map<string, Map<string, Entry>>();

  /** Returns the entries of a calendar, read from the database the first time. */
  async entriesOf(calendarId: string): Promise<Iterable<Entry>> {
    let entries = this.calendars.get(calendarId);
    if (!entries) {
      const rows = await EntryRow.findAll({ where: { calendarId } });
      entries = new Map(rows.map((row) => [row.id, entryOf(row)]));
      this.calendars.set(calendarId, entries);
    }
    return entries.values();
  }

  /** Takes in what changed: the entries named, or the whole calendar. Calendars that nobody asked for stay out. */
  async refresh(calendarId: string, entryIds: readonly string[] | null): Promise<void> {
    const entries = this.calendars.get(calendarId);
    if (!entries) return;
    if (!entryIds) {
      this.calendars.delete(calendarId);
      return;
    }
    const rows = await EntryRow.findAll({ where: { id: [...entryIds], calendarId } });
    const found = new Map(rows.map((row) => [row.id, row]));
    for (const id of entryIds) {
      const row = found.get(id);
      if (row) entries.set(id, entryOf(row));
      else entries.delete(id);
    }
  }
}
