import { instantOfWhen, sameWhen, wallOf, zoneOfWhen, type Status, type When, utcWhen } from '../entries';
import {
  isOdd,
  safeUri,
  spelledOut,
  type DueForm,
  type OutwardContent,
  type OutwardField,
  type OutwardItem,
  type OutwardSeries,
  type OutwardTime,
} from '../glass';
import { isTold, type Gone, type Stamp } from '../reach';
import { SECOND, type Instant, type ZoneName } from '../zones';
import { compactText, utcText, escapeText, quoteParameter } from './icsText';
import { asWritten } from './dueForm';
import { onText } from './onText';
import { BELOW, imagePath } from './parts';
import { kindText, type Speech } from './speech/speech';

/** What all events of one document have in common. */
export interface EventSetting {
  /** Tells what is told in the notes. */
  readonly speech: Speech;
  readonly busyWord: string;
  /** A sentence for the notes of every entry, or empty. */
  readonly note: string;
  readonly hostZone: ZoneName;
  readonly dueAs: DueForm;
  /** Minutes before timed entries at which programs are told to remind; 0 for never. */
  readonly remind: number;
  /** For how many days it is told what has left, and the moment from which they are counted back; null where it is not. */
  readonly leaving: { readonly days: number; readonly now: Instant } | null;
}

const STATUS: Record<Status, string> = {
  confirmed: 'CONFIRMED',
  tentative: 'TENTATIVE',
  cancelled: 'CANCELLED',
  // An event cannot be done (RFC 5545 section 3.8.1.11); its notes say so.
  done: 'CONFIRMED',
};

const TASK_STATUS: Record<Status, string> = {
  confirmed: 'NEEDS-ACTION',
  tentative: 'NEEDS-ACTION',
  cancelled: 'CANCELLED',
  done: 'COMPLETED',
};

/** Told in the notes, because few programs show a property of its own. */
type NoteField = 'description' | 'kind' | 'planned' | 'properties' | 'people';

/** How each of them is told there, in this order; null where another one tells it too. */
const NOTES: {
  readonly [F in NoteField]:
    ((content: OutwardContent, start: When, setting: EventSetting) => string | undefined) | null;
} = {
  kind: (content, start, { hostZone, speech }) => kindText(speech, content, start, hostZone),
  planned: null,
  description: ({ description }) => description,
  properties: ({ properties }) => properties?.map((p) => `${p.name}: ${p.value}`).join('\n'),
  people: peopleText,
};

/** How each outward field is written; the order here is the order in the document. */
const WRITERS: {
  [F in Exclude<OutwardField, NoteField>]: (value: NonNullable<OutwardContent[F]>) => string | string[];
} = {
  title: (v) => `SUMMARY:${escapeText(v)}`,
  place: (v) => (v ? `LOCATION:${escapeText(v)}` : []),
  status: (v) => `STATUS:${STATUS[v]}`,
  shows: (v) => `TRANSP:${v === 'free' ? 'TRANSPARENT' : 'OPAQUE'}`,
  // The URL of an entry is its own page (RFC 5545 section 3.8.4.6).
  publicLink: (v) => uriLine('ATTACH;FMTTYPE=text/html', v),
  labels: (v) => `CATEGORIES:${v.map(escapeText).join(',')}`,
  calendar: (v) => `CATEGORIES:${escapeText(v)}`,
  attachments: (v) => v.flatMap((a) => uriLine(`ATTACH;FILENAME=${quoteParameter(a.name)}`, a.href)),
  // Like an entry's page, its image is below the address of each key (RFC 7986 section 5.10).
  image: (v) => `IMAGE;VALUE=URI:${BELOW}${imagePath(v)}`,
  joinLink: (v) => uriLine(`CONFERENCE;VALUE=URI;FEATURE=${featureOf(v)};LABEL="Join"`, v),
  contact: (v) => `CONTACT:${escapeText(v)}`,
};

const FIELDS = Object.keys(WRITERS) as (keyof typeof WRITERS)[];

function uriLine(head: string, value: string): string[] {
  const uri = safeUri(value);
  return uri ? [`${head}:${uri}`] : [];
}

