import { Problem } from '../problems';
import { Temporal } from 'temporal-polyfill';
import { findIana } from 'windows-iana';

/** The name of a zone in the IANA time zone database, such as `America/Halifax`, or `UTC`. */
export type ZoneName = string;

/** Names that runtimes still list, and those by which the IANA database has replaced them. */
const MODERN: Readonly<Record<string, ZoneName>> = {
  'Africa/Asmera': 'Africa/Asmara',
  'America/Buenos_Aires': 'America/Argentina/Buenos_Aires',
  'America/Catamarca': 'America/Argentina/Catamarca',
  'America/Coral_Harbour': 'America/Atikokan',
  'America/Cordoba': 'America/Argentina/Cordoba',
  'America/Godthab': 'America/Nuuk',
  'America/Indianapolis': 'America/Indiana/Indianapolis',
  'America/Jujuy': 'America/Argentina/Jujuy',
  'America/Louisville': 'America/Kentucky/Louisville',
  'America/Mendoza': 'America/Argentina/Mendoza',
  'Asia/Calcutta': 'Asia/Kolkata',
  'Asia/Katmandu': 'Asia/Kathmandu',
  'Asia/Rangoon': 'Asia/Yangon',
  'Asia/Saigon': 'Asia/Ho_Chi_Minh',
  'Atlantic/Faeroe': 'Atlantic/Faroe',
  'Europe/Kiev': 'Europe/Kyiv',
  'Pacific/Enderbury': 'Pacific/Kanton',
  'Pacific/Ponape': 'Pacific/Pohnpei',
  'Pacific/Truk': 'Pacific/Chuuk',
};

const UTC_NAMES =
  /^(utc|z|gmt|gmt[+-]?0|uct|universal|zulu|etc\/(utc|gmt|gmt[+-]?0|greenwich|zulu|uct|universal))$/i;

/** Names in small letters; those that lead to one of {@link allZones} and nothing else, so it cannot grow. */
let spelled: Map<string, ZoneName> | undefined;

function spelling(text: string): ZoneName | undefined {
  spelled ??= new Map([
    ...allZones().map((zone) => [zone.toLowerCase(), zone] as const),
    ...Object.entries(MODERN).map(([old, zone]) => [old.toLowerCase(), zone] as const),
  ]);
  return spelled.get(text.toLowerCase());
}

const LONGEST_NAME = 64;

/**
 * Returns the one name by which a zone goes here, or null when the IANA database has no such zone: its usual spelling,
 * and for a name that the database has replaced or linked, the one that it leads to. Abbreviations of clocks such as
 * `PST` or `IST` are no zones: each stands for several.
 */
export function zoneNamed(text: string): ZoneName | null {
  if (text.length > LONGEST_NAME) return null;
  if (UTC_NAMES.test(text)) return 'UTC';
  return spelling(text) ?? linked(text);
}

/** Returns what a name leads to that is not listed but known, such as `US/Pacific`. */
function linked(text: string): ZoneName | null {
  // An offset such as "+04:00" is accepted by Intl but is no zone: it knows no clock changes.
  if (!/^[A-Za-z][A-Za-z0-9_+-]*(\/[A-Za-z0-9_+-]+)*$/.test(text)) return null;
  try {
    // Intl takes abbreviations that are ambiguous; Temporal refuses them.
    Temporal.Instant.fromEpochMilliseconds(0).toZonedDateTimeISO(text);
    const { timeZone } = new Intl.DateTimeFormat('en', { timeZone: text }).resolvedOptions();
    return UTC_NAMES.test(timeZone) ? 'UTC' : (MODERN[timeZone] ?? timeZone);
  } catch {
    return null;
  }
}

/** Returns the zone's name, or throws `zone-unknown`. */
export function requireZone(text: string): ZoneName {
  const name = zoneNamed(text);
  if (name === null) throw new Problem('zone-unknown', { zone: text });
  return name;
}

/** Returns the IANA zone that a Windows zone name such as `Atlantic Standard Time` stands for, or null. */
export function zoneOfWindowsName(text: string): ZoneName | null {
  const [first] = findIana(text);
  return first ? zoneNamed(first) : null;
}

let zones: ZoneName[] | undefined;

/** Returns the names of all zones that can be chosen, `UTC` first, in alphabetical order. */
export function allZones(): readonly ZoneName[] {
  if (!zones) {
    const listed = Intl.supportedValuesOf('timeZone').map((z) => MODERN[z] ?? z);
    zones = ['UTC', ...[...new Set(listed)].filter((z) => z !== 'UTC').sort()];
  }
  return zones;
}
