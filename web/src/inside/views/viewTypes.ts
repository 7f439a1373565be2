import type { Day } from '@zonal/core/zones';
import type { Calendar } from '@zonal/core/api';
import type { DayRange, DeskItem } from '../deskDays';
import type { DayNotes } from '../readymade';

/** A place in a view: a day, a time of that day in minutes where the view has a ruler, and a calendar where it has lanes. */
export interface Place {
  readonly day: Day;
  readonly minutes: number | null;
  readonly calendarId: string | null;
}

/** What was done with the pointer or the keys: a copy put somewhere, a span drawn on empty ground, an entry moved or copied, or one of its edges moved. */
export type Gesture =
  | { readonly kind: 'paste'; readonly at: Place }
  | { readonly kind: 'draw'; readonly from: Place; readonly to: Place }
  | {
      readonly kind: 'move';
      readonly item: DeskItem;
      readonly from: Place;
      readonly to: Place;
      readonly copy: boolean;
    }
  | { readonly kind: 'start' | 'end'; readonly item: DeskItem; readonly from: Place; readonly to: Place };

/** A gesture of the pointer, as it is shown while it goes on. */
export type Drag = Exclude<Gesture, { kind: 'paste' }>;

/** What every view is given. */
export interface ViewProps {
  readonly calendars: readonly Calendar[];
  readonly items: ReadonlyMap<string, readonly DeskItem[]>;
  readonly range: DayRange;
  /** The day that it is now, by the calendar's clocks or the reader's. */
  readonly today: Day;
  readonly chosen: string;
  readonly notes: DayNotes;
  readonly onChoose: (key: string) => void;
  readonly onOpen: (item: DeskItem) => void;
  readonly onGesture: (gesture: Gesture) => void;
}