/** What can be done at a joining link (RFC 7986 section 6.3), as far as its scheme tells. */
function featureOf(link: string): string {
  return /^(tel|sips?):/i.test(link) ? 'PHONE' : 'AUDIO,VIDEO';
}

/** People are named in the notes: a published calendar has no ATTENDEE (RFC 5545 section 3.8.4.1). */
function peopleText({ people }: OutwardContent, _start: When, { speech }: EventSetting): string {
  const names = people?.map(({ name, address }) =>
    name && address && name !== address ? `${name} <${address}>` : name || address,
  );
  return names?.length ? speech.say('withPeople', { people: names.join(', ') }) : '';
}

/** Returns the content lines of one item: one VEVENT (RFC 5545 section 3.6.1), and one more for each override. */
export function eventLines(item: OutwardItem, stamp: Stamp, setting: EventSetting): string[] {
  return writtenLines(asWritten(item, setting), stamp, setting);
}

function writtenLines(item: OutwardItem, stamp: Stamp, setting: EventSetting): string[] {
  const component = isTask(item, setting) ? TASK : EVENT;
  if (item.kind === 'busy') {
    const busy = [
      `SUMMARY:${escapeText(setting.busyWord)}`,
      `STATUS:${item.tentative ? 'TENTATIVE' : 'CONFIRMED'}`,
      'TRANSP:OPAQUE',
      'CLASS:PRIVATE',
      ...descriptionLine([setting.note]),
    ];
    return component.lines(item.uid, stamp, EVENT.span(item), busy);
  }
  if (item.kind === 'single')
    return component.lines(item.uid, stamp, component.span(withoutDoubt(item)), [
      ...component.content(item.content, item.start, setting),
      pageLine(item.uid, null),
      ...component.after(item.content, item.start, setting),
    ]);
  const recurrence = [
    ...(item.rule ? [`RRULE:${item.rule}`] : []),
    ...listLine('RDATE', item.dates),
    ...listLine('EXDATE', item.exceptDates),
  ];
  const lines = component.lines(
    item.uid,
    stamp,
    [...component.seriesSpan(item), ...recurrence],
    [
      ...component.content(item.content, item.start, setting),
      pageLine(item.uid, null),
      ...component.after(item.content, item.start, setting),
    ],
  );
  for (const override of [...item.overrides, ...spelledOut(item)].sort(
    (a, b) => wallOf(a.slot) - wallOf(b.slot),
  )) {
    const head = [`RECURRENCE-ID${whenText(override.slot)}`, ...component.seriesSpan(withoutDoubt(override))];
    lines.push(
      ...component.lines(item.uid, stamp, head, [
        ...component.content(override.content, override.start, setting),
        pageLine(item.uid, override.start),
        ...component.after(override.content, override.start, setting),
      ]),
    );
  }
  for (const slot of joinedSlots(item, stamp, setting))
    lines.push(...component.lines(item.uid, stamp, ...joinedLines(item, slot, component, setting)));
  return lines;
}

/**
 * Returns the content lines of every date of an item that lies in a stretch of instants: each by itself and in UTC, with no
 * rule (RFC 4791 section 9.6.5).
 */
export function datesLines(
  original: OutwardItem,
  isIn: (time: OutwardTime) => boolean,
  stamp: Stamp,
  setting: EventSetting,
): string[] {
  const item = asWritten(original, setting);
  if (item.kind !== 'series') return isIn(item) ? writtenLines(inUtc(item), stamp, setting) : [];
  const shape = isTask(item, setting) ? TASK : EVENT;
  const plain = item.plain.map((time) => ({ ...time, slot: time.start, content: item.content }));
  return [...plain, ...item.overrides]
    .filter(isIn)
    .sort((a, b) => a.from - b.from)
    .flatMap((time) => {
      const { content, start } = time;
      const slot = sameWhen(time.slot, start) ? inUtc(time).start : slotInUtc(time.slot, setting.hostZone);
      return shape.lines(
        item.uid,
        stamp,
        [`RECURRENCE-ID${whenText(slot)}`, ...shape.seriesSpan(inUtc(time))],
        [
          ...shape.content(content, start, setting),
          pageLine(item.uid, start),
          ...shape.after(content, start, setting),
        ],
      );
    });
}

