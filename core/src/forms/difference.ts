import type { OutwardView } from '../glass';
import type { Revision } from '../reach';
import { calendarParts, type CalendarOptions } from './icsCalendar';
import type { Parts } from './parts';

/** Returns whether everything that changed after a revision is still known. */
export function knowsSince({ number, forgotten }: Revision, since: number): boolean {
  return since >= Math.max(1, forgotten) && since <= number;
}

/**
 * Returns what changed after a revision, as the incremental get of the subscription upgrade (IETF calext draft) has it: every
 * component of an entry that came or changed, as it is now, and for each entry that has left one with nothing but its
 * identifier, its moment and the status DELETED. Zones that are named are defined for all times of the view. See
 * {@link knowsSince}.
 */
export function differenceParts(
  view: OutwardView,
  revision: Revision,
  since: number,
  options: Omit<CalendarOptions, 'asOf' | 'copy' | 'partOf'>,
): Parts {
  // What changed with a revision bears a sequence of one less.
  const items = view.items.filter(({ uid }) => revision.stamps[uid]!.sequence >= since);
  const gone = revision.gone.filter(({ sequence }) => sequence >= since);
  return calendarParts({ ...view, items }, { ...revision, gone }, { ...options, partOf: view.items });
}
