import {
  AUDIENCES,
  GLASS_WORDS,
  LIMITER_WORDS,
  SIGHT_MARK_WORDS,
  type Reason,
  type SightRow,
} from '../../glass';
import { insideCellOf, type InsideRow } from '../../rights';
import { tableText } from './writeCsv';
import type { InsideLanguage } from '../../texts/languages';
import { GLASS_DE, LIMITER_DE } from '../../words/german';
import { inLanguage } from '../../words/inLanguage';
import { insideTexts } from '../../words/texts';

/** Returns a chain of reasons as it is read: each limit, and which of them decides. */
export function reasonWords(reasons: readonly Reason[], language: InsideLanguage = 'en'): string {
  const t = insideTexts(language);
  const limiters = inLanguage(LIMITER_WORDS, LIMITER_DE, language);
  const glasses = inLanguage(GLASS_WORDS, GLASS_DE, language);
  return reasons
    .map(({ by, label, glass, decides }) => {
      const limit = label ? t('limitOfLabel', { limit: limiters[by], label }) : limiters[by];
      return t(decides ? 'limitDecides' : 'limit', { limit, glass: glasses[glass].word.toLowerCase() });
    })
    .join(', ');
}

/**
 * Returns sightlines as a table, one row for each way from a calendar to an audience, and one where there is none. Ways of
 * people inside, by name, stand among them.
 */
export function sightlineTable(
  rows: readonly SightRow[],
  nameOf: (calendarId: string) => string,
  inside: readonly InsideRow[] = [],
): string {
  const lines = rows.flatMap(({ calendarId, usual, cells }) =>
    AUDIENCES.flatMap((audience) => {
      const cell = cells.find((c) => c.audience === audience)!;
      const own = (insideCellOf(inside, calendarId, audience)?.ways ?? []).map((w) => [
        ...[nameOf(calendarId), usual, audience, w.sight, '', w.name || 'everybody in the house'],
        ...[w.sight, w.why, '', ''],
      ]);
      const head = [nameOf(calendarId), usual, audience, cell.glass];
      if (!cell.paths.length) return own.length ? own : [[...head, '', '', '', '', '', '']];
      const keyed = cell.paths.map((p) => [
        ...head,
        p.window,
        p.madeOutTo,
        p.cut ? `${p.glass}, cut` : p.glass,
        reasonWords(p.reasons),
        p.marks.map((m) => SIGHT_MARK_WORDS[m]).join('; '),
        String(cell.exposed.length),
      ]);
      return [...own, ...keyed];
    }),
  );
  const headings = [
    'Calendar',
    'Usual glass',
    'Audience',
    'Clearest glass',
    'Window',
    'Key made out to, or person',
    'Glass in force',
    'Reasons',
    'Marks',
    'Sensitive matter in the cell',
  ];
  return tableText([headings, ...lines]);
}
