import Papa from 'papaparse';
import type { Content } from '../../entries';
import { ENTRY_FIELDS, capital, fieldWord } from '../../entries';
import {
  FIELD_RULES,
  occurrencesOfView,
  type EntryField,
  type OutwardContent,
  type OutwardOccurrence,
  type OutwardView,
} from '../../glass';
import type { Revision } from '../../reach';
import { DAY, dayAt, dayToText, isoOffset, offsetAt, wallAt, wallToText, type ZoneName } from '../../zones';
import { fieldText } from '../fieldText';
import { noticeWords, sayOf, type Notice } from '../notice';
import type { Parts } from '../parts';
import { cellOf } from './cells';
import { safeCell } from './writeCsv';

/** Columns for when something is, and by which clocks; then a column for each field that can go out at all. */
const TIMES = ['Start date', 'Start time', 'End date', 'End time', 'Time zone'] as const;
/** The last columns: they tell apart the two times that a clock shows an hour when it goes back. */
const OFFSETS = ['Start offset', 'End offset'] as const;
const FIELDS = Object.keys(FIELD_RULES) as EntryField[];
/** The very last one, where the window names its calendars. */
const CALENDAR = 'Calendar';
/** One block for so much time. */
const STRETCH = 16 * DAY;

/**
 * Returns every single time of a view as a row of a table (RFC 4180, with headings), in order of time and on the host's
 * clocks: dates of a series each have a row, busy time its one word. All views have the same columns, so that they tell
 * nothing of what is kept back; cells that a spreadsheet would take for a formula get an apostrophe in front.
 */
export function outwardTable(view: OutwardView, _revision: Revision, notice: Notice | null): Parts {
  const named = view.wording.calendars !== undefined;
  const headings = [
    ...TIMES,
    ...FIELDS.map((f) => capital(fieldWord(f))),
    ...OFFSETS,
    ...(named ? [CALENDAR] : []),
  ];
  const told = notice ? [[...noticeRow(notice, view), ...(named ? [''] : [])]] : [];
  const blocks: string[][] = [];
  let stretch = NaN;
  for (const one of occurrencesOfView(view)) {
    const own = Math.floor(one.from / STRETCH);
    if (own !== stretch) blocks.push([]);
    stretch = own;
    const calendar = named ? [one.content?.calendar ?? ''] : [];
    blocks.at(-1)!.push(line([...rowOf(one, view), ...calendar]));
  }
  return { head: [headings, ...told].map(line).join(''), blocks: blocks.map((b) => b.join('')) };
}

function line(cells: readonly string[]): string {
  return `${Papa.unparse([cells.map(safeCell)], { newline: '\r\n' })}\r\n`;
}

function rowOf(one: OutwardOccurrence, { hostZone, wording }: OutwardView): string[] {
  const { content, tentative } = one;
  const times = timesOf(one, hostZone);
  const offsets = offsetsOf(one, hostZone);
  if (!content)
    return [
      ...times,
      ...FIELDS.map((f) =>
        f === 'title' ? wording.busyWord : f === 'status' && tentative ? 'tentative' : '',
      ),
      ...offsets,
    ];
  return [...times, ...FIELDS.map((f) => textOf(content, f)), ...offsets];
}

/**
 * A whole day has no times; its end is the last day that is meant, as people write it. Floating times are those of any clock, and
 * name none.
 */
function timesOf({ start, end, from, to }: OutwardOccurrence, hostZone: ZoneName): string[] {
  if (start.kind === 'date' && end.kind === 'date')
    return [start.date, '', dayToText(dayAt('UTC', Date.parse(end.date)) - 1), '', ''];
  const clocks = (a: string, b: string) => [a.slice(0, 10), a.slice(11, 16), b.slice(0, 10), b.slice(11, 16)];
  if (start.kind === 'floating' && end.kind === 'floating') return [...clocks(start.at, end.at), ''];
  const walls = [from, to].map((at) => wallToText(wallAt(hostZone, at))) as [string, string];
  return [...clocks(...walls), hostZone];
}

/** Returns such as `UTC-03:00` for start and end; nothing for whole days and floating times. */
function offsetsOf({ start, from, to }: OutwardOccurrence, hostZone: ZoneName): string[] {
  return [from, to].map((at) => (start.kind === 'zoned' ? `UTC${isoOffset(offsetAt(hostZone, at))}` : ''));
}

function textOf(content: OutwardContent, field: EntryField): string {
  const value = content[field];
  if (value === undefined) return '';
  const own = ENTRY_FIELDS[field].column ? cellOf(content as unknown as Content, field) : '';
  return own || fieldText(field, value);
}

function noticeRow(notice: Notice, view: OutwardView): string[] {
  const { title } = noticeWords(notice, view);
  const day = dayToText(dayAt(view.hostZone, notice.at));
  const cells: Partial<Record<EntryField, string>> = { title, description: sayOf(notice, view) };
  return [
    day,
    '',
    day,
    '',
    '',
    ...FIELDS.map((f) => cells[f] ?? (f === 'publicLink' ? (notice.to?.see ?? '') : '')),
    ...OFFSETS.map(() => ''),
  ];
}
