import { DAY, dayOfWall, instantOf, wallAt, type Instant, type ZoneName } from '../zones';
import type { Range } from '../entries';
import type { Colour } from './colours';
import type { Switches } from './fields';
import type { Audience, Glass } from './glass';

export const ROUNDINGS = [0, 15, 30, 60] as const;
/** Minutes to which busy spans are widened; 0 leaves them exact. */
export type Rounding = (typeof ROUNDINGS)[number];

/** Whole days before and after today, by the clocks of the host zone. */
export interface Horizon {
  readonly pastDays: number;
  readonly nextDays: number;
}

export interface SourceRule {
  readonly calendarId: string;
  readonly glass: Glass;
}

export const DUE_FORMS = ['all-day', 'task'] as const;
/** Whether due items stand in feeds as all-day entries, which every program shows, or as tasks (VTODO). */
export type DueForm = (typeof DUE_FORMS)[number];

/** How a window names itself to readers. */
export interface Wording {
  readonly name: string;
  readonly description: string;
  readonly colour: Colour;
  /** The one word that stands for every entry behind frosted glass. */
  readonly busyWord: string;
  readonly dueAs: DueForm;
}

/** Everything that decides what a window lets out. */
export interface WindowRules {
  readonly wording: Wording;
  readonly hostZone: ZoneName;
  readonly horizon: Horizon;
  readonly sources: readonly SourceRule[];
  readonly rounding: Rounding;
  /** Whether tentative spans behind frosted glass are marked as such. */
  readonly tellTentative: boolean;
  readonly switches: Switches;
  /** Key of the window's pseudonyms. It never goes out. */
  readonly secret: string;
}

/** Who looks: the audience ring of the key, and the key's own limit where it has one. */
export interface Reader {
  readonly audience: Audience;
  readonly cap: Glass | null;
}

/** Returns the stretch that a horizon covers at an instant: from a midnight to a midnight of the host zone. */
export function rangeOfHorizon(horizon: Horizon, hostZone: ZoneName, now: Instant): Range {
  const today = dayOfWall(wallAt(hostZone, now));
  return {
    from: instantOf(hostZone, (today - horizon.pastDays) * DAY),
    to: instantOf(hostZone, (today + horizon.nextDays + 1) * DAY),
  };
}
