import { Temporal } from 'temporal-polyfill';
import { findWindows } from 'windows-iana';
import { clockChanges, type Clocks } from './zoneOffsets';
import type { Instant } from './wall';
import { allZones, zoneOfWindowsName, type ZoneName } from './zoneNames';

/** Returns the zones whose clocks go exactly as told from one instant to another, in alphabetical order. */
export function zonesLike({ first, changes }: Clocks, from: Instant, to: Instant): ZoneName[] {
  const asked = [
    [from, first] as const,
    ...changes.flatMap((c) => [[c.at - 1, c.before] as const, [c.at, c.offset] as const]),
    [to, changes.at(-1)?.offset ?? first] as const,
  ].map(([at, offset]) => [Temporal.Instant.fromEpochMilliseconds(at), offset] as const);
  return allZones().filter(
    (zone) =>
      // Single instants first: they tell most zones apart, and are quickly asked for.
      asked.every(([at, offset]) => at.toZonedDateTimeISO(zone).offsetNanoseconds === offset * 1e6) &&
      clockChanges(zone, from, to).length === changes.length,
  );
}

let mainZones: Set<ZoneName> | undefined;

/** Returns whether a zone is the one that most people with its clocks mean: the main one of some Windows name. */
export function isMainZone(zone: ZoneName): boolean {
  mainZones ??= new Set(
    allZones()
      .flatMap((name) => findWindows(name))
      .flatMap((windows) => zoneOfWindowsName(windows) ?? []),
  );
  return mainZones.has(zone);
}
