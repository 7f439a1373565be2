import Papa from 'papaparse';
import { EMPTY_CONTENT, checkedEntry, whenLike, wallOf, type Content, type When } from '../../entries';
import { Problem } from '../../problems';
import { DAY, HOUR, MINUTE, dayFromText, dayToText, wallToText, zoneNamed, type ZoneName } from '../../zones';
import type { InsideLanguage } from '../../texts/languages';
import { decodeFile } from '../read/decode';
import { FileNotes } from '../read/fileNotes';
import type { DraftEntry, ReadItem, ReadResult } from '../read/report';
import { valueOfCell, type CellReading } from './cells';
import { COLUMN_FIELDS, CSV_FIELDS, columnWord, type CsvFieldName, type CsvMapping } from './csvFields';
import { unguarded } from './writeCsv';

export const DATE_ORDERS = ['ymd', 'dmy', 'mdy'] as const;
/** In which order a date in figures is written, where it does not start with the year. */
export type DateOrder = (typeof DATE_ORDERS)[number];

/** A table as it was read, before it is known what its columns mean. */
export interface CsvTable {
  readonly headings: readonly string[];
  readonly rows: readonly (readonly string[])[];
  readonly notes: readonly string[];
}

/** Returns the table of a .csv file, in any of the usual delimiters. Throws `file-empty` or `table-unreadable`. */
export function csvTable(bytes: Uint8Array, language: InsideLanguage = 'en'): CsvTable {
  const { text, notes } = decodeFile(bytes, language);
  const { data, errors } = Papa.parse<string[]>(text, { skipEmptyLines: 'greedy' });
  const quotes = errors.find((e) => e.type === 'Quotes');
  if (quotes) throw new Problem('table-unreadable', { line: (quotes.row ?? 0) + 1, reason: quotes.message });
  const [headings, ...rows] = data;
  if (!headings || !rows.length) throw new Problem('file-empty');
  return { headings, rows, notes: [...notes] };
}

/** Returns the order that the dates of a column are written in, where one of them leaves no doubt; else `dmy`. */
export function guessDateOrder(cells: readonly string[]): DateOrder {
  let order: DateOrder = 'dmy';
  for (const cell of cells) {
    if (/^\s*\d{4}\D/.test(cell)) return 'ymd';
    const [, first, second] = /^\s*(\d{1,2})\D+(\d{1,2})\D/.exec(cell) ?? [];
    if (Number(first) > 12) return 'dmy';
    if (Number(second) > 12) order = 'mdy';
  }
  return order;
}

export interface CsvSetting {
  readonly mapping: CsvMapping;
  readonly dateOrder: DateOrder;
  readonly zone: ZoneName;
  /** Of the report (default: English). */
  readonly language?: InsideLanguage;
}

/** Returns the entries of a table and a report with one line per row, as {@link readCalendar} does for its format. */
export function readCsv(table: CsvTable, setting: CsvSetting): ReadResult {
  const entries = new Map<string, DraftEntry>();
  const items: ReadItem[] = [];
  const mapped = new Set(Object.values(setting.mapping));
  const others = table.headings
    .map((name, i) => ({ name: name.trim(), i }))
    .filter((c) => c.name && !mapped.has(c.i));
  table.rows.forEach((row, i) => {
    const line = i + 2;
    const cell = (field: CsvFieldName) => unguarded((row[setting.mapping[field] ?? -1] ?? '').trim());
    const notes = new FileNotes(setting.language ?? 'en');
    const item = (outcome: ReadItem['outcome'], uid = '') => ({
      line,
      uid,
      title: cell('title'),
      outcome,
      notes: [...notes],
    });
    try {
      const draft = draftOf(
        cell,
        others.map(({ name, i: at }) => ({ name, value: unguarded((row[at] ?? '').trim()) })),
        setting,
        line,
        notes,
      );
      if (entries.has(draft.uid))
        throw new Problem('table-row', { reason: `the identifier ${draft.uid} stands in an earlier row` });
      entries.set(draft.uid, draft);
      items.push(item(notes.size ? 'changed' : 'read', draft.uid));
    } catch (error) {
      if (!(error instanceof Problem)) throw error;
      notes.addProblem(error);
      items.push(item('left-out'));
    }
  });
  return { cancelled: [], names: [], entries: [...entries.values()], items, notes: table.notes };
}

type Cell = (field: CsvFieldName) => string;

function draftOf(
  cell: Cell,
  others: readonly { name: string; value: string }[],
  setting: CsvSetting,
  line: number,
  notes: FileNotes,
): DraftEntry {
  const title = cell('title');
  if (!title) throw new Problem('table-row', { reason: 'it has no title' });
  const { start, end } = spanOf(cell, setting);
  const how: CellReading = {
    moment: (text) => momentOf(text, '', setting, start.kind === 'zoned' ? start.zone : null),
    notes,
  };
  const content: Content = {
    ...EMPTY_CONTENT,
    ...Object.fromEntries(COLUMN_FIELDS.map((field) => [field, valueOfCell(field, cell(field), how)])),
    properties: others.filter((o) => o.value),
  };
  const rule = cell('rule').replace(/^RRULE:/i, '');
  const recurrence = rule ? { rule, dates: [], exceptDates: [] } : null;
  const uid =
    cell('uid') || `row-${line}-${wallOf(start)}-${title.toLowerCase().replace(/\W+/g, '-').slice(0, 60)}`;
  return checkedEntry({ ...content, uid, start, end, recurrence, overrides: [] }, setting.zone);
}

