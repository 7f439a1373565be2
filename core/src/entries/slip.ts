import { MINUTE, dayOfWall, wallAt, weekdayOf, type Day, type ZoneName } from '../zones';
import { instantOfWhen, wallOf, type When } from './when';

/** By how much a milestone has moved; later is positive. */
export interface Slip {
  readonly days: number;
  /** Days from Monday to Friday among them. */
  readonly workingDays: number;
  /** Minutes of clock time by which it has moved within its day; 0 unless both are times on one day. */
  readonly minutes: number;
}

/** Returns the slip from a planned to a present date, by the clocks of the host zone. */
export function slipOf(planned: When, present: When, hostZone: ZoneName): Slip {
  const [before, now] = [wallIn(planned, hostZone), wallIn(present, hostZone)];
  const days = dayOfWall(now) - dayOfWall(before);
  const timed = planned.kind !== 'date' && present.kind !== 'date';
  return {
    days,
    workingDays: workingDaysBetween(dayOfWall(before), dayOfWall(now)),
    minutes: days === 0 && timed ? Math.round((now - before) / MINUTE) : 0,
  };
}

/** Returns whether a milestone is not where it was planned. */
export function hasSlipped({ days, minutes }: Slip): boolean {
  return days !== 0 || minutes !== 0;
}

function wallIn(when: When, hostZone: ZoneName): number {
  return when.kind === 'zoned' ? wallAt(hostZone, instantOfWhen(when, hostZone)) : wallOf(when);
}

/** Returns how many days from Monday to Friday lie after `from` up to and with `to`; negative when `to` is earlier. */
export function workingDaysBetween(from: Day, to: Day): number {
  if (to < from) return -workingDaysBetween(to, from);
  // Whole weeks have five; the rest is counted.
  const weeks = Math.floor((to - from) / 7);
  let count = weeks * 5;
  for (let day = from + weeks * 7 + 1; day <= to; day++) if (weekdayOf(day) < 5) count++;
  return count;
}
