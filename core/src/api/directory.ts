import type { Made, Sight, Who } from '../rights';
import type { Calendar } from './answers';

/** How somebody's wish stands. */
export type WishState = 'open' | 'granted' | 'refused' | 'taken-back';

/** Somebody's wish to be something to a calendar. */
export interface Wish extends Made {
  readonly id: string;
  readonly calendarId: string;
  readonly calendar: string;
  readonly reason: string;
  readonly userId: string;
  readonly by: string;
  readonly at: string;
  readonly state: WishState;
  readonly answeredBy: string;
  readonly answeredAt: string | null;
  /** Whether it is the asker's own. */
  readonly own: boolean;
  /** Whether the asker may answer it. */
  readonly toAnswer: boolean;
}

/** A wish as it is sent. */
export interface WishInput extends Made {
  readonly reason: string;
}

/** An answer to a wish, with what the asker becomes where it is granted: it can be less, or more, than was wished. */
export interface WishReply extends Made {
  readonly grant: boolean;
}

/** A calendar as everybody knows it who may know of it. */
export interface DirectoryCalendar extends Pick<
  Calendar,
  'id' | 'name' | 'description' | 'zone' | 'plate' | 'colour' | 'shape' | 'pattern'
> {
  /** Names of its publishers: whom to ask. */
  readonly publishers: readonly string[];
  /** What the asker is to it, and how much they see of it. */
  readonly who: Who;
  readonly sight: Sight;
  /** Whether the asker has it on the desk. */
  readonly onDesk: boolean;
}
