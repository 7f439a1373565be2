import type { FindIn } from '@zonal/core/entries';
import type { ZoneName } from '@zonal/core/zones';
import { createSlice, type PayloadAction } from '@reduxjs/toolkit';

export const VIEWS = ['lanes', 'week', 'month', 'list'] as const;
export type DeskView = (typeof VIEWS)[number];
export const WEEKS = [1, 2, 4, 13] as const;
/** How many weeks lanes and list show; 13 are a quarter. */
export type Weeks = (typeof WEEKS)[number];
export const LAYERS = ['holidays', 'moon', 'sun'] as const;
/** Ready-made calendars that can be laid under the views. */
export type Layer = (typeof LAYERS)[number];

/** What of the calendars is looked at, the same in all views. */
export interface Desk {
  readonly view: DeskView;
  /** The day that the range starts from, as `2026-05-25`; empty for today. */
  readonly from: string;
  readonly weeks: Weeks;
  readonly hidden: readonly string[];
  /** Whether week and month show calendars beside each other instead of one over the other. */
  readonly sideBySide: boolean;
  readonly find: { readonly text: string; readonly in: FindIn };
  /** The item that is chosen, by its key; it stays when the view changes. */
  readonly chosen: string;
  /** A second zone on the ruler of the week; empty for none. */
  readonly secondZone: ZoneName | '';
  /** The zone of the reader through whose eyes everything is looked at; empty for each calendar's own. */
  readonly readAs: ZoneName | '';
  readonly layers: readonly Layer[];
  /** The calendar in which an entry was last written; empty for none. */
  readonly lastCalendarId: string;
  /** Whether the row for clocks and layers is open. */
  readonly clocksOpen: boolean;
}

const KEY = 'zonal.desk';

const PLAIN: Desk = {
  view: 'lanes',
  from: '',
  weeks: 1,
  hidden: [],
  sideBySide: false,
  find: { text: '', in: 'text' },
  chosen: '',
  secondZone: '',
  readAs: '',
  layers: [],
  lastCalendarId: '',
  clocksOpen: false,
};

function kept(): Desk {
  try {
    return { ...PLAIN, ...(JSON.parse(localStorage.getItem(KEY) ?? '{}') as Partial<Desk>) };
  } catch {
    return PLAIN;
  }
}

export const deskSlice = createSlice({
  name: 'desk',
  initialState: kept,
  reducers: {
    deskSet: (desk, { payload }: PayloadAction<Partial<Desk>>) => ({ ...desk, ...payload }),
    calendarSwitched: (desk, { payload }: PayloadAction<string>) => ({
      ...desk,
      hidden: desk.hidden.includes(payload)
        ? desk.hidden.filter((id) => id !== payload)
        : [...desk.hidden, payload],
    }),
    layerSwitched: (desk, { payload }: PayloadAction<Layer>) => ({
      ...desk,
      layers: desk.layers.includes(payload)
        ? desk.layers.filter((l) => l !== payload)
        : [...desk.layers, payload],
    }),
  },
});

/** Keeps on this device what is worth keeping: not the day, the search and what was chosen. */
export function keepDesk({ from: _from, find: _find, chosen: _chosen, ...desk }: Desk): void {
  localStorage.setItem(KEY, JSON.stringify(desk));
}

export const { deskSet, calendarSwitched, layerSwitched } = deskSlice.actions;
