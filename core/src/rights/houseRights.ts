import type { Ceilings, Glass } from '../glass';
import type { ZoneName } from '../zones';
import { clearerInside, glassInside, type InsideGlass } from './insideView';
import { may, type Deed, type Sight, type Standing, type Who } from './rights';

/** What somebody was made to a calendar; a reader sees it through a glass. */
export interface Made {
  readonly standing: Standing;
  readonly glass: Glass | null;
}

/** What is to be known of a calendar where rights are asked. */
export interface GuardedCalendar {
  readonly zone: ZoneName;
  /** The glass through which everybody in the house sees it. */
  readonly houseGlass: Glass;
  /** Whether everybody in the house may know of it. */
  readonly known: boolean;
}

/** What one person may do in the house, calendar by calendar. */
export class HouseRights {
  constructor(
    readonly steward: boolean,
    private readonly calendars: ReadonlyMap<string, GuardedCalendar>,
    private readonly made: ReadonlyMap<string, Made>,
    readonly ceilings: Ceilings,
  ) {}

  /** Returns what the person is to a calendar, or null where there is no such calendar. */
  who(calendarId: string): Who | null {
    if (!this.calendars.has(calendarId)) return null;
    return this.steward ? 'steward' : (this.made.get(calendarId)?.standing ?? 'house');
  }

  may(deed: Deed, calendarId: string): boolean {
    const who = this.who(calendarId);
    return who !== null && may(deed, who);
  }

  /** Returns the glass through which a person looks who does not see everything. */
  through(calendarId: string): InsideGlass {
    const own = this.made.get(calendarId);
    const named = own?.standing === 'reader' ? (own.glass ?? 'shut') : null;
    const house = this.calendars.get(calendarId)?.houseGlass ?? 'shut';
    return clearerInside(calendarId, named, house, this.ceilings);
  }

  /** Returns how much of a calendar the person sees, ceilings included; `shut` where there is no such calendar. */
  sight(calendarId: string): Sight {
    if (this.may('see-all', calendarId)) return 'all';
    if (!this.calendars.has(calendarId)) return 'shut';
    return glassInside(calendarId, this.through(calendarId), this.ceilings);
  }

  /** Returns the calendars with which the person may do a deed. */
  calendarsFor(deed: Deed): string[] {
    return [...this.calendars.keys()].filter((id) => this.may(deed, id));
  }

  /** Returns whether the person may know of a calendar: that it is there, its name, what it is for, who publishes it. */
  knows(calendarId: string): boolean {
    return this.sight(calendarId) !== 'shut' || (this.calendars.get(calendarId)?.known ?? false);
  }

  /** Returns the calendars of which the person may know. */
  inKnowledge(): string[] {
    return [...this.calendars.keys()].filter((id) => this.knows(id));
  }

  /** Returns the calendars of which the person sees something, through whichever glass. */
  inSight(): string[] {
    return [...this.calendars.keys()].filter((id) => this.sight(id) !== 'shut');
  }
}
