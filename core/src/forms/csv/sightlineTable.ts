import { AUDIENCES, LIMITER_WORDS, SIGHT_MARK_WORDS, type Reason, type SightRow } from '../../glass';
import { tableText } from './writeCsv';

/** Returns a chain of reasons as it is read: each limit, and which of them decides. */
export function reasonWords(reasons: readonly Reason[]): string {
  return reasons
    .map(
      (r) =>
        `${LIMITER_WORDS[r.by]}${r.label ? ` “${r.label}”` : ''}: ${r.glass}${r.decides ? ' (decides)' : ''}`,
    )
    .join(', ');
}

/** Returns sightlines as a table, one row for each way from a calendar to an audience, and one where there is none. */
export function sightlineTable(rows: readonly SightRow[], nameOf: (calendarId: string) => string): string {
  const lines = rows.flatMap(({ calendarId, usual, cells }) =>
    AUDIENCES.flatMap((audience) => {
      const cell = cells.find((c) => c.audience === audience)!;
      const head = [nameOf(calendarId), usual, audience, cell.glass];
      if (!cell.paths.length) return [[...head, '', '', '', '', '', '']];
      return cell.paths.map((p) => [
        ...head,
        p.window,
        p.madeOutTo,
        p.cut ? `${p.glass}, cut` : p.glass,
        reasonWords(p.reasons),
        p.marks.map((m) => SIGHT_MARK_WORDS[m]).join('; '),
        String(cell.exposed.length),
      ]);
    }),
  );
  const headings = [
    'Calendar',
    'Usual glass',
    'Audience',
    'Clearest glass',
    'Window',
    'Key made out to',
    'Glass in force',
    'Reasons',
    'Marks',
    'Sensitive matter in the cell',
  ];
  return tableText([headings, ...lines]);
}