function inUtc<T extends OutwardTime>(time: T): T {
  if (time.start.kind !== 'zoned' && time.end.kind !== 'zoned') return time;
  return { ...time, start: utcWhen(time.from), end: utcWhen(time.to) };
}

function slotInUtc(slot: When, hostZone: ZoneName): When {
  return slot.kind === 'zoned' ? utcWhen(instantOfWhen(slot, hostZone)) : slot;
}

/** Returns the slots of a series that programs may still hold apart, though they are so no more. */
function joinedSlots(item: OutwardSeries, { joined }: Stamp, { leaving }: EventSetting): When[] {
  if (!joined || !leaving) return [];
  const known = [...item.plain.map(({ start }) => start), ...item.exceptDates];
  // What is no date of it any more is not named.
  return joined
    .filter((one) => isTold(one, leaving.days, leaving.now))
    .map(({ slot }) => slot)
    .filter((slot) => known.some((one) => sameWhen(one, slot)));
}

/** A date that is as all others again, or that is left out: programs that kept it apart learn either. */
function joinedLines(
  item: OutwardSeries,
  slot: When,
  shape: Shape,
  setting: EventSetting,
): [time: string[], rest: string[]] {
  const id = `RECURRENCE-ID${whenText(slot)}`;
  const time = item.plain.find(({ start }) => sameWhen(start, slot));
  if (!time) return [[id, `DTSTART${whenText(slot)}`], CANCELLED];
  return [
    [id, ...shape.seriesSpan(withoutDoubt(time))],
    [
      ...shape.content(item.content, time.start, setting),
      pageLine(item.uid, time.start),
      ...shape.after(item.content, time.start, setting),
    ],
  ];
}

const CANCELLED = ['STATUS:CANCELLED', 'TRANSP:TRANSPARENT'];

/**
 * Returns the content lines that tell that an item has left: cancelled, at the moment at which it left and with nothing
 * else of what it was.
 */
export function goneLines({ uid, sequence, at }: Gone): string[] {
  return component('VEVENT', uid, { sequence, at }, [`DTSTART:${utcText(at)}`], CANCELLED);
}

/** Returns the content lines that tell a program that holds an item to let go of it: nothing but which one. */
export function deletedLines({ uid, sequence, at }: Gone): string[] {
  return component('VEVENT', uid, { sequence, at }, [], ['STATUS:DELETED']);
}

/** The address of an entry's own page, or of one date's; all but its end is filled in for each key. */
function pageLine(uid: string, on: When | null): string {
  return `URL:${BELOW}${uid}${on ? `?on=${encodeURIComponent(onText(on))}` : ''}`;
}

/** Returns a time in UTC where its own clocks would leave a doubt. */
function withoutDoubt(time: OutwardTime): OutwardTime {
  if (!isOdd(time)) return time;
  return { ...time, start: utcWhen(time.from), end: utcWhen(time.to) };
}

/** What differs between the two components that an entry can be. */
interface Shape {
  lines(uid: string, stamp: Stamp, time: readonly string[], rest: readonly string[]): string[];
  span(time: OutwardTime): string[];
  /** A series needs a start (RFC 5545 section 3.8.5.3). */
  seriesSpan(time: OutwardTime): string[];
  content(content: OutwardContent, start: When, setting: EventSetting): string[];
  /** What stands in the component after its properties. */
  after(content: OutwardContent, start: When, setting: EventSetting): string[];
}

/** An entry with no length has no DTEND: it must be later than DTSTART (RFC 5545 section 3.8.2.2). */
function eventSpan({ start, end, from, to }: OutwardTime): string[] {
  const lines = [`DTSTART${whenText(start)}`];
  if (to > from) lines.push(`DTEND${whenText(end)}`);
  return lines;
}

/**
 * Returns the times of a series. If clocks show its end twice or skip it, programs disagree about its length, which all
 * its dates have: then it is written as a DURATION (RFC 5545 section 3.3.6).
 */
function eventSeriesSpan(time: OutwardTime): string[] {
  const { start, from, to } = time;
  if (to <= from || !hasOddEnd(time)) return eventSpan(time);
  return [`DTSTART${whenText(start)}`, `DURATION:PT${Math.round((to - from) / SECOND)}S`];
}

