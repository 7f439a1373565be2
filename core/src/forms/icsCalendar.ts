import type { Range } from '../entries';
import { USUAL_LETTING_GO, safeUri, type OutwardItem, type OutwardView } from '../glass';
import { leavingAt, type Gone, type Revision, type Stamp } from '../reach';
import type { Instant, ZoneName } from '../zones';
import type { CopyWords } from './copyWords';
import { deletedLines, eventLines, goneLines, zonesOf, type EventSetting } from './icsEvent';
import { foldLine, utcText, escapeText, joinLines } from './icsText';
import { speechFor } from './speech/speech';
import { timeZoneLines } from './icsTimeZone';
import { noticeLines, type Notice } from './notice';
import { BELOW, blocksOf, type Block, type Parts } from './parts';

export const PRODUCT = '-//Zonal Window//Outward calendar 1//EN';

export interface CalendarOptions {
  /** The absolute address that this document can be had from again, or empty. */
  readonly source: string;
  /** The absolute address of the page that shows the same to people. */
  readonly page: string;
  /** What is told to those with this address alone. */
  readonly notice?: Notice | null;
  /** Set for a dated copy. */
  readonly copy?: CopyWords;
  /** The moment as of which it is told what has left; left out where it is not. */
  readonly asOf?: Instant;
  /**
   * Set where only what changed is told, to all items of the view: zones are defined for all times of them, as programs may
   * have but one definition of each. Then what has left is told as deleted, whenever it left.
   */
  readonly partOf?: OutwardView['items'];
}

/** Hours after which programs are asked to look again. */
const REFRESH = 'PT1H';

/** The content lines of a document: up to its first component, the zones that it names, and its entries in blocks. */
export interface CalendarPieces {
  readonly head: string;
  readonly zones: string;
  readonly blocks: readonly WrittenBlock[];
  /** What tells of items that have left, in blocks too. */
  readonly gone: readonly string[];
}

/** Returns the pieces of a document; its last line is left out. Each zone named is defined, right for all its times. */
export function calendarPieces(
  view: OutwardView,
  revision: Revision,
  options: CalendarOptions,
): CalendarPieces {
  const { asOf } = options;
  const days = view.wording.lettingGo ?? USUAL_LETTING_GO;
  const setting: EventSetting = {
    ...settingOf(view),
    note: options.copy?.note ?? '',
    leaving: asOf === undefined ? null : { days, now: asOf },
  };
  const write = (block: Block) => writtenBlock(block, revision.stamps, setting);
  const blocks = blocksOf(view.items).map(write);
  const whole = options.partOf ? blocksOf(options.partOf).map(write) : blocks;
  const { notice } = options;
  const told = notice ? noticeLines(notice, view) : [];
  const head = joinLines([...headLines(view, revision, options), ...told]);
  const left = asOf === undefined ? [] : leavingAt(revision, view.wording, asOf).gone;
  const gone = options.partOf ? goneBlocks(revision.gone, deletedLines) : goneBlocks(left, goneLines);
  return { head, zones: zonesText(blocks, whole, gone.length > 0), blocks, gone };
}

/** Returns what all events of a view have in common where nothing is told besides. */
export function settingOf({ wording, hostZone }: Pick<OutwardView, 'wording' | 'hostZone'>): EventSetting {
  const { language, busyWord, dueAs, remind = 0 } = wording;
  return { speech: speechFor(language), busyWord, note: '', hostZone, dueAs, remind, leaving: null };
}

/** So many stand in one block. */
const GONE_TOGETHER = 100;

function goneBlocks(gone: readonly Gone[], linesOf: (gone: Gone) => string[]): string[] {
  const out: string[] = [];
  for (let at = 0; at < gone.length; at += GONE_TOGETHER)
    out.push(joinLines(gone.slice(at, at + GONE_TOGETHER).flatMap(linesOf)));
  return out;
}

