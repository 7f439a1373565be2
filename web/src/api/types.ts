import type { Entry } from '@zonal/core/entries';
import type { Audience, Colour, Glass, WindowRules } from '@zonal/core/glass';
import type { ReadResult } from '@zonal/core/forms';
import type { ProblemCode } from '@zonal/core/problems';

export interface Session {
  readonly user: { readonly name: string; readonly email: string; readonly role: string } | null;
  readonly csrf: string;
}

export interface Calendar {
  readonly id: string;
  readonly name: string;
  readonly description: string;
  readonly zone: string;
  readonly plate: string;
  readonly colour: Colour;
  readonly version: number;
  readonly entryCount: number;
}

export type CalendarInput = Omit<Calendar, 'id' | 'version' | 'entryCount'> & { readonly version?: number };

export interface WindowKey {
  readonly id: string;
  readonly madeOutTo: string;
  readonly audience: Audience;
  readonly cap: Glass | null;
  readonly token: string;
  readonly see: string;
  readonly embed: string;
  readonly feed: string;
  readonly copy: string;
}

export interface OutwardWindow extends WindowRules {
  readonly id: string;
  readonly slug: string;
  readonly listed: boolean;
  readonly closedAt: string | null;
  readonly version: number;
  readonly keys: readonly WindowKey[];
}

/** A window as it is sent to be opened or changed. */
export type WindowInput = Omit<WindowRules, 'wording' | 'secret'> &
  WindowRules['wording'] & {
    readonly listed: boolean;
    readonly audience?: Audience;
    readonly version?: number;
  };

export interface ImportReport extends Omit<ReadResult, 'entries'> {
  readonly added: number;
  readonly updated: number;
  readonly unchanged: number;
  readonly saved: boolean;
}

/** An entry as it is written; `version` is the one that was seen, and absent when the entry is new. */
export type EntryInput = Omit<Entry, 'id' | 'calendarId' | 'version' | 'uid'> & { readonly version?: number };

export interface ApiProblem {
  readonly code: ProblemCode;
  readonly message: string;
  readonly details: Record<string, unknown>;
}
