import { wallOf } from '../../entries';
import { occurrencesOfView, type OutwardOccurrence, type OutwardView } from '../../glass';
import { DAY, dayOfWall, instantOf, wallAt, type Day, type Wall, type ZoneName } from '../../zones';

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

/** A date is on both sides of its host's midnights for readers far away. */
const MARGIN = 2 * DAY;

/**
 * Returns the occurrences of a view on the clocks of a zone, all-day ones first within a day: all of those that touch
 * the days from `from` to before `to`, and perhaps some close by. Times that are not `wanted` are left out.
 */
export function agendaOf(
  view: OutwardView,
  zone: ZoneName,
  from: Day,
  to: Day,
  wanted: (one: OutwardOccurrence) => boolean,
): PageEntry[] {
  const within = { from: instantOf(zone, from * DAY) - MARGIN, to: instantOf(zone, to * DAY) + MARGIN };
  return occurrencesOfView(view, within)
    .filter(wanted)
    .map((one) => pageEntry(one, zone))
    .sort((a, b) => a.firstDay - b.firstDay || Number(b.allDay) - Number(a.allDay) || a.start - b.start);
}

/** Returns one time on the clocks of a zone. */
export function pageEntry(one: OutwardOccurrence, zone: ZoneName): PageEntry {
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
