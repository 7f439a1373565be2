import type { Entry, When } from '../../entries';

/** An entry as a file gives it, before it belongs to a calendar. */
export interface DraftEntry extends Omit<Entry, 'id' | 'calendarId' | 'version' | 'imported'> {
  /** Set where the file changes one date of a series that is not in the file. */
  readonly detachedFrom?: { readonly uid: string; readonly slot: When };
}

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

/** What a file takes back: an entry, or one date of it. */
export interface Cancelled {
  readonly uid: string;
  readonly slot: When | null;
  readonly title: string;
  readonly start: When;
  readonly line: number;
}

export interface ReadResult {
  /** The names that the file gives its calendars. */
  readonly names: readonly string[];
  readonly entries: readonly DraftEntry[];
  readonly cancelled: readonly Cancelled[];
  readonly items: readonly ReadItem[];
  /** What concerns the file as a whole. */
  readonly notes: readonly string[];
}
