import type { Recurrence, Override } from './entry';
import { moveUntil } from './until';
import { wallOf, whenLike, type When } from './when';

interface Series {
  readonly start: When;
  readonly end: When;
  readonly recurrence: Recurrence | null;
  readonly overrides: readonly Override[];
}

/**
 * Returns a recurring entry with another start and end of its first occurrence. Excepted dates, further dates and
 * the slots of changed dates move along, so that each stays with its occurrence; what was changed about a date keeps
 * its distance from its slot.
 */
export function moveSeries<T extends Series>(entry: T, start: When, end: When): T {
  if (!entry.recurrence) return { ...entry, start, end };
  const shift = wallOf(start) - wallOf(entry.start);
  const along = (when: When) => whenLike(start, wallOf(when) + shift);
  const { rule, dates, exceptDates } = entry.recurrence;
  return {
    ...entry,
    start,
    end,
    recurrence: {
      rule: rule && moveUntil(rule, entry.start, start, shift),
      dates: dates.map(along),
      exceptDates: exceptDates.map((d) => (d.kind === 'date' && start.kind !== 'date' ? d : along(d))),
    },
    overrides: entry.overrides.map((o) => ({
      ...o,
      slot: along(o.slot),
      start: whenLike(o.start, wallOf(o.start) + shift),
      end: whenLike(o.end, wallOf(o.end) + shift),
    })),
  };
}
