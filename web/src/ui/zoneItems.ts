import { zoneText } from '@zonal/core/forms';
import { allZones, type Instant, type ZoneName } from '@zonal/core/zones';
import { rawTimeZones } from '@vvo/tzdb';

/** A zone as it is offered: with the country, cities and abbreviations that people know it by. */
export interface ZoneItem {
  readonly zone: ZoneName | '';
  readonly text: string;
  readonly words: string;
}

const known = new Map(
  rawTimeZones.flatMap((raw) => [raw.name, ...raw.group].map((name) => [name, raw] as const)),
);

/** What somebody may type for a zone, by the text under which it is offered. */
const sought = new Map<string, string>();
const HOUR = 3_600_000;
let made: { at: number; items: readonly ZoneItem[] } | null = null;

/** Returns a zone as the field shows it while its list is closed. */
export function zoneItem(zone: ZoneName, now: Instant): ZoneItem {
  return made?.items.find((item) => item.zone === zone) ?? itemOf(zone, now);
}

/** Returns all zones with their offsets at a moment; first of all none, where that has a name. */
export function zoneItems(now: Instant, none?: string): readonly ZoneItem[] {
  const at = Math.floor(now / HOUR);
  if (made?.at !== at) made = { at, items: allZones().map((zone) => itemOf(zone, now)) };
  return none ? [{ zone: '', text: none, words: '' }, ...made.items] : made.items;
}

function itemOf(zone: ZoneName, now: Instant): ZoneItem {
  const offset = offsetOf(zone, now);
  const text = `${zoneText(zone)} (${offset})`;
  const raw = known.get(zone);
  const cities = raw?.name === zone ? raw.mainCities : [];
  const short = raw ? [raw.abbreviation, raw.dstAbbreviation].filter((a) => a && /^[A-Z]/.test(a)) : [];
  const words = raw ? [raw.countryName, ...short, ...cities].filter(Boolean).join(', ') : '';
  sought.set(text, plain(`${text} ${words} ${raw?.alternativeName ?? ''} ${offset.replace('−', '-')}`));
  return { zone, text, words };
}

/** As the browser tells it: our own tables of clock changes take too long to make for all zones at once. */
function offsetOf(timeZone: ZoneName, now: Instant): string {
  const format = new Intl.DateTimeFormat('en', { timeZone, timeZoneName: 'longOffset' });
  const told = format.formatToParts(now).find((part) => part.type === 'timeZoneName')?.value ?? '';
  return told.replace('GMT', 'UTC').replace('-', '−');
}

/** Returns whether all words that were typed stand somewhere in what a zone is known by. */
export function zoneFits(text: string, typed: string): boolean {
  const all = sought.get(text) ?? plain(text);
  return plain(typed)
    .split(/\s+/)
    .every((word) => all.includes(word));
}

function plain(text: string): string {
  return text.normalize('NFD').replace(/\p{M}/gu, '').toLowerCase();
}
