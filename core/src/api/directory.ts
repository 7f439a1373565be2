import type { Glass } from '../glass';
import type { Sight, Standing, Who } from '../rights';
import type { Calendar } from './answers';

/** How somebody's wish stands. */
export type WishState = 'open' | 'granted' | 'refused' | 'taken-back';

/** Somebody's wish to be something to a calendar. */
export interface Wish {
  readonly id: string;
  readonly calendarId: string;
  readonly calendar: string;
  readonly standing: Standing;
  /** Of a reader; null for those who see everything. */
  readonly glass: Glass | null;
  readonly reason: string;
  readonly userId: string;
  readonly by: string;
  readonly at: string;
  readonly state: WishState;
  readonly answeredBy: string;
  readonly answeredAt: string | null;
  /** Whether the asker may answer it. */
  readonly toAnswer: boolean;
}

/** A wish as it is sent. */
export interface WishInput {
  readonly standing: Standing;
  readonly glass: Glass | null;
  readonly reason: string;
}

/** An answer to a wish: what the asker becomes, or nothing. */
export interface WishReply {
  readonly grant: boolean;
  /** What they become where it is granted; it can be less, or more, than was wished. */
  readonly standing: Standing;
  readonly glass: Glass | null;
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
