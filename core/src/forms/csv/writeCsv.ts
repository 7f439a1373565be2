import Papa from 'papaparse';
import { type Content, type Entry, type When } from '../../entries';
import { dayFromText, dayToText } from '../../zones';
import { cellOf, momentParts, momentText } from './cells';
import { COLUMN_FIELDS, CSV_FIELDS, type CsvFieldName } from './csvFields';

/**
 * Returns entries as a table (RFC 4180, with headings): one row an entry, and one more for each date of a series that
 * was changed by itself (its identifier ends in `/` and the date that it replaces). Cells that a spreadsheet would
 * take for a formula get an apostrophe in front. Properties of the house get columns of their own.
 */
export function writeCsv(entries: readonly Entry[]): string {
  const rows = entries.flatMap((entry) => [
    rowOf(entry, entry.uid, entry.start, entry.end, entry.recurrence?.rule ?? ''),
    ...entry.overrides.map((o) => rowOf(o.content, `${entry.uid}/${momentText(o.slot)}`, o.start, o.end, '')),
  ]);
  const names = [...new Set(entries.flatMap((e) => e.properties.map((p) => p.name)))].sort();
  const headings = [...CSV_FIELDS.map((f) => f.heading), ...names];
  const table = rows.map(({ cells, content }) => [
    ...CSV_FIELDS.map((f) => cells[f.name]!),
    ...names.map((name) => content.properties.find((p) => p.name === name)?.value ?? ''),
  ]);
  return tableText([headings, ...table]);
}

/** Returns rows as a table (RFC 4180); cells that a spreadsheet would take for a formula get an apostrophe in front. */
export function tableText(rows: readonly (readonly string[])[]): string {
  return `${Papa.unparse(
    rows.map((row) => row.map(safeCell)),
    { newline: '\r\n' },
  )}\r\n`;
}

interface Row {
  readonly content: Content;
  readonly cells: Readonly<Partial<Record<CsvFieldName, string>>>;
}

function rowOf(content: Content, uid: string, start: When, end: When, rule: string): Row {
  const [startDate, startTime] = momentParts(start);
  const [endDate, endTime] = momentParts(end);
  return {
    content,
    cells: {
      ...Object.fromEntries(COLUMN_FIELDS.map((field) => [field, cellOf(content, field)])),
      startDate,
      startTime,
      // The last day that is meant, as people write it.
      endDate: end.kind === 'date' ? dayToText(dayFromText(end.date) - 1) : endDate,
      endTime,
      zone: start.kind === 'zoned' ? start.zone : '',
      rule,
      uid,
    },
  };
}

/**
 * What spreadsheets take for a formula: one of these signs, also after blanks and control characters, which some of them leave
 * out. Full-width forms of the signs count too.
 */
const FORMULA = /^[\s\p{Cc}\p{Cf}]*[=+\-@＝＋－＠]|^[\t\r\n]/u;

/** Returns a cell that no spreadsheet takes for a formula; unguarded gives the text back. */
export function safeCell(cell: string): string {
  return FORMULA.test(cell.replace(/^'+/, '')) ? `'${cell}` : cell;
}

/** Returns the text of a cell that safeCell wrote. */
export function unguarded(cell: string): string {
  return cell.startsWith("'") && FORMULA.test(cell.replace(/^'+/, '')) ? cell.slice(1) : cell;
}
