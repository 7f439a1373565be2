import type { CalendarInput } from '@zonal/core/api';
import type { Entry } from '@zonal/core/entries';
import type { RehearsedWindow, Watch } from '@zonal/core/glass';
import type { CsvMapping, DateOrder, MergeKind } from '@zonal/core/forms';

import type { RehearsalLines } from '../../workers/questions';

export type FileForm = 'ics' | 'json' | 'csv';

/** More is refused: see docs/importing.md. */
export const MOST_BYTES = 20_000_000;
export const MOST_ENTRIES = 20_000;

/** One line of the preview, as the page shows it. */
export interface PlanLine {
  /** Its place in the plan. */
  readonly at: number;
  readonly kind: MergeKind;
  readonly title: string;
  /** Its start in words, or empty. */
  readonly when: string;
  readonly reason: string;
  /** Fields that differ, with what stands here and in the file. */
  readonly apart: readonly { readonly field: string; readonly here: string; readonly file: string }[];
}

export interface TakeRequest {
  readonly form: FileForm;
  readonly name: string;
  readonly zone: string;
  readonly now: number;
  /** A whole calendar, or else the entries given. */
  readonly calendarId?: string;
  readonly entries?: readonly Entry[];
}

/** A table of which it is not known yet what its columns mean. */
export interface ReadTable {
  readonly headings: readonly string[];
  readonly sample: readonly (readonly string[])[];
  readonly rows: number;
  readonly mapping: CsvMapping;
  readonly dateOrder: DateOrder;
}

/** What importing a file would do: how many lines of it there are, and notes on the file as a whole. */
export interface ReadPlan {
  /** The name that the file gives itself, or empty. */
  readonly name: string;
  readonly count: number;
  readonly notes: readonly string[];
}

/** Is told how far the work has come: what is done, and which share (0 to 1) of it. */
export type Progress = (what: string, share: number) => void;

/** What the worker offers. It reads, compares, sends and writes files; each call rejects with what is wrong. */
export interface Files {
  /**
   * Reads a file: a table waits for what its columns mean, anything else is compared with the calendar; null for one that does not
   * exist yet.
   */
  open(file: File, calendarId: string | null, zone: string): Promise<ReadTable | ReadPlan>;
  map(mapping: CsvMapping, dateOrder: DateOrder): Promise<ReadPlan>;
  /** Returns some lines of the plan; all in one message would hold up the page. */
  lines(from: number, to: number): readonly PlanLine[];
  /** Returns what readers outside would see differently. `take` are the places of conflicts that the file wins. */
  rehearse(
    windows: readonly RehearsedWindow[],
    watch: Watch,
    take: readonly number[],
    now: number,
  ): Promise<readonly RehearsalLines[]>;
  /**
   * Sends the changes and applies them as one edit; null if it was stopped. A new calendar is made first, and deleted again if
   * nothing comes into it.
   */
  apply(
    label: string,
    csrf: string,
    take: readonly number[],
    newCalendar: CalendarInput | null,
  ): Promise<{ readonly id: string; readonly size: number } | null>;
  stop(): void;
  take(request: TakeRequest): Promise<string>;
}
