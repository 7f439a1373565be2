import type { Range } from '../../entries';
import {
  DAY,
  allZones,
  dayFromParts,
  partsOfDay,
  zoneNamed,
  zoneOfWindowsName,
  zonesLike,
  zonesMeant,
  type Clocks,
  type Instant,
  type ZoneName,
} from '../../zones';
import { Problem } from '../../problems';
import { componentsOf, first, parameter, type Component } from './components';
import type { InsideLanguage } from '../../texts/languages';
import { plainTzid } from './contentLine';
import { fileTexts } from './fileTexts';
import { zoneDefinition, type ZoneDefinition } from './zoneDefinition';

/** How a TZID of a file was understood. */
export type FileZone =
  | { readonly kind: 'zone'; readonly zone: ZoneName; readonly note: string }
  /** Known only by the file's own definition, which is used as it is: its clocks over all of the file's time. */
  | { readonly kind: 'defined'; readonly clocks: Clocks; readonly note: string }
  /** Neither known nor defined: the clock times are kept, floating. */
  | { readonly kind: 'unknown'; readonly note: string }
  /** Defined in a way that cannot be read: what names it is left out. */
  | { readonly kind: 'broken'; readonly note: string };

/** How far ahead of its last date a calendar whose series do not end is compared. */
const AHEAD = 11 * 366 * DAY;

/**
 * Returns a function that says how each TZID of a calendar is to be understood. Of several zones whose clocks go as a
 * definition says over all of the file's time, the likeliest counts: one of `homes` (the calendar's own zone, the
 * house's), one that the file names elsewhere, one whose city stands in the name, or the one that most people mean.
 */
export function zoneReader(
  calendar: Component,
  homes: readonly ZoneName[],
  now: Instant,
  language: InsideLanguage,
): (tzid: string) => FileZone {
  const definitions = new Map<string, Component>();
  for (const child of calendar.children) {
    if (child.name !== 'VTIMEZONE') continue;
    const id = first(child, 'tzid')?.text;
    if (id !== undefined) definitions.set(plainTzid(id), child);
  }
  let setting: Setting | undefined;
  const known = new Map<string, FileZone>();
  return (tzid) => {
    const id = plainTzid(tzid);
    let zone = known.get(id);
    if (!zone) {
      setting ??= { ...spanOf(calendar, now), likely: [...homes, ...zonesNamed(calendar)], language };
      known.set(id, (zone = understand(id, definitions.get(id), setting)));
    }
    return zone;
  };
}

/**
 * Returns the zone that a calendar with one VTIMEZONE means over a stretch of time, or null if it is no such calendar or
 * like no known zone. Of several zones whose clocks go alike, `home` counts first.
 */
export function zoneDefinedIn(text: string, home: ZoneName, within: Range): ZoneName | null {
  try {
    const definition = componentsOf(text)[0]!.children.find(({ name }) => name === 'VTIMEZONE');
    const id = definition && first(definition, 'tzid')?.text;
    if (id === undefined) return null;
    const zone = understand(plainTzid(id), definition, { ...within, likely: [home], language: 'en' });
    return zone.kind === 'zone' ? zone.zone : null;
  } catch (error) {
    if (error instanceof Problem) return null;
    throw error;
  }
}

/** All of the file's time, and the zones that are likely in it. */
interface Setting {
  readonly from: Instant;
  readonly to: Instant;
  readonly likely: readonly ZoneName[];
  /** Of the notes. */
  readonly language: InsideLanguage;
}

function understand(tzid: string, definition: Component | undefined, setting: Setting): FileZone {
  const t = fileTexts(setting.language);
  const found = (zone: ZoneName, why: 'zoneWindows' | 'zoneSaid' | 'zoneEnding'): FileZone => ({
    kind: 'zone',
    zone,
    note: t(why, { tzid, zone }),
  });
  const direct = zoneNamed(tzid);
  if (direct) return { kind: 'zone', zone: direct, note: '' };
  const windows = zoneOfWindowsName(tzid);
  if (windows) return found(windows, 'zoneWindows');
  const hint = definition && first(definition, 'x-lic-location')?.text;
  const hinted = hint ? zoneNamed(hint.trim()) : null;
  if (hinted) return found(hinted, 'zoneSaid');
  const tail = zoneInPath(tzid);
  if (tail) return found(tail, 'zoneEnding');
  if (!definition) {
    return { kind: 'unknown', note: t('zoneUnknown', { tzid }) };
  }
  try {
    return compared(tzid, zoneDefinition(definition), setting);
  } catch (error) {
    return { kind: 'broken', note: t('zoneBroken', { tzid, reason: (error as Error).message }) };
  }
}

