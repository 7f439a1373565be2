import { wallOf, zoneOfWhen, type Status, type When } from '../entries';
import type {
  OutwardContent,
  OutwardField,
  OutwardItem,
  OutwardOverride,
  OutwardSeries,
  OutwardTime,
} from '../glass';
import type { Stamp } from '../reach';
import { meetingOf, wallToText, type Instant } from '../zones';
import { compactWall, escapeText, quoteParameter, safeUri } from './icsText';

/** What all events of one document have in common. */
export interface EventSetting {
  readonly busyWord: string;
  /** A sentence for the notes of every entry, or empty. */
  readonly note: string;
}

const STATUS: Record<Status, string> = {
  confirmed: 'CONFIRMED',
  tentative: 'TENTATIVE',
  cancelled: 'CANCELLED',
};

/** How each outward field is written; the order here is the order in the document. */
const WRITERS: { [F in OutwardField]: (value: NonNullable<OutwardContent[F]>) => string[] } = {
  title: (v) => [`SUMMARY:${escapeText(v)}`],
  place: (v) => (v ? [`LOCATION:${escapeText(v)}`] : []),
  status: (v) => [`STATUS:${STATUS[v]}`],
  shows: (v) => [`TRANSP:${v === 'free' ? 'TRANSPARENT' : 'OPAQUE'}`],
  description: (v) => [`DESCRIPTION:${escapeText(v)}`],
  publicLink: (v) => uriLine('URL', v),
  labels: (v) => [`CATEGORIES:${v.map(escapeText).join(',')}`],
  attachments: (v) => v.flatMap((a) => uriLine(`ATTACH;FILENAME=${quoteParameter(a.name)}`, a.href)),
  joinLink: (v) => uriLine('CONFERENCE;VALUE=URI', v),
  people: (v) =>
    v.flatMap((p) =>
      p.address
        ? uriLine(`ATTENDEE;CN=${quoteParameter(p.name)}`, `mailto:${p.address}`)
        : [`CONTACT:${escapeText(p.name)}`],
    ),
  contact: (v) => [`CONTACT:${escapeText(v)}`],
};

const FIELDS = Object.keys(WRITERS) as OutwardField[];

function uriLine(head: string, value: string): string[] {
  const uri = safeUri(value);
  return uri ? [`${head}:${uri}`] : [];
}

/** Returns the content lines of one item: one VEVENT (RFC 5545 section 3.6.1), and one more for each override. */
export function eventLines(item: OutwardItem, stamp: Stamp, setting: EventSetting): string[] {
  if (item.kind === 'busy') {
    const busy = [
      `SUMMARY:${escapeText(setting.busyWord)}`,
      `STATUS:${item.tentative ? 'TENTATIVE' : 'CONFIRMED'}`,
      'TRANSP:OPAQUE',
      ...noteLines('', setting),
    ];
    return event(item.uid, stamp, spanLines(item), busy);
  }
  if (item.kind === 'single')
    return event(item.uid, stamp, spanLines(withoutDoubt(item)), contentLines(item.content, setting));
  const recurrence = [
    ...(item.rule ? [`RRULE:${item.rule}`] : []),
    ...listLine('RDATE', item.dates),
    ...listLine('EXDATE', item.exceptDates),
  ];
  const lines = event(
    item.uid,
    stamp,
    [...spanLines(item), ...recurrence],
    contentLines(item.content, setting),
  );
  for (const override of [...item.overrides, ...spelledOut(item)].sort(
    (a, b) => wallOf(a.slot) - wallOf(b.slot),
  )) {
    const head = [`RECURRENCE-ID${whenText(override.slot)}`, ...spanLines(withoutDoubt(override))];
    lines.push(...event(item.uid, stamp, head, contentLines(override.content, setting)));
  }
  return lines;
}

/**
 * Returns the plain occurrences that programs would read in different ways, as overrides with both ends told: those
 * whose length differs from the first one's because of a clock change (some keep the length, some the clock time of
 * the end), and those at a time that clocks skip or show twice.
 */
