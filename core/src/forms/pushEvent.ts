import type { OutwardView } from '../glass';
import { touchedSince, type Revision } from '../reach';
import { knowsSince } from './difference';
import { momentOf } from './xml';

/** So many identifiers are named; whoever needs more asks the feed. */
const MOST_NAMED = 200;

/** What a system outside is told by a signed request (Standard Webhooks: type, timestamp, data). */
export interface PushEvent {
  readonly type: 'calendar.changed' | 'calendar.test';
  /** ISO 8601 in UTC: when the revision was made. */
  readonly timestamp: string;
  readonly data: {
    /** The outward identifier of the calendar, as feeds say it (RFC 7986 section 5.3). */
    readonly calendar: string;
    readonly name: string;
    readonly revision: number;
    /** The revision that was told last; null where everything has to be fetched anew. */
    readonly since: number | null;
    /** Outward identifiers of entries that came or changed, and of those that left. */
    readonly changed: readonly string[];
    readonly left: readonly string[];
    /** Whether there are more than are named. */
    readonly more: boolean;
  };
}

/** Returns what is told of a view after a revision; `since` null tells of all of it. Nothing but identifiers is said of entries. */
export function pushEvent(
  view: OutwardView,
  revision: Revision,
  since: number | null,
  type: PushEvent['type'] = 'calendar.changed',
): PushEvent {
  const known = since !== null && knowsSince(revision, since) ? since : null;
  const { set, gone } = known === null ? { set: [], gone: [] } : touchedSince(revision, known);
  const changed = set.sort();
  const left = gone.sort();
  return {
    type,
    timestamp: momentOf(revision.at),
    data: {
      calendar: view.ids.calendar,
      name: view.wording.name,
      revision: revision.number,
      since: known,
      changed: changed.slice(0, MOST_NAMED),
      left: left.slice(0, MOST_NAMED),
      more: changed.length > MOST_NAMED || left.length > MOST_NAMED,
    },
  };
}
