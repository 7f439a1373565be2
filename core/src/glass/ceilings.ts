import type { Audience, Glass } from './glass';

/** The clearest glass that each audience may ever get; one that is not named has no ceiling. */
export type CeilingSet = Readonly<Partial<Record<Audience, Glass>>>;

/** The ceilings that hold for a window: those of the house and of each calendar. */
export interface Ceilings {
  readonly house: CeilingSet;
  /** By calendar. */
  readonly calendars: Readonly<Record<string, CeilingSet>>;
}

export const NO_CEILINGS: Ceilings = { house: {}, calendars: {} };

/** What a calendar's ceilings are while it is locked down. */
export const LOCKED_DOWN: CeilingSet = { crew: 'shut', house: 'shut', partners: 'shut', street: 'shut' };
