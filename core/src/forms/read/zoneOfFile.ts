import ICAL from 'ical.js';
import {
  DAY,
  allZones,
  dayFromParts,
  wallToText,
  zoneNamed,
  zoneOfWindowsName,
  zonesMatching,
  type Instant,
  type OffsetSample,
  type Wall,
  type ZoneName,
} from '../../zones';
import { first, jCalOf, type Component } from './components';

/** How a TZID of a file was understood. */
export type FileZone =
  | { readonly kind: 'zone'; readonly zone: ZoneName; readonly note: string }
  /** Known only by the file's own definition: times are turned into UTC with it. */
  | { readonly kind: 'defined'; readonly toInstant: (wall: Wall) => Instant; readonly note: string }
  /** Neither known nor defined: the clock times are kept, floating. */
  | { readonly kind: 'unknown'; readonly note: string };

/** Returns a function that says how each TZID of a calendar is to be understood; `home` is preferred among equals. */
export function zoneReader(calendar: Component, home: ZoneName): (tzid: string) => FileZone {
  const definitions = new Map<string, Component>();
  for (const child of calendar.children) {
    if (child.name !== 'VTIMEZONE') continue;
    const id = first(child, 'tzid')?.text;
    if (id !== undefined) definitions.set(id, child);
  }
  const years = yearsOf(calendar);
  const known = new Map<string, FileZone>();
  return (tzid) => {
    let zone = known.get(tzid);
    if (!zone) known.set(tzid, (zone = understand(tzid, definitions.get(tzid), years, home)));
    return zone;
  };
}

function understand(
  tzid: string,
  definition: Component | undefined,
  years: readonly number[],
  home: ZoneName,
): FileZone {
  const found = (zone: ZoneName, why: string): FileZone => ({
    kind: 'zone',
    zone,
    note: why && `Time zone “${tzid}” was read as ${zone}${why}.`,
  });
  const direct = zoneNamed(tzid);
  if (direct) return found(direct, '');
  const windows = zoneOfWindowsName(tzid);
  if (windows) return found(windows, ' (it is the Windows name for it)');
  const hint = definition && first(definition, 'x-lic-location')?.text;
  const hinted = hint ? zoneNamed(hint) : null;
  if (hinted) return found(hinted, ' (its definition says so)');
  const tail = zoneInPath(tzid);
  if (tail) return found(tail, ' (its name ends so)');
  if (!definition) {
    return {
      kind: 'unknown',
      note: `Time zone “${tzid}” is not known or defined; its times are kept as floating.`,
    };
  }
  const same = zonesMatching(samples(definition, years));
  const chosen = same.includes(home) ? home : same[0];
  if (chosen)
    return found(
      chosen,
      ` (its clocks go alike${same.length > 1 ? `, as in ${same.length - 1} other zones` : ''})`,
    );
  const zone = new ICAL.Timezone(new ICAL.Component(jCalOf(definition) as never));
  return {
    kind: 'defined',
    toInstant: (wall) => wall - zone.utcOffset(ICAL.Time.fromDateTimeString(wallToText(wall))) * 1000,
    note: `Time zone “${tzid}” is like no known zone; its times were turned into UTC by its definition.`,
  };
}

/** Returns the zone that a name such as `/example.org/2024a/Europe/London` ends with, or null. */
function zoneInPath(tzid: string): ZoneName | null {
  const pieces = tzid.split('/').filter(Boolean);
  for (let i = 1; i < pieces.length; i++) {
    const rest = pieces.slice(i).join('/');
    if (rest.includes('/') && allZones().includes(rest)) return rest;
  }
  return null;
}

/** Returns the years in which the entries of a calendar start, each with the next one, at most six. */
function yearsOf(calendar: Component): number[] {
  const years = calendar.children.flatMap((c) => {
    const year = c.name === 'VTIMEZONE' ? NaN : Number(first(c, 'dtstart')?.text.slice(0, 4));
    return year >= 1970 && year < 2200 ? [year, year + 1] : [];
  });
  return [...new Set(years)].sort((a, b) => b - a).slice(0, 6);
}

/** Returns offsets that a VTIMEZONE gives in every month of some years. */
function samples(definition: Component, years: readonly number[]): OffsetSample[] {
  const zone = new ICAL.Timezone(new ICAL.Component(jCalOf(definition) as never));
  return years.flatMap((year) =>
    [1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12].flatMap((month) =>
      [5, 20].map((date) => {
        const wall = dayFromParts(year, month, date) * DAY + DAY / 2;
        const offset = zone.utcOffset(ICAL.Time.fromDateTimeString(wallToText(wall))) * 1000;
        return { at: wall - offset, offset };
      }),
    ),
  );
}
