import {
  Body,
  MoonQuarter,
  NextMoonQuarter,
  Observer,
  SearchMoonQuarter,
  SearchRiseSet,
} from 'astronomy-engine';
import { DAY, dayOfWall, instantOf, wallAt, type Day, type Instant, type ZoneName } from '../zones';

export const MOON_PHASES = ['new moon', 'first quarter', 'full moon', 'last quarter'] as const;
export type MoonPhase = (typeof MOON_PHASES)[number];

/** Returns the days of the four phases of the moon from one day to before another, on the clocks of a zone. */
export function moonPhases(from: Day, to: Day, zone: ZoneName): Map<Day, { phase: MoonPhase; at: Instant }> {
  const out = new Map<Day, { phase: MoonPhase; at: Instant }>();
  const end = instantOf(zone, to * DAY);
  let found: MoonQuarter = SearchMoonQuarter(new Date(instantOf(zone, from * DAY)));
  while (found.time.date.getTime() < end) {
    const at = found.time.date.getTime();
    out.set(dayOfWall(wallAt(zone, at)), { phase: MOON_PHASES[found.quarter]!, at });
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
    SearchRiseSet(Body.Sun, observer, way, new Date(midnight), length)?.date.getTime() ?? null;
  return { rise: search(1), set: search(-1) };
}
