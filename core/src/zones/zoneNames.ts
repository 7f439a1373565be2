import { Problem } from '../problems';
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

const known = new Map<string, ZoneName | null>();

/** Returns the zone's name in its usual spelling, or null when the IANA database has no such zone. */
export function zoneNamed(text: string): ZoneName | null {
  const found = known.get(text);
  if (found !== undefined) return found;
  const name = lookUp(text);
  known.set(text, name);
  return name;
}

function lookUp(text: string): ZoneName | null {
  if (/^(utc|z|gmt|etc\/(utc|gmt|zulu|uct|universal)|zulu|universal)$/i.test(text)) return 'UTC';
  // An offset such as "+04:00" is accepted by Intl but is no zone: it knows no clock changes.
  if (!/^[A-Za-z][A-Za-z0-9_+-]*(\/[A-Za-z0-9_+-]+)*$/.test(text)) return null;
  try {
    new Intl.DateTimeFormat('en', { timeZone: text });
  } catch {
    return null;
  }
  const spelled = Object.keys(MODERN).find((old) => old.toLowerCase() === text.toLowerCase());
  if (spelled) return MODERN[spelled]!;
  return allZones().find((z) => z.toLowerCase() === text.toLowerCase()) ?? text;
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
