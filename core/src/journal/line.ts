import type { InsideLanguage } from '../texts/languages';
import { journalField, journalValue } from './kinds';

/** What became of a thing. */
export const JOURNAL_TURNS = { made: 'created', changed: 'changed', gone: 'removed' } as const;
export type JournalTurn = keyof typeof JOURNAL_TURNS;

/** One field of what was changed, in words. */
export interface JournalChange {
  readonly what: string;
  readonly from: string;
  readonly to: string;
}

type Noted = Readonly<Record<string, unknown>> | null;

/** Returns what became of a thing by what it was and is; null stands for not being there. */
export function turnOf(before: Noted, after: Noted): JournalTurn {
  if (before === null) return 'made';
  return after === null ? 'gone' : 'changed';
}

/** Returns from what to what each field was changed, in words; what neither had is left out. */
export function journalChanges(
  before: Noted,
  after: Noted,
  language: InsideLanguage = 'en',
): JournalChange[] {
  const fields = [...new Set([...Object.keys(before ?? {}), ...Object.keys(after ?? {})])].sort();
  return fields.flatMap((field) => {
    const [from, to] = [before, after].map((noted) => journalValue(noted?.[field], language)) as [
      string,
      string,
    ];
    return from === to ? [] : [{ what: journalField(field, language), from, to }];
  });
}
