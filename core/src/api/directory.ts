import type { Made, Sight, Who } from '../rights';
import type { Calendar } from './answers';
import type { RequestRecord } from './requests';

/** Somebody's request for access to a calendar. */
export interface Wish extends Made, RequestRecord {
  readonly calendarId: string;
  readonly calendar: string;
  readonly userId: string;
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
