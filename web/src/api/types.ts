import type { Entry, Imported, PropertyDefinition, Rezone } from '@zonal/core/entries';
import type { Audience, Colour, Glass, PlatePattern, PlateShape, WindowRules } from '@zonal/core/glass';
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
  readonly shape: PlateShape;
  readonly pattern: PlatePattern;
  readonly place: string;
  /** Degrees, north and east positive; null where its home place has no spot. */
  readonly latitude: number | null;
  readonly longitude: number | null;
  readonly archivedAt: string | null;
  readonly version: number;
  readonly entryCount: number;
}

export type CalendarInput = Omit<Calendar, 'id' | 'version' | 'entryCount' | 'archivedAt'> & {
  readonly version?: number;
};

/** What deleting a calendar would hit. */
export interface CalendarImpact {
  readonly entryCount: number;
  readonly windows: readonly {
    readonly id: string;
    readonly name: string;
    readonly keys: readonly string[];
    readonly left: boolean;
  }[];
}

export interface ZoneChange {
  readonly id: string;
  readonly zone: string;
  readonly keep: Rezone;
}

export interface House {
  readonly name: string;
  readonly zone: string;
  readonly country: string;
  readonly region: string;
  readonly properties: readonly PropertyDefinition[];
  readonly version: number;
}

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

/** An entry as it is written. */
export type EntryInput = Omit<Entry, 'id' | 'calendarId' | 'version' | 'uid' | 'imported'>;

/** What is to become of one entry; no `entry` deletes it. `version` is the one that was seen, 0 for a new one. */
export interface EntryChange {
  readonly id?: string;
  readonly uid?: string;
  readonly version: number;
  readonly calendarId: string;
  readonly entry: EntryInput | null;
  readonly imported?: Imported | null;
}

/** What an edit did; it can be taken back by its id. */
export interface EditAnswer {
  readonly id: string;
  readonly label: string;
  readonly state: 'staged' | 'applied' | 'taken-back';
  readonly size: number;
  readonly entries: readonly Entry[];
}

export type EditWay = 'take-back' | 'again';

export interface ApiProblem {
  readonly code: ProblemCode;
  readonly message: string;
  readonly details: Record<string, unknown>;
}
