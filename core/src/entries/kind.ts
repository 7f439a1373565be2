import { Problem } from '../problems';
import { DAY } from '../zones';
import type { Entry, Status } from './entry';
import { wallOf, whenLike } from './when';

type Timed = Omit<Entry, 'id' | 'calendarId' | 'version' | 'uid'>;

/**
 * Returns an entry with what its kind asks for: milestones and due items are one day or one moment, only a milestone
 * has a planned date, and the dates of a series are of its kind. Throws `milestone-recurs`.
 */
export function fitKind<T extends Timed>(entry: T): T {
  const { kind, start, end } = entry;
  if (kind === 'milestone' && entry.recurrence) throw new Problem('milestone-recurs');
  const instant = kind !== 'event';
  const statusOf = (status: Status) => (kind === 'event' && status === 'done' ? 'confirmed' : status);
  return {
    ...entry,
    planned: kind === 'milestone' ? entry.planned : null,
    status: statusOf(entry.status),
    end: instant ? (start.kind === 'date' ? whenLike(start, wallOf(start) + DAY) : start) : end,
    overrides: entry.overrides.map((o) => ({
      ...o,
      end: instant ? (o.start.kind === 'date' ? whenLike(o.start, wallOf(o.start) + DAY) : o.start) : o.end,
      content: { ...o.content, kind, planned: null, status: statusOf(o.content.status) },
    })),
  };
}
