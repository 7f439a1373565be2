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

/** What the page asks of the worker. */
export type FileQuestion =
  | { readonly kind: 'open'; readonly file: File; readonly calendarId: string; readonly zone: string }
  | { readonly kind: 'map'; readonly mapping: CsvMapping; readonly dateOrder: DateOrder }
  | {
      readonly kind: 'apply';
      readonly label: string;
      readonly csrf: string;
      /** Places of the conflicts in which the file's version is to be stored. */
      readonly take: readonly number[];
    }
  | { readonly kind: 'stop' }
  /** Asks what readers outside would see differently. */
  | {
      readonly kind: 'rehearse';
      readonly windows: readonly RehearsedWindow[];
      readonly watch: Watch;
      readonly take: readonly number[];
      readonly now: number;
    }
  | ({ readonly kind: 'take' } & TakeRequest);

/** What the worker tells. */
export type FileAnswer =
  | { readonly kind: 'progress'; readonly what: string; readonly share: number }
  | {
      readonly kind: 'table';
      readonly headings: readonly string[];
      readonly sample: readonly (readonly string[])[];
      readonly rows: number;
      readonly mapping: CsvMapping;
      readonly dateOrder: DateOrder;
    }
  /** The lines of the plan come in parts before it: one large message would hold up the page. */
  | { readonly kind: 'lines'; readonly lines: readonly PlanLine[] }
  | { readonly kind: 'plan'; readonly notes: readonly string[] }
  | { readonly kind: 'applied'; readonly id: string; readonly label: string; readonly size: number }
  | { readonly kind: 'stopped' }
  | { readonly kind: 'rehearsed'; readonly rehearsals: readonly RehearsalLines[] }
  | { readonly kind: 'taken'; readonly text: string }
  | { readonly kind: 'problem'; readonly message: string };
