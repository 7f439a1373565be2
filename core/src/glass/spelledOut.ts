import { wallOf, zoneOfWhen, type When } from '../entries';
import { meetingOf } from '../zones';
import type { OutwardOverride, OutwardSeries, OutwardTime } from './view';

/**
 * Returns the plain occurrences that programs would read in different ways, as overrides with both ends told: those
 * whose length is another by the clock than it is, or than the first one's, because of a clock change (some programs
 * keep the length, some the clock time of the end), and those at a time that clocks skip or show twice.
 */
export function spelledOut(item: OutwardSeries): OutwardOverride[] {
  const length = item.to - item.from;
  return item.plain
    .filter(
      (time) =>
        time.start.kind === 'zoned' && (time.to - time.from !== length || isOdd(time) || crossesChange(time)),
    )
    .map((time) => ({ ...time, slot: time.start, content: item.content }));
}

/** Whether clocks change between start and end. */
function crossesChange({ start, end, from, to }: OutwardTime): boolean {
  const one = zoneOfWhen(start, '') === zoneOfWhen(end, '');
  return one && wallOf(end) - wallOf(start) !== to - from;
}

/** Whether an end is at a time that clocks skip or show twice. */
export function isOdd({ start, end }: Pick<OutwardTime, 'start' | 'end'>): boolean {
  return [start, end].some((w) => w.kind === 'zoned' && meetingOf(w.zone, wallOf(w)) !== 'once');
}

/** Returns the slots of a series that programs are told apart, each with a component of its own (RFC 5545 section 3.8.4.4). */
export function slotsApart(item: OutwardSeries): When[] {
  return [...item.overrides, ...spelledOut(item)].map(({ slot }) => slot);
}
