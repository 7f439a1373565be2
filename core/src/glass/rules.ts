import { DAY, dayFromText, instantOf, type Instant, type ZoneName, dayAt } from '../zones';
import { plainText, type Range } from '../entries';
import type { Ceilings } from './ceilings';
import type { Colour } from './colours';
import type { CutField, Switches } from './fields';
import type { Filter } from './filter';
import type { Audience, Glass } from './glass';

export const ROUNDINGS = [0, 15, 30, 60] as const;
/** Minutes to which busy spans are widened; 0 leaves them exact. */
export type Rounding = (typeof ROUNDINGS)[number];

/** Whole days by the clocks of the host zone: some before and after today, or from one day to another, both included. */
export type Horizon =
  | { readonly kind: 'rolling'; readonly pastDays: number; readonly nextDays: number }
  | { readonly kind: 'fixed'; readonly from: string; readonly to: string };

/** What stands before a calendar: one of the glasses, or one that is cut field by field. */
export const SOURCE_GLASSES = ['shut', 'frosted', 'tinted', 'clear', 'cut'] as const;
export type SourceGlass = (typeof SOURCE_GLASSES)[number];

export interface SourceRule {
  readonly calendarId: string;
  readonly glass: SourceGlass;
  /** The fields that were picked; they count where the glass is cut. */
  readonly fields: readonly CutField[];
  /** The calendar's name as outsiders may read it: in titles, and where the window names its calendars. */
  readonly as: string;
}

/** The views of a page. */
export const SHOWINGS = ['list', 'week', 'month'] as const;
export type Showing = (typeof SHOWINGS)[number];

/** What a page shows first; `auto` is the month, or the list where the month is nearly over. */
export const FIRST_VIEWS = ['auto', 'list', 'week', 'month'] as const satisfies readonly ('auto' | Showing)[];
export type FirstView = (typeof FIRST_VIEWS)[number];

export const DUE_FORMS = ['all-day', 'task'] as const;
/** Whether due items stand in feeds as all-day entries, which every program shows, or as tasks (VTODO). */
export type DueForm = (typeof DUE_FORMS)[number];

/** How many minutes before an entry a reminder can be suggested; 0 for none. */
export const REMINDERS = [0, 5, 10, 15, 30, 60, 120, 1440] as const;

/** For how many days feeds tell that something has left, and for how many unless it is said. */
export const LETTING_GO = [0, 7, 14, 30, 60, 90] as const;
export const USUAL_LETTING_GO = 30;

/** How a window names itself to readers of one language. */
export interface WordingText {
  /** A language tag (RFC 5646), or empty where none is told. */
  readonly language: string;
  readonly name: string;
  readonly description: string;
  readonly topic: string;
}

/** How a window names itself to readers. Everything in it goes out. */
export interface Wording extends WordingText {
  readonly colour: Colour;
  /** Whom readers can ask. */
  readonly contact: string;
  /** The one word that stands for every entry behind frosted glass. */
  readonly busyWord: string;
  readonly dueAs: DueForm;
  /** The place that it is about, as readers know it; absent where none is named. */
  readonly place?: string;
  /** Minutes before timed entries at which programs are told to remind; absent for never. */
  readonly remind?: number;
  /** Days for which feeds tell that something has left; absent for {@link USUAL_LETTING_GO}. */
  readonly lettingGo?: number;
  /** What its page shows first; absent for `auto`. */
  readonly firstView?: Showing;
  /** The outward names of its calendars, in order, by which readers tell entries apart; absent where it names none. */
  readonly calendars?: readonly string[];
  /** False where readers may not leave a mail address to hear of changes; absent where they may. */
  readonly notices?: false;
  /** The same in further languages. */
  readonly translations: readonly WordingText[];
}

/** Whether entries that leave time free, are cancelled or tentative stand in the window at all. */
export interface Include {
  readonly free: boolean;
  readonly cancelled: boolean;
  readonly tentative: boolean;
}

export const INCLUDE_ALL: Include = { free: true, cancelled: true, tentative: true };

/** A label that always holds an entry back. */
export interface LabelHold {
  readonly label: string;
  readonly hold: 'frost' | 'keep-in';
}

/** Everything that decides what a window lets out. */
export interface WindowRules {
  readonly wording: Wording;
  /** See readPattern. */
  readonly titlePattern: string;
  readonly hostZone: ZoneName;
  readonly horizon: Horizon;
  readonly sources: readonly SourceRule[];
  readonly filter: Filter | null;
  readonly include: Include;
  readonly labelHolds: readonly LabelHold[];
  readonly rounding: Rounding;
  /** Whether tentative spans behind frosted glass are marked as such. */
  readonly tellTentative: boolean;
  readonly switches: Switches;
  /** Whether readers see which calendar an entry is from, by the calendar's outward name. */
  readonly namesCalendars: boolean;
  /** Key of the window's pseudonyms. It never goes out. */
  readonly secret: string;
  readonly ceilings: Ceilings;
  /** Names in the filter that are gone; see goneFrom. */
  readonly gone: readonly string[];
}

/** Who looks: the audience ring of the key, and the key's own limit where it has one. */
export interface Reader {
  readonly audience: Audience;
  readonly cap: Glass | null;
}

/** Returns the stretch that a horizon covers at an instant: from a midnight to a midnight of the host zone. */
export function rangeOfHorizon(horizon: Horizon, hostZone: ZoneName, now: Instant): Range {
  const today = dayAt(hostZone, now);
  const [first, last] =
    horizon.kind === 'fixed'
      ? [dayFromText(horizon.from), dayFromText(horizon.to)]
      : [today - horizon.pastDays, today + horizon.nextDays];
  return { from: instantOf(hostZone, first * DAY), to: instantOf(hostZone, (last + 1) * DAY) };
}

/** Returns the label of an entry that holds it back most, or null. */
export function labelHoldOf(labels: readonly string[], holds: readonly LabelHold[]): LabelHold | null {
  if (!holds.length || !labels.length) return null;
  const own = new Set(labels.map(plainText));
  const found = holds.filter((h) => own.has(plainText(h.label)));
  return found.find((h) => h.hold === 'keep-in') ?? found[0] ?? null;
}