function spelledOut(item: OutwardSeries): OutwardOverride[] {
  const length = item.to - item.from;
  return item.plain
    .filter((time) => time.start.kind === 'zoned' && (time.to - time.from !== length || isOdd(time)))
    .map((time) => ({ ...time, slot: time.start, content: item.content }));
}

/** Whether an end is at a time that clocks skip or show twice. */
function isOdd({ start, end }: Pick<OutwardTime, 'start' | 'end'>): boolean {
  return [start, end].some((w) => w.kind === 'zoned' && meetingOf(w.zone, wallOf(w)) !== 'once');
}

/** Returns a time in UTC where its own clocks would leave a doubt. */
function withoutDoubt(time: OutwardTime): OutwardTime {
  if (!isOdd(time)) return time;
  const utc = (instant: Instant) => ({ kind: 'zoned', at: wallToText(instant), zone: 'UTC' }) as const;
  return { ...time, start: utc(time.from), end: utc(time.to) };
}

function event(uid: string, stamp: Stamp, timeLines: readonly string[], rest: readonly string[]): string[] {
  return [
    'BEGIN:VEVENT',
    `UID:${uid}`,
    `DTSTAMP:${compactWall(stamp.at)}Z`,
    `LAST-MODIFIED:${compactWall(stamp.at)}Z`,
    `SEQUENCE:${stamp.sequence}`,
    ...timeLines,
    ...rest,
    'END:VEVENT',
  ];
}

/** An entry with no length has no DTEND: it must be later than DTSTART (RFC 5545 section 3.8.2.2). */
function spanLines({ start, end, from, to }: OutwardTime): string[] {
  const lines = [`DTSTART${whenText(start)}`];
  if (to > from) lines.push(`DTEND${whenText(end)}`);
  return lines;
}

function contentLines(content: OutwardContent, setting: EventSetting): string[] {
  const lines: string[] = [];
  for (const field of FIELDS) {
    const value = content[field];
    if (value === undefined || field === 'description') continue;
    lines.push(...(WRITERS[field] as (v: unknown) => string[])(value));
  }
  return [...lines, ...noteLines(content.description ?? '', setting)];
}

function noteLines(description: string, { note }: EventSetting): string[] {
  const text = [description, note].filter(Boolean).join('\n\n');
  return text ? WRITERS.description(text) : [];
}

/** Returns parameters and value of a date or time property, from the `;` or `:` on. */
export function whenText(when: When): string {
  const wall = compactWall(wallOf(when));
  if (when.kind === 'date') return `;VALUE=DATE:${wall.slice(0, 8)}`;
  if (when.kind === 'floating') return `:${wall}`;
  return when.zone === 'UTC' ? `:${wall}Z` : `;TZID=${when.zone}:${wall}`;
}

/** Dates and times of one kind and zone go into one line. */
function listLine(name: string, whens: readonly When[]): string[] {
  if (!whens.length) return [];
  const texts = whens.map(whenText);
  const head = texts[0]!.slice(0, texts[0]!.lastIndexOf(':') + 1);
  return [`${name}${head}${texts.map((t) => t.slice(t.lastIndexOf(':') + 1)).join(',')}`];
}

/** Returns the zones whose names stand in the lines of an item. */
export function zonesOf(item: OutwardItem): string[] {
  const times = endsOf(item);
  if (item.kind === 'series') {
    for (const o of item.overrides) times.push(o.slot, ...endsOf(withoutDoubt(o)));
  } else if (item.kind === 'single') return zoneNames(endsOf(withoutDoubt(item)));
  return zoneNames(times);
}

function endsOf({ start, end, from, to }: OutwardTime): When[] {
  return to > from ? [start, end] : [start];
}

function zoneNames(times: readonly When[]): string[] {
  return times.map((when) => zoneOfWhen(when, 'UTC')).filter((zone) => zone !== 'UTC');
}
