import { wallOf, type Entry, type When } from '@zonal/core/entries';
import { dayOfWall, type Day, type ZoneName } from '@zonal/core/zones';
import { itemsOf, keyOf, type DayRange, type DeskItem } from './deskDays';

/** An entry that was just written; `slot` names the date of its series that was meant, null for all. */
export interface Written {
  readonly entry: Entry;
  readonly slot: When | null;
}

/** A date of a series may be moved this far and still be found. */
const SEARCH_DAYS = 400;

/** Returns the first date of what was written, on the clocks of `zone`; null if there is none. */
export function firstItemOf({ entry, slot }: Written, zone: ZoneName, home: ZoneName): DeskItem | null {
  const around: Day = dayOfWall(wallOf(slot ?? entry.start));
  const range = { from: around - (slot ? SEARCH_DAYS : 1), to: around + SEARCH_DAYS };
  const items = itemsOf([entry], range, zone, home);
  return (slot ? items.find((item) => item.key === keyOf(entry, slot)) : items[0]) ?? null;
}

/** Returns whether nothing of what was written is among the days from `from` to before `to`. */
export function isOutOfDays(written: Written, range: DayRange, zone: ZoneName, home: ZoneName): boolean {
  const items = itemsOf([written.entry], range, zone, home);
  const { slot, entry } = written;
  return !(slot ? items.some((item) => item.key === keyOf(entry, slot)) : items.length);
}
