import type { Entry } from '../../entries';

/** An entry as a file gives it, before it belongs to a calendar. */
export type DraftEntry = Omit<Entry, 'id' | 'calendarId' | 'version'>;

export const OUTCOMES = ['read', 'changed', 'left-out'] as const;
/** What became of one component of a file. */
export type Outcome = (typeof OUTCOMES)[number];

/** One line of the report: what became of the component that starts on `line`, and why. */
export interface ReadItem {
  readonly line: number;
  readonly uid: string;
  readonly title: string;
  readonly outcome: Outcome;
  readonly notes: readonly string[];
}

export interface ReadResult {
  /** The names that the file gives its calendars. */
  readonly names: readonly string[];
  readonly entries: readonly DraftEntry[];
  readonly items: readonly ReadItem[];
  /** What concerns the file as a whole. */
  readonly notes: readonly string[];
}
