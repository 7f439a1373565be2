import { CONTENT_FIELDS, ENTRY_FIELDS, capital, type Content } from '../../entries';
import type { InsideLanguage } from '../../texts/languages';

/** Columns for what an entry says besides its content. */
const TIME_COLUMNS = {
  startDate: {
    heading: 'Start date',
    german: 'Anfangstag',
    known: [
      ...['start', 'date', 'from', 'begin', 'begins', 'day', 'due', 'due date'],
      ...['anfang', 'beginn', 'datum', 'von', 'tag', 'startdatum', 'fällig'],
    ],
  },
  startTime: {
    heading: 'Start time',
    german: 'Anfangszeit',
    known: ['time', 'begin time', 'from time', 'uhrzeit', 'zeit', 'startzeit', 'beginn uhrzeit'],
  },
  endDate: {
    heading: 'End date',
    german: 'Endtag',
    known: ['end', 'to', 'until', 'ends', 'last day', 'ende', 'bis', 'enddatum', 'letzter tag'],
  },
  endTime: {
    heading: 'End time',
    german: 'Endzeit',
    known: ['to time', 'until time', 'bis uhrzeit', 'ende uhrzeit'],
  },
  zone: { heading: 'Time zone', german: 'Zeitzone', known: ['timezone', 'zone', 'tz'] },
  rule: {
    heading: 'Recurs (RRULE)',
    german: 'Wiederholung (RRULE)',
    known: ['rrule', 'recurs', 'recurrence', 'rule', 'wiederholung', 'regel'],
  },
  uid: { heading: 'Identifier', german: 'Kennung', known: ['uid', 'id', 'key'] },
} as const;

export type TimeColumn = keyof typeof TIME_COLUMNS;
export type CsvFieldName = TimeColumn | keyof Content;

/** A column that a table of entries can have. */
export interface CsvField {
  readonly name: CsvFieldName;
  /** The heading of an exported column, the same in every language, so that any reader of it recognises it. */
  readonly heading: string;
  /** Its name in German, on screens. */
  readonly german: string;
  /** Other headings by which the column is known, in plain small letters. */
  readonly known: readonly string[];
}

/** The fields of content that have a column. */
export const COLUMN_FIELDS = CONTENT_FIELDS.filter((field) => ENTRY_FIELDS[field].column);

function columnOf(name: CsvFieldName): CsvField {
  if (name in TIME_COLUMNS) return { name, ...TIME_COLUMNS[name as TimeColumn] };
  const { word, german, column } = ENTRY_FIELDS[name as keyof Content];
  return { name, heading: capital(word), german: capital(german), known: column!.known };
}

/** The columns of a table of entries; a title and a first day are needed, all others may be missing. */
export const CSV_FIELDS: readonly CsvField[] = [
  ...(['title', 'startDate', 'startTime', 'endDate', 'endTime', 'zone'] as const),
  ...COLUMN_FIELDS.filter((field) => field !== 'title'),
  ...(['rule', 'uid'] as const),
].map(columnOf);

/** Returns what a column is called on screens. */
export function columnWord({ heading, german }: CsvField, language: InsideLanguage): string {
  return language === 'de' ? german : heading;
}

/** Which column (from 0) holds which field; a field that has none is absent. */
export type CsvMapping = Partial<Readonly<Record<CsvFieldName, number>>>;

/** Returns the columns that the headings of a table suggest; each column is used once. */
export function guessMapping(headings: readonly string[]): CsvMapping {
  const plain = headings.map((h) =>
    h
      .toLowerCase()
      .replace(/[_-]+/g, ' ')
      .replace(/[^\p{L}\p{N} ()]/gu, '')
      .trim(),
  );
  const mapping: Partial<Record<CsvFieldName, number>> = {};
  const taken = new Set<number>();
  const take = (fit: (field: CsvField, heading: string) => boolean) => {
    for (const field of CSV_FIELDS) {
      if (mapping[field.name] !== undefined) continue;
      const at = plain.findIndex((heading, i) => !taken.has(i) && fit(field, heading));
      if (at < 0) continue;
      mapping[field.name] = at;
      taken.add(at);
    }
  };
  take((field, heading) => heading === field.heading.toLowerCase());
  take((field, heading) => heading === field.german.toLowerCase());
  take((field, heading) => field.known.includes(heading));
  return mapping;
}