function hasOddEnd({ end }: OutwardTime): boolean {
  return isOdd({ start: end, end });
}

/** RFC 5545 section 3.6.1. */
const EVENT: Shape = {
  lines: (...parts) => component('VEVENT', ...parts),
  span: eventSpan,
  seriesSpan: eventSeriesSpan,
  content: contentLines,
  after: alarmLines,
};

/** RFC 5545 section 3.6.2: a due day or moment has no length and takes no time. */
const TASK: Shape = {
  lines: (...parts) => component('VTODO', ...parts),
  span: ({ start }) => [`DUE${whenText(start)}`],
  seriesSpan: ({ start }) => [
    `DTSTART${whenText(start)}`,
    ...(start.kind === 'date' ? ['DURATION:P1D'] : []),
  ],
  content: (content, start, setting) => {
    const lines = contentLines(content, start, setting).filter((l) => !/^(STATUS|TRANSP):/.test(l));
    return [...lines, `STATUS:${TASK_STATUS[content.status]}`];
  },
  after: () => [],
};

/** A suggestion to remind of what takes place at a time (RFC 5545 section 3.6.6); programs ask their readers, or ignore it. */
function alarmLines({ title, status }: OutwardContent, start: When, { remind }: EventSetting): string[] {
  if (!remind || start.kind === 'date' || status === 'cancelled' || status === 'done') return [];
  return [
    'BEGIN:VALARM',
    'ACTION:DISPLAY',
    `DESCRIPTION:${escapeText(title)}`,
    `TRIGGER:-PT${remind}M`,
    'END:VALARM',
  ];
}

function isTask(item: OutwardItem, { dueAs }: EventSetting): boolean {
  return dueAs === 'task' && item.kind !== 'busy' && item.content.kind === 'due';
}

function component(
  name: string,
  uid: string,
  stamp: Pick<Stamp, 'at' | 'sequence'>,
  timeLines: readonly string[],
  rest: readonly string[],
): string[] {
  return [
    `BEGIN:${name}`,
    `UID:${uid}`,
    `DTSTAMP:${utcText(stamp.at)}`,
    `LAST-MODIFIED:${utcText(stamp.at)}`,
    `SEQUENCE:${stamp.sequence}`,
    ...timeLines,
    ...rest,
    `END:${name}`,
  ];
}

function contentLines(content: OutwardContent, start: When, setting: EventSetting): string[] {
  const lines: string[] = [];
  for (const field of FIELDS) {
    const value = content[field];
    if (value === undefined) continue;
    const written = (WRITERS[field] as (v: unknown) => string | string[])(value);
    if (typeof written === 'string') lines.push(written);
    else lines.push(...written);
  }
  lines.push('CLASS:PUBLIC');
  const notes = Object.values(NOTES).map((note) => note?.(content, start, setting));
  lines.push(...descriptionLine([...notes, setting.note]));
  return lines;
}

function descriptionLine(texts: readonly (string | undefined)[]): string[] {
  const text = texts.filter(Boolean).join('\n\n');
  return text ? [`DESCRIPTION:${escapeText(text)}`] : [];
}

/** Returns parameters and value of a date or time property, from the `;` or `:` on. */
export function whenText(when: When): string {
  const wall = compactText(when.kind === 'date' ? when.date : when.at);
  if (when.kind === 'date') return `;VALUE=DATE:${wall}`;
  if (when.kind === 'floating') return `:${wall}`;
  return when.zone === 'UTC' ? `:${wall}Z` : `;TZID=${when.zone}:${wall}`;
}

/** Returns a list property, or none for no moments. Dates and times of one kind and zone go into one line. */
export function listLine(name: string, whens: readonly When[]): string[] {
  if (!whens.length) return [];
  const texts = whens.map(whenText);
  const head = texts[0]!.slice(0, texts[0]!.lastIndexOf(':') + 1);
  return [`${name}${head}${texts.map((t) => t.slice(t.lastIndexOf(':') + 1)).join(',')}`];
}

/** Returns the zones whose names stand in the lines of an item. */
export function zonesOf(original: OutwardItem, setting: EventSetting): string[] {
  const item = asWritten(original, setting);
  const times = item.kind === 'series' && hasOddEnd(item) ? [item.start] : endsOf(item);
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
