import type { Entry, Imported, PropertyDefinition, Rezone } from '@zonal/core/entries';
import type {
  Audience,
  Colour,
  Demand,
  Glass,
  PlatePattern,
  PlateShape,
  WindowRules,
} from '@zonal/core/glass';
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
  /** When everything of it was withdrawn from outside, or null. */
  readonly lockedAt: string | null;
  readonly version: number;
  readonly entryCount: number;
}

export type CalendarInput = Omit<Calendar, 'id' | 'version' | 'entryCount' | 'archivedAt' | 'lockedAt'> & {
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
  /** Words that must not go out unnoticed. */
  readonly watchWords: readonly string[];
  readonly version: number;
}

export interface WindowKey {
  readonly id: string;
  readonly madeOutTo: string;
  readonly audience: Audience;
  readonly cap: Glass | null;
  readonly madeAt: string;
  /** From when on its addresses are no longer open; null for no end. */
  readonly expiresAt: string | null;
  /** When it was last used, and which revision was fetched then. */
  readonly fetchedAt: string | null;
  readonly fetched: number | null;
  readonly token: string;
  readonly see: string;
  readonly embed: string;
  readonly feed: string;
  readonly copy: string;
}

/** Rules that are being worked on; nothing of them is outside yet. */
export interface WindowDraft {
  readonly body: WindowInput;
  readonly version: number;
  readonly by: string;
  readonly at: string;
  readonly publishAt: string | null;
  readonly stopped: string;
}

export interface OutwardWindow extends WindowRules {
  readonly id: string;
  readonly slug: string;
  readonly listed: boolean;
  readonly closedAt: string | null;
  readonly version: number;
  readonly keys: readonly WindowKey[];
  readonly draft: WindowDraft | null;
  /** What of it cannot be worked out just now, and what readers get meanwhile. */
  readonly trouble?: {
    readonly reason: string;
    readonly shows: 'last' | 'nothing';
    readonly at: string;
  } | null;
}

/** A window as it is sent to be opened or changed. */
export type WindowInput = Omit<WindowRules, 'wording' | 'secret' | 'ceilings' | 'gone'> &
  WindowRules['wording'] & {
    readonly listed: boolean;
    readonly audience?: Audience;
    readonly version?: number;
    readonly confirmed?: readonly Demand[];
  };

/** The rules of a window as they were published. */
export interface WindowVersion {
  readonly version: number;
  readonly body: WindowInput;
  readonly by: string;
  readonly at: string;
}

/** One revision of what readers with a key saw. */
export interface LedgerLine {
  readonly number: number;
  readonly at: string;
  readonly by: readonly string[];
  readonly appeared: number;
  readonly vanished: number;
  readonly changed: number;
  readonly wording: boolean;
  readonly windowVersion: number;
  readonly bytes: number;
}

/** The clearest glass of an audience; with no calendar it is the house's. */
export interface Ceiling {
  readonly calendarId: string | null;
  readonly audience: Audience;
  readonly glass: Glass;
  readonly by: string;
  readonly at: string;
}

export interface CeilingRequest extends Ceiling {
  readonly id: string;
  readonly reason: string;
  readonly state: 'open' | 'granted' | 'refused';
  readonly answeredBy: string;
}

export interface AllCeilings {
  readonly ceilings: readonly Ceiling[];
  readonly requests: readonly CeilingRequest[];
}

/** A label with the number of entries that bear it, and the windows whose filters name it. */
export interface Label {
  readonly name: string;
  readonly count: number;
  readonly windows: readonly string[];
}

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
  /** The id of an entry that a new one was a part of until now. */
  readonly continues?: string;
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
