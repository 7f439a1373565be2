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
import { compactWall, escapeText, joinLines, quoteParameter } from './icsText';
import { timeZoneLines } from './icsTimeZone';

/** The calendar that a file is made of. */
export interface FileSetting {
  readonly name: string;
  readonly zone: ZoneName;
  readonly now: Instant;
}

const STATUS = { confirmed: 'CONFIRMED', tentative: 'TENTATIVE', cancelled: 'CANCELLED', done: 'CONFIRMED' };
const TASK_STATUS = {
  confirmed: 'NEEDS-ACTION',
  tentative: 'NEEDS-ACTION',
  cancelled: 'CANCELLED',
  done: 'COMPLETED',
};
/** A hold has no property of its own; programs that know CLASS keep such entries in as well. */
const CLASS = { none: '', frost: 'PRIVATE', 'keep-in': 'CONFIDENTIAL' };

/** How far an endless rule's zones are defined ahead. */
const AHEAD = 20 * 366 * 86_400_000;

/**
 * Returns entries with everything that is known of them inside as an iCalendar file (RFC 5545) that gives the same
 * entries when it is read again. It is for the organisers: what goes outside is made from the outward view alone.
 */
export function writeEntries(entries: readonly Entry[], { name, zone, now }: FileSetting): string {
  const stamp = `${compactWall(Math.floor(now / 1000) * 1000)}Z`;
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
        ...(recurrence.rule ? [`RRULE:${recurrence.rule}`] : []),
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
    ...contentLines(content, task),
    ...content.kept.map(keptLine),
    `END:${name}`,
  ];
}

function contentLines(c: Content, task: boolean): string[] {
  const plain = task ? 'NEEDS-ACTION' : 'CONFIRMED';
  const status = (task ? TASK_STATUS : STATUS)[c.status];
  const line = (name: string, text: string) => (text ? [`${name}:${escapeText(text)}`] : []);
  const uri = (name: string, text: string) => (text ? [`${name}:${raw(text)}`] : []);
  return [
    ...line('SUMMARY', c.title),
    ...line('LOCATION', c.place),
    ...line('DESCRIPTION', c.description),
    ...uri('URL', c.publicLink),
    ...uri('CONFERENCE;VALUE=URI', c.joinLink),
    ...(c.labels.length ? [`CATEGORIES:${c.labels.map(escapeText).join(',')}`] : []),
    ...c.people.map(personLine),
    ...line('CONTACT', c.contact),
    ...c.attachments.map((a) => `ATTACH;FILENAME=${quoteParameter(a.name)}:${raw(a.href)}`),
    `STATUS:${status}`,
    // What the standard has no word for.
    ...(status === plain && c.status !== 'confirmed' ? [`X-ZONAL-STATUS:${c.status.toUpperCase()}`] : []),
    ...(task
      ? [`X-ZONAL-SHOWS:${c.shows.toUpperCase()}`]
      : [`TRANSP:${c.shows === 'free' ? 'TRANSPARENT' : 'OPAQUE'}`]),
    ...(CLASS[c.hold] ? [`CLASS:${CLASS[c.hold]}`] : []),
    ...(c.kind === 'milestone' ? ['X-ZONAL-KIND:MILESTONE'] : []),
    ...(c.planned ? [`X-ZONAL-PLANNED${whenText(c.planned)}`] : []),
    ...c.properties.map(
      (p) => `X-ZONAL-PROPERTY;VALUE=TEXT;X-NAME=${quoteParameter(p.name)}:${escapeText(p.value)}`,
    ),
  ];
}

function personLine({ name, address, group }: Content['people'][number]): string {
  const head = `ATTENDEE;CN=${quoteParameter(name)}${group ? ';CUTYPE=GROUP' : ''}`;
  return `${head}:${address ? `mailto:${raw(address)}` : 'urn:x-zonal:no-address'}`;
}

function keptLine(property: KeptProperty): string {
  return ICAL.stringify.property(property as never, ICAL.design.icalendar as never, true);
}

function raw(text: string): string {
  return text.replace(/[\u0000-\u001f\u007f]/g, '');
}
