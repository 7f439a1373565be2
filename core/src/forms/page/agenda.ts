import { wallOf } from '../../entries';
import { occurrencesOfView, type OutwardOccurrence, type OutwardView } from '../../glass';
import { DAY, dayOfWall, wallAt, type Day, type Wall, type ZoneName } from '../../zones';

/** One occurrence as a page shows it on a clock: dates stay dates, floating times stay as they are. */
export interface PageEntry {
  readonly one: OutwardOccurrence;
  readonly allDay: boolean;
  readonly start: Wall;
  readonly end: Wall;
  readonly firstDay: Day;
  /** The last day that the entry touches. */
  readonly lastDay: Day;
}

/** Returns the occurrences of a view on the clocks of a zone, all-day ones first within a day. */
export function agendaOf(view: OutwardView, zone: ZoneName): PageEntry[] {
  return occurrencesOfView(view)
    .map((one) => pageEntry(one, zone))
    .sort((a, b) => a.firstDay - b.firstDay || Number(b.allDay) - Number(a.allDay) || a.start - b.start);
}

function pageEntry(one: OutwardOccurrence, zone: ZoneName): PageEntry {
  const zoned = one.start.kind === 'zoned';
  const start = zoned ? wallAt(zone, one.from) : wallOf(one.start);
  const end = zoned ? wallAt(zone, one.to) : wallOf(one.end);
  const allDay = one.start.kind === 'date';
  const firstDay = dayOfWall(start);
  return { one, allDay, start, end, firstDay, lastDay: Math.max(firstDay, Math.ceil(end / DAY) - 1) };
}

/** Returns the entries that touch each day from `from` to before `to`; days with none are left out. */
export function byDay(agenda: readonly PageEntry[], from: Day, to: Day): Map<Day, PageEntry[]> {
  const days = new Map<Day, PageEntry[]>();
  for (const entry of agenda) {
    for (let day = Math.max(from, entry.firstDay); day <= Math.min(to - 1, entry.lastDay); day++) {
      const list = days.get(day);
      if (list) list.push(entry);
      else days.set(day, [entry]);
    }
  }
  return days;
}