/**
 * Returns an iCalendar document (RFC 5545, RFC 7986) of a view. The bytes depend on the arguments alone. Each time
 * zone named has its VTIMEZONE, right for all times in the document; lines are folded at 75 octets. Only the head depends
 * on the addresses; a copy is all head.
 */
export function calendarParts(view: OutwardView, revision: Revision, options: CalendarOptions): Parts {
  const { head, zones, blocks, gone } = calendarPieces(view, revision, options);
  const rest = [zones, ...blocks.map((b) => b.text), ...gone, 'END:VCALENDAR\r\n'];
  const fill = (block: string) => withPages(block, pagesOf(options));
  // Every entry of a copy tells when it was taken: no two have anything in common.
  return options.copy ? { head: head + rest.map(fill).join(''), blocks: [] } : { head, blocks: rest, fill };
}

/** Returns the address below which the pages of entries are: the one that lasts. */
export function pagesOf({ page, notice }: Pick<CalendarOptions, 'page' | 'notice'>): string {
  return notice?.to?.see ?? page;
}

const BELOW_LINE = new RegExp(`(URL|IMAGE;VALUE=URI):${BELOW}([^\\r\\n]*)\\r\\n`, 'g');

/** Returns content lines with the addresses of each entry's page and image in place. */
export function withPages(block: string, pages: string): string {
  return block.replace(BELOW_LINE, (_line, head: string, below: string) =>
    foldLine(`${head}:${pages}/${below}`),
  );
}

type Stretches = ReadonlyMap<ZoneName, Range>;

export interface WrittenBlock {
  readonly text: string;
  /** The zones that it names, and from when to when. */
  readonly zones: Stretches;
  readonly stamps: readonly Stamp[];
  readonly setting: EventSetting;
}

/** Blocks are written once as long as their items and stamps stay the same. */
const written = new WeakMap<Block, WrittenBlock>();

function writtenBlock(
  block: Block,
  stamps: Readonly<Record<string, Stamp>>,
  setting: EventSetting,
): WrittenBlock {
  const before = written.get(block);
  const same = (item: OutwardItem, i: number) =>
    sameStamp(before!.stamps[i]!, stamps[item.uid]!, before!.setting, setting);
  if (before && sameSetting(before.setting, setting) && block.every(same)) return before;
  const own = block.map((item) => stamps[item.uid]!);
  const text = block.map((item, i) => itemText(item, own[i]!, setting)).join('');
  const made = { text, zones: zonesIn(block, setting), stamps: own, setting };
  // Copies say when they were taken: none is like another.
  if (!setting.note) written.set(block, made);
  return made;
}

function sameSetting(a: EventSetting, b: EventSetting): boolean {
  return (
    a.busyWord === b.busyWord &&
    a.note === b.note &&
    a.hostZone === b.hostZone &&
    a.dueAs === b.dueAs &&
    a.remind === b.remind &&
    a.speech.locale === b.speech.locale
  );
}

/** The text of each item is made once as long as its stamp and the setting stay the same. */
const texts = new WeakMap<OutwardItem, { stamp: Stamp; setting: EventSetting; text: string }>();

/** Returns the content lines of one item, each ended. */
export function itemText(item: OutwardItem, stamp: Stamp, setting: EventSetting): string {
  const known = texts.get(item);
  if (known && sameSetting(known.setting, setting) && sameStamp(known.stamp, stamp, known.setting, setting))
    return known.text;
  const text = joinLines(eventLines(item, stamp, setting));
  if (!setting.note) texts.set(item, { stamp, setting, text });
  return text;
}

/** Whether stamps are told alike: slots that are told apart no more are so for a time. */
function sameStamp(a: Stamp, b: Stamp, was: EventSetting, is: EventSetting): boolean {
  const joined =
    !a.joined || (was.leaving?.days === is.leaving?.days && was.leaving?.now === is.leaving?.now);
  if (a === b) return joined;
  return joined && !b.joined && a.sequence === b.sequence && a.at === b.at && a.print === b.print;
}