function spanOf(cell: Cell, setting: CsvSetting): { start: When; end: When } {
  const named = cell('zone') ? zoneNamed(cell('zone')) : setting.zone;
  if (!named) throw new Problem('zone-unknown', { zone: cell('zone') });
  if (!cell('startDate')) throw new Problem('table-row', { reason: 'it has no first day' });
  const start = momentOf(cell('startDate'), cell('startTime'), setting, named);
  if (start.kind === 'date') {
    const last = cell('endDate') ? momentOf(cell('endDate'), '', setting, null) : start;
    return { start, end: whenLike(start, Math.floor(wallOf(last) / DAY) * DAY + DAY) };
  }
  if (!cell('endDate') && !cell('endTime')) return { start, end: whenLike(start, wallOf(start) + HOUR) };
  const end = momentOf(
    cell('endDate') || start.at.slice(0, 10),
    cell('endTime'),
    setting,
    named,
    wallOf(start) % DAY,
  );
  if (end.kind === 'date') return { start, end: start };
  // An end time with no day of its own may lie after midnight.
  const next = !cell('endDate') && wallOf(end) < wallOf(start) ? DAY : 0;
  return { start, end: whenLike(end, wallOf(end) + next) };
}

/** Returns a day, or a time in `zone` where a time stands beside it or after it. */
function momentOf(
  date: string,
  time: string,
  { dateOrder, zone }: CsvSetting,
  named: ZoneName | null,
  other?: number,
): When {
  const [, day, rest] = /^(\S+?)(?:T|[\s,]+)(\d.*)$/.exec(date) ?? [null, date, ''];
  const clock = time || (rest && /[:.]|m$/i.test(rest) ? rest : '');
  const text = dateText(clock === rest && rest ? day! : date, dateOrder);
  if (!clock && other === undefined) return { kind: 'date', date: text };
  const at = clock ? clockOf(clock) : ((other! % DAY) + DAY) % DAY;
  return { kind: 'zoned', at: wallToText(dayFromText(text) * DAY + at), zone: named ?? zone };
}

const MONTHS = ['jan', 'feb', 'mar', 'apr', 'may', 'jun', 'jul', 'aug', 'sep', 'oct', 'nov', 'dec'];

function dateText(text: string, order: DateOrder): string {
  const figures = text
    .trim()
    .split(/[^\p{L}\p{N}]+/u)
    .filter(Boolean);
  const month = figures.findIndex((f) => MONTHS.includes(f.slice(0, 3).toLowerCase()));
  if (figures.length !== 3) throw new Problem('date-invalid', { text });
  const [year, m, day] = partsOf(figures, month, order);
  const found = `${year.length === 2 ? `20${year}` : year}-${m.padStart(2, '0')}-${day.padStart(2, '0')}`;
  try {
    return dayToText(dayFromText(found));
  } catch {
    throw new Problem('date-invalid', { text });
  }
}

/** Year, month and day of three figures, one of which may be the name of a month (at `named`). */
function partsOf(figures: readonly string[], named: number, order: DateOrder): [string, string, string] {
  const [a, b, c] = figures as [string, string, string];
  if (named >= 0) {
    const month = String(MONTHS.indexOf(figures[named]!.slice(0, 3).toLowerCase()) + 1);
    const [first, second] = figures.filter((_, i) => i !== named) as [string, string];
    return first.length === 4 ? [first, month, second] : [second, month, first];
  }
  if (a.length === 4) return [a, b, c];
  return order === 'mdy' ? [c, a, b] : [c, b, a];
}

function clockOf(text: string): number {
  const found = /^(\d{1,2})(?:[:.h](\d{2}))?(?:[:.]\d{2}(?:\.\d+)?)?\s*([ap])?\.?m?\.?$/i.exec(text.trim());
  const half = found?.[3]?.toLowerCase();
  const hour = found && half ? (Number(found[1]) % 12) + (half === 'p' ? 12 : 0) : Number(found?.[1] ?? 24);
  const minute = Number(found?.[2] ?? 0);
  if (!found || hour > 23 || minute > 59) throw new Problem('time-invalid', { text });
  return hour * HOUR + minute * MINUTE;
}

/** Throws `columns-missing` unless title and first day have a column. */
export function checkMapping(mapping: CsvMapping, language: InsideLanguage = 'en'): void {
  const missing = CSV_FIELDS.filter(
    (f) => ['title', 'startDate'].includes(f.name) && mapping[f.name] === undefined,
  );
  if (missing.length)
    throw new Problem('columns-missing', { columns: missing.map((f) => columnWord(f, language)).join(', ') });
}