function compared(
  tzid: string,
  definition: ZoneDefinition,
  { from, to, likely, language }: Setting,
): FileZone {
  const t = fileTexts(language);
  const year = (instant: Instant, later: number) =>
    dayFromParts(partsOfDay(Math.floor(instant / DAY)).year + later, 1, 1) * DAY;
  // Whole years tell more zones apart; where none goes alike so far, the file's own time decides.
  const stretches = [
    [year(from, 0), year(to, 1)],
    [from, to],
  ] as const;
  for (const [first, last] of stretches) {
    const same = zonesLike(definition.clocks(first, last), first, last);
    const zone = likeliest(same, tzid, likely);
    if (!zone) continue;
    const count = same.length - 1;
    const note = count ? t('zoneAlikeOthers', { tzid, zone, count }) : t('zoneAlike', { tzid, zone });
    return { kind: 'zone', zone, note };
  }
  return {
    kind: 'defined',
    clocks: definition.clocks(from, to),
    note: t('zoneByDefinition', { tzid }),
  };
}

function likeliest(
  same: readonly ZoneName[],
  tzid: string,
  likely: readonly ZoneName[],
): ZoneName | undefined {
  // Whole words: “Eastern” does not name Easter Island.
  const named = wordsOf(tzid);
  const city = (zone: ZoneName) => wordsOf(zone.split('/').at(-1)!);
  return (
    likely.find((zone) => same.includes(zone)) ??
    same.find((zone) => zone !== 'UTC' && named.includes(city(zone))) ??
    same.find((zone) => zone === 'UTC') ??
    same.reduce<ZoneName | undefined>(
      (best, zone) => (best && zonesMeant(best) >= zonesMeant(zone) ? best : zone),
      undefined,
    )
  );
}

/** Returns the words of a name in small letters, each between two spaces. */
function wordsOf(name: string): string {
  return ` ${name.toLowerCase().replace(/[^\p{L}\p{N}]+/gu, ' ')} `;
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

/** The zones that a calendar names by a name that is known, the most frequent first. */
function zonesNamed(calendar: Component): ZoneName[] {
  const counts = new Map<ZoneName, number>();
  const note = (text: string | undefined) => {
    const zone =
      text === undefined ? null : (zoneNamed(plainTzid(text)) ?? zoneOfWindowsName(plainTzid(text)));
    if (zone && zone !== 'UTC') counts.set(zone, (counts.get(zone) ?? 0) + 1);
  };
  note(first(calendar, 'x-wr-timezone')?.text);
  for (const child of calendar.children) {
    if (child.name === 'VTIMEZONE') note(first(child, 'tzid')?.text);
    else
      for (const name of ['dtstart', 'dtend', 'due']) {
        const property = first(child, name);
        if (property) note(parameter(property, 'tzid'));
      }
  }
  return [...counts].sort((a, b) => b[1] - a[1]).map(([zone]) => zone);
}

const DATED = /^(dtstart|dtend|due|rdate|exdate|recurrence-id|rrule)$/;

/** The first and last date that a calendar's entries name, with some days around; years from now where a series goes on. */
function spanOf(calendar: Component, now: Instant): Pick<Setting, 'from' | 'to'> {
  let [low, high] = [Infinity, -Infinity];
  let endless = false;
  for (const child of calendar.children) {
    if (child.name === 'VTIMEZONE') continue;
    for (const { name, text } of child.properties) {
      if (!DATED.test(name)) continue;
      if (name === 'rrule' && !/UNTIL=/i.test(text)) endless = true;
      for (const [, y, m, d] of text.matchAll(/(?<!\d)(\d{4})(\d{2})(\d{2})(?!\d)/g)) {
        const at = dayFromParts(Number(y), Number(m), Number(d)) * DAY;
        // What ends with the calendar itself ends never.
        if (Number(y) > 2200) endless = true;
        else {
          low = Math.min(low, at);
          high = Math.max(high, at);
        }
      }
    }
  }
  if (low === Infinity) [low, high] = [0, 0];
  const to = endless ? Math.max(high, now) + AHEAD : high;
  return { from: low - 2 * DAY, to: to + 40 * DAY };
}
