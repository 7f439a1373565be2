import type { OutwardView } from '../glass';
import { fingerprintOf, touchedSince, type Revision } from '../reach';
import { calendarParts, type CalendarOptions } from './icsCalendar';
import type { Parts } from './parts';

/**
 * Returns whether everything that changed after a revision is still known. `fingerprint` is that of the revision which a program
 * holds: after a restored back-up another one may have its number.
 */
export function knowsSince(revision: Revision, since: number, fingerprint?: string): boolean {
  const { number, forgotten } = revision;
  if (since < Math.max(1, forgotten) || since > number) return false;
  return fingerprint === undefined || fingerprintOf(revision, since) === fingerprint;
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
  const touched = touchedSince(revision, since);
  const [set, left] = [new Set(touched.set), new Set(touched.gone)];
  const items = view.items.filter(({ uid }) => set.has(uid));
  const gone = revision.gone.filter(({ uid }) => left.has(uid));
  return calendarParts({ ...view, items }, { ...revision, gone }, { ...options, partOf: view.items });
}
