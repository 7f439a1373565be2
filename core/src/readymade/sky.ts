import {
  type AstroTime,
  MakeTime,
  Body,
  MoonQuarter,
  NextMoonQuarter,
  Observer,
  SearchMoonQuarter,
  SearchRiseSet,
} from 'astronomy-engine';
import { DAY, dayFromText, instantOf, type Day, type Instant, type ZoneName, dayAt } from '../zones';

export const MOON_PHASES = ['new moon', 'first quarter', 'full moon', 'last quarter'] as const;
export type MoonPhase = (typeof MOON_PHASES)[number];

/** Days since noon of 1 January 2000 UTC are what the library counts in. */
function timeAt(instant: Instant): AstroTime {
  return MakeTime((instant - J2000) / DAY);
}

const J2000 = dayFromText('2000-01-01') * DAY + DAY / 2;

/** Returns the days of the four phases of the moon from one day to before another, on the clocks of a zone. */
export function moonPhases(from: Day, to: Day, zone: ZoneName): Map<Day, { phase: MoonPhase; at: Instant }> {
  const out = new Map<Day, { phase: MoonPhase; at: Instant }>();
  const end = instantOf(zone, to * DAY);
  let found: MoonQuarter = SearchMoonQuarter(timeAt(instantOf(zone, from * DAY)));
  while (found.time.date.getTime() < end) {
    const at = found.time.date.getTime();
    out.set(dayAt(zone, at), { phase: MOON_PHASES[found.quarter]!, at });
    found = NextMoonQuarter(found);
  }
  return out;
}

/** A place on the earth in degrees; north and east are positive. */
export interface Spot {
  readonly latitude: number;
  readonly longitude: number;
}

/** Sunrise and sunset of a day as instants; null where the sun does not rise or set on it. */
export interface SunTimes {
  readonly rise: Instant | null;
  readonly set: Instant | null;
}

/** Returns sunrise and sunset at a place on a day, by the clocks of a zone. */
export function sunTimes({ latitude, longitude }: Spot, day: Day, zone: ZoneName): SunTimes {
  const observer = new Observer(latitude, longitude, 0);
  const midnight = instantOf(zone, day * DAY);
  const length = (instantOf(zone, (day + 1) * DAY) - midnight) / DAY;
  const search = (way: 1 | -1) =>
    SearchRiseSet(Body.Sun, observer, way, timeAt(midnight), length)?.date.getTime() ?? null;
  return { rise: search(1), set: search(-1) };
}
