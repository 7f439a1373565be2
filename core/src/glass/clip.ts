import { instantOfWhen, whenLike, zoneOfWhen, type Occurrence, type Range, type When } from '../entries';
import { DAY, wallAt, type Instant, type ZoneName } from '../zones';

/**
 * Returns an occurrence cut to a range, as busy time is: where it begins before or ends after it is not told. Whole
 * days stay whole. The same object comes back where it lies within.
 */
export function clipped(one: Occurrence, range: Range, hostZone: ZoneName): Occurrence {
  const early = one.from < range.from && one.to > range.from;
  const late = one.to > range.to && one.from < range.to;
  if (!early && !late) return one;
  return {
    ...one,
    ...(early ? { from: range.from, start: atInstant(one.start, range.from, hostZone, Math.floor) } : {}),
    ...(late ? { to: range.to, end: atInstant(one.end, range.to, hostZone, Math.ceil) } : {}),
  };
}

/** The moment of the kind and zone of another one that stands for an instant. */
function atInstant(like: When, instant: Instant, hostZone: ZoneName, way: (n: number) => number): When {
  const wall = wallAt(zoneOfWhen(like, hostZone), instant);
  return whenLike(like, like.kind === 'date' ? way(wall / DAY) * DAY : wall);
}

/** Returns whether a moment lies within a range; dates and floating times by the clocks of the host zone. */
export function liesWithin(when: When, range: Range, hostZone: ZoneName): boolean {
  const at = instantOfWhen(when, hostZone);
  return at >= range.from && at < range.to;
}
