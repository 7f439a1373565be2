import { Temporal } from 'temporal-polyfill';
import { findIana, findWindows } from 'windows-iana';
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

let mainZones: Map<ZoneName, number> | undefined;

/**
 * Returns how many zones go by the same Windows name where a zone is the main one of them, else 0: of zones whose clocks
 * go alike, most people mean the one that stands for most.
 */
export function zonesMeant(zone: ZoneName): number {
  if (!mainZones) {
    mainZones = new Map();
    for (const windows of new Set(allZones().flatMap((name) => findWindows(name)))) {
      const main = zoneOfWindowsName(windows);
      if (main) mainZones.set(main, findIana(windows).length);
    }
  }
  return mainZones.get(zone) ?? 0;
}
