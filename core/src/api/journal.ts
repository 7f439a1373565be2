import type { JournalArea, JournalChange, JournalKindName, JournalTurn } from '../journal';

/** One thing that somebody changed. */
export interface JournalLine {
  readonly id: number;
  readonly at: string;
  /** Whose change it was; empty where nobody was signed in. */
  readonly by: string;
  readonly area: JournalArea;
  readonly kind: JournalKindName;
  readonly turn: JournalTurn;
  /** Which one: names of what it concerns, as they are now or were last. */
  readonly about: string;
  readonly changes: readonly JournalChange[];
}

/** Lines of the journal, newest first. */
export interface Journal {
  readonly lines: readonly JournalLine[];
  /** Whether there are older ones that fit. */
  readonly more: boolean;
  /** Who has changed something at all, to choose from. */
  readonly people: readonly { readonly id: string; readonly name: string }[];
}
