import { Temporal } from 'temporal-polyfill';
import type { Instant } from './wall';
import { allZones, type ZoneName } from './zoneNames';

/** An offset from UTC, in milliseconds, that clocks must show at an instant. */
export interface OffsetSample {
  readonly at: Instant;
  readonly offset: number;
}

/** Returns the zones whose clocks show every one of the offsets, in alphabetical order. */
export function zonesMatching(samples: readonly OffsetSample[]): ZoneName[] {
  const moments = samples.map((s) => Temporal.Instant.fromEpochMilliseconds(s.at));
  return allZones().filter((zone) =>
    samples.every((s, i) => moments[i]!.toZonedDateTimeISO(zone).offsetNanoseconds === s.offset * 1e6),
  );
}
