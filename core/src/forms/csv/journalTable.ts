import {
  JOURNAL_AREAS,
  JOURNAL_KINDS,
  JOURNAL_TURNS,
  type JournalArea,
  type JournalChange,
  type JournalKindName,
  type JournalTurn,
} from '../../journal';
import { tableText } from './writeCsv';

/** A line of the journal as far as a table tells it. */
interface Line {
  readonly id: number;
  readonly at: string;
  readonly by: string;
  readonly area: JournalArea;
  readonly kind: JournalKindName;
  readonly turn: JournalTurn;
  readonly about: string;
  readonly changes: readonly JournalChange[];
}

/** Returns the journal as a table (RFC 4180), one row for each field that was changed. Moments are in UTC (ISO 8601). */
export function journalTable(lines: readonly Line[]): string {
  const rows = lines.flatMap(({ id, at, by, area, kind, turn, about, changes }) => {
    const head = [
      String(id),
      at,
      by,
      JOURNAL_AREAS[area],
      JOURNAL_KINDS[kind].word,
      about,
      JOURNAL_TURNS[turn],
    ];
    if (!changes.length) return [[...head, '', '', '']];
    return changes.map(({ what, from, to }) => [...head, what, from, to]);
  });
  const headings = ['Number', 'When', 'By', 'Area', 'What', 'Which', 'Became', 'Field', 'From', 'To'];
  return tableText([headings, ...rows]);
}