function headLines(view: OutwardView, revision: Revision, { source, page, copy }: CalendarOptions): string[] {
  const { wording, hostZone } = view;
  const { contact, topic } = wording;
  const called = (text: string) => escapeText(copy ? copy.nameOf(text) : text);
  const name = called(wording.name);
  const speech = speechFor(wording.language);
  const notes = [contact && speech.say('questions', { contact }), copy?.note];
  const about = (text: string) => escapeText([text, ...notes].filter(Boolean).join('\n\n'));
  const description = about(wording.description);
  const [from, shown] = [safeUri(source), safeUri(page)];
  const tag = (language: string) => (language ? `;LANGUAGE=${language}` : '');
  return [
    'BEGIN:VCALENDAR',
    'VERSION:2.0',
    `PRODID:${PRODUCT}`,
    // No METHOD: a published calendar needs an organizer in each entry (RFC 5546 section 3.2.1), which never goes out.
    'CALSCALE:GREGORIAN',
    // A copy is not the calendar itself.
    ...(copy ? [] : [`UID:${view.ids.calendar}`]),
    `NAME${tag(wording.language)}:${name}`,
    ...wording.translations.map((t) => `NAME${tag(t.language)}:${called(t.name)}`),
    `X-WR-CALNAME:${name}`,
    ...(description
      ? [`DESCRIPTION${tag(wording.language)}:${description}`, `X-WR-CALDESC:${description}`]
      : []),
    ...wording.translations
      .filter((t) => t.description)
      .map((t) => `DESCRIPTION${tag(t.language)}:${about(t.description)}`),
    ...(topic ? [`CATEGORIES${tag(wording.language)}:${escapeText(topic)}`] : []),
    `X-WR-TIMEZONE:${hostZone}`,
    ...(shown ? [`URL:${shown}`] : []),
    `LAST-MODIFIED:${utcText(revision.at)}`,
    `COLOR:${wording.colour}`,
    ...(from ? [`SOURCE;VALUE=URI:${from}`] : []),
    ...(copy ? [] : [`REFRESH-INTERVAL;VALUE=DURATION:${REFRESH}`, `X-PUBLISHED-TTL:${REFRESH}`]),
  ];
}

function zonesIn(block: Block, setting: EventSetting): Stretches {
  const used = new Map<ZoneName, Range>();
  for (const item of block) {
    // Most items name one zone in a stretch that is known already.
    if (item.kind === 'single' && item.start.kind === 'zoned' && item.end.kind === 'zoned') {
      const known = item.end.zone === item.start.zone ? used.get(item.start.zone) : undefined;
      if (known && known.from <= item.from && known.to >= item.to) continue;
    }
    const stretch = extent(item);
    for (const zone of zonesOf(item, setting)) widen(used, zone, stretch);
  }
  return used;
}

function widen(used: Map<ZoneName, Range>, zone: ZoneName, { from, to }: Range): void {
  const known = used.get(zone);
  used.set(zone, { from: Math.min(from, known?.from ?? from), to: Math.max(to, known?.to ?? to) });
}

function zonesText(blocks: readonly WrittenBlock[], whole: readonly WrittenBlock[], more: boolean): string {
  const named = new Set(blocks.flatMap(({ zones }) => [...zones.keys()]));
  const used = new Map<ZoneName, Range>();
  for (const { zones } of whole)
    for (const [zone, stretch] of zones) if (named.has(zone)) widen(used, zone, stretch);
  // A calendar has at least one component (RFC 5545 section 3.6): an empty one defines UTC, which never changes.
  if (!blocks.length && !more) used.set('UTC', { from: 0, to: 0 });
  let out = '';
  for (const [zone, { from, to }] of [...used].sort(([a], [b]) => (a < b ? -1 : 1))) {
    out += joinLines(timeZoneLines(zone, from, to));
  }
  return out;
}

function extent(item: OutwardItem): Range {
  let { from, to } = item;
  if (item.kind === 'series') {
    for (const time of [...item.plain, ...item.overrides]) {
      from = Math.min(from, time.from);
      to = Math.max(to, time.to);
    }
  }
  return { from, to };
}
