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

/** Returns ceilings with one of them set, or lifted with null; no calendar stands for the house's. */
export function withCeiling(
  ceilings: Ceilings,
  { calendarId, audience, glass }: { calendarId: string | null; audience: Audience; glass: Glass | null },
): Ceilings {
  const changed = (own: CeilingSet = {}): CeilingSet => {
    const { [audience]: _old, ...rest } = own;
    return glass ? { ...rest, [audience]: glass } : rest;
  };
  if (!calendarId) return { ...ceilings, house: changed(ceilings.house) };
  const calendars = { ...ceilings.calendars, [calendarId]: changed(ceilings.calendars[calendarId]) };
  return { ...ceilings, calendars };
}
