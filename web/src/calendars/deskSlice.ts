import { createSlice, type PayloadAction } from '@reduxjs/toolkit';

export const VIEWS = ['lanes', 'list'] as const;
export type DeskView = (typeof VIEWS)[number];
export const WEEKS = [1, 2, 4] as const;
export type Weeks = (typeof WEEKS)[number];

/** What of the calendars is looked at. `from` is a Monday as `2026-05-25`, or empty for this week's. */
export interface Desk {
  readonly view: DeskView;
  readonly from: string;
  readonly weeks: Weeks;
  readonly hidden: readonly string[];
}

const KEY = 'zonal.desk';

function kept(): Desk {
  const plain: Desk = { view: 'lanes', from: '', weeks: 1, hidden: [] };
  try {
    return { ...plain, ...(JSON.parse(localStorage.getItem(KEY) ?? '{}') as Partial<Desk>), from: '' };
  } catch {
    return plain;
  }
}

export const deskSlice = createSlice({
  name: 'desk',
  initialState: kept,
  reducers: {
    viewChosen: (desk, { payload }: PayloadAction<DeskView>) => ({ ...desk, view: payload }),
    weeksChosen: (desk, { payload }: PayloadAction<Weeks>) => ({ ...desk, weeks: payload }),
    wentTo: (desk, { payload }: PayloadAction<string>) => ({ ...desk, from: payload }),
    calendarSwitched: (desk, { payload }: PayloadAction<string>) => ({
      ...desk,
      hidden: desk.hidden.includes(payload)
        ? desk.hidden.filter((id) => id !== payload)
        : [...desk.hidden, payload],
    }),
  },
});

/** Keeps the choice on this device. */
export function keepDesk(desk: Desk): void {
  localStorage.setItem(KEY, JSON.stringify(desk));
}

export const { viewChosen, weeksChosen, wentTo, calendarSwitched } = deskSlice.actions;
