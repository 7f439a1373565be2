import ICAL from 'ical.js';
import {
  extentOf,
  wallOf,
  zoneOfWhen,
  type Content,
  type Entry,
  type KeptProperty,
  type When,
} from '../entries';
import type { Instant, ZoneName } from '../zones';
import { listLine, whenText } from './icsEvent';
import { contentLines } from './insideFields';
import { FURTHER, isField, isFurther, plainLineOf } from './keptProperties';
import { utcText, escapeText, joinLines, raw } from './icsText';
import { timeZoneLines } from './icsTimeZone';

/** The calendar that a file is made of. */
export interface FileSetting {
  readonly name: string;
  readonly zone: ZoneName;
  readonly now: Instant;
}

/** How far an endless rule's zones are defined ahead. */
const AHEAD = 20 * 366 * 86_400_000;

/**
 * Returns entries with everything that is known of them inside as an iCalendar file (RFC 5545) that gives the same
 * entries when it is read again. It is for the organisers: what goes outside is made from the outward view alone.
 */
export function writeEntries(entries: readonly Entry[], { name, zone, now }: FileSetting): string {
  const stamp = utcText(Math.floor(now / 1000) * 1000);
  const head = [
    'BEGIN:VCALENDAR',
    'VERSION:2.0',
    'PRODID:-//Zonal Window//Inside calendar 1//EN',
    `NAME:${escapeText(name)}`,
    `X-WR-CALNAME:${escapeText(name)}`,
    `X-WR-TIMEZONE:${zone}`,
  ];
  const events = entries.flatMap((entry) => entryLines(entry, stamp));
  return joinLines([...head, ...zoneLines(entries, zone, now), ...events, 'END:VCALENDAR']);
}

/** Returns the same as jCal (RFC 7265). */
export function writeJCal(entries: readonly Entry[], setting: FileSetting): string {
  return JSON.stringify(ICAL.parse(writeEntries(entries, setting)));
}

function zoneLines(entries: readonly Entry[], home: ZoneName, now: Instant): string[] {
  const used = new Map<ZoneName, { from: Instant; to: Instant }>();
  for (const entry of entries) {
    const extent = extentOf(entry, home);
    const to = Number.isFinite(extent.to) ? extent.to : Math.max(now, extent.from) + AHEAD;
    for (const when of whensOf(entry)) {
      const name = zoneOfWhen(when, 'UTC');
      const known = used.get(name) ?? { from: Infinity, to: -Infinity };
      used.set(name, { from: Math.min(known.from, extent.from), to: Math.max(known.to, to) });
    }
  }
  used.delete('UTC');
  return [...used]
    .sort(([a], [b]) => (a < b ? -1 : 1))
    .flatMap(([name, { from, to }]) => timeZoneLines(name, from, to));
}

function whensOf({ start, end, planned, recurrence, overrides }: Entry): When[] {
  return [
    start,
    end,
    ...(planned ? [planned] : []),
    ...(recurrence?.dates ?? []),
    ...(recurrence?.exceptDates ?? []),
    ...overrides.flatMap((o) => [o.slot, o.start, o.end]),
  ];
}

function entryLines(entry: Entry, stamp: string): string[] {
  const { recurrence } = entry;
  const recurs = recurrence
    ? [
        ...(recurrence.rule ? [`RRULE:${raw(recurrence.rule)}`] : []),
        ...linesOf('RDATE', recurrence.dates),
        ...linesOf('EXDATE', recurrence.exceptDates),
      ]
    : [];
  return [
    ...component(entry, entry.uid, entry.start, entry.end, [...recurs], stamp, recurrence !== null),
    ...entry.overrides.flatMap((o) =>
      component(o.content, entry.uid, o.start, o.end, [`RECURRENCE-ID${whenText(o.slot)}`], stamp, true),
    ),
  ];
}

/** A list line holds moments of one kind and zone: others get lines of their own. */
function linesOf(name: string, whens: readonly When[]): string[] {
  const groups = new Map<string, When[]>();
  for (const when of whens) {
    const key = `${when.kind} ${zoneOfWhen(when, '')}`;
    groups.set(key, [...(groups.get(key) ?? []), when]);
  }
  return [...groups.values()].flatMap((group) => listLine(name, group));
}

function component(
  content: Content,
  uid: string,
  start: When,
  end: When,
  recurs: readonly string[],
  stamp: string,
  series: boolean,
): string[] {
  const task = content.kind === 'due';
  const name = task ? 'VTODO' : 'VEVENT';
  const time = task
    ? series
      ? [`DTSTART${whenText(start)}`]
      : [`DUE${whenText(start)}`]
    : [`DTSTART${whenText(start)}`, ...(wallOf(end) !== wallOf(start) ? [`DTEND${whenText(end)}`] : [])];
  return [
    `BEGIN:${name}`,
    `UID:${raw(uid)}`,
    `DTSTAMP:${stamp}`,
    ...time,
    ...recurs,
    ...keptInPlace(contentLines(content, task), content, task),
    `END:${name}`,
  ];
}

/**
 * Puts properties that were kept from a file in place of the plain ones that say the same with less, and adds the
 * others. One that decorates what a field said is gone when the field says something else now.
 */
function keptInPlace(lines: readonly string[], { kept }: Content, task: boolean): string[] {
  const out = [...lines];
  for (const property of kept) {
    const line = keptLine(property);
    if (isFurther(property) || !isField(property)) {
      out.push(line);
      continue;
    }
    const place = out.indexOf(plainLineOf(property, task) ?? '');
    if (place >= 0) out[place] = line;
  }
  return out;
}

/** The property's own line; nothing in it can end the line and begin another one. */
function keptLine(property: KeptProperty): string {
  const [name, parameters, type, ...values] = property;
  const { [FURTHER]: _mark, ...own } = parameters as Record<string, unknown>;
  // A rule is no text: its semicolons are not escaped (RFC 5545 section 3.3.10).
  const kind = name === 'exrule' ? 'unknown' : type;
  const line = ICAL.stringify.property(
    [name, own, kind, ...values] as never,
    ICAL.design.icalendar as never,
    true,
  );
  return raw(line);
}
