import { createSlice, type PayloadAction } from '@reduxjs/toolkit';

/** The steps of a first day. */
export const FIRST_STEPS = ['calendar', 'window', 'address'] as const;
export type FirstStep = (typeof FIRST_STEPS)[number];

/** Whether somebody is led through a first day just now, and what they skipped. */
export interface FirstDayState {
  readonly on: boolean;
  readonly skipped: readonly FirstStep[];
}

const KEPT = 'first-day';
const OFF: FirstDayState = { on: false, skipped: [] };

function kept(): FirstDayState {
  try {
    return { ...OFF, ...(JSON.parse(sessionStorage.getItem(KEPT) ?? '{}') as Partial<FirstDayState>) };
  } catch {
    return OFF;
  }
}

export const firstDaySlice = createSlice({
  name: 'firstDay',
  initialState: kept,
  reducers: {
    firstDayBegun: (state) => ({ ...state, on: true }),
    firstDayEnded: () => OFF,
    stepSkipped: (state, { payload }: PayloadAction<FirstStep>) => ({
      ...state,
      skipped: [...state.skipped, payload],
    }),
  },
});

export const { firstDayBegun, firstDayEnded, stepSkipped } = firstDaySlice.actions;

/** Keeps a state for as long as the page's tab is open. */
export function keepFirstDay(state: FirstDayState): void {
  sessionStorage.setItem(KEPT, JSON.stringify(state));
}

/** Returns the step that is next, by what there is already, or null where all are done or skipped. */
export function nextStep(
  there: { readonly calendars: number; readonly windows: number },
  skipped: readonly FirstStep[],
): FirstStep | null {
  const done: Readonly<Record<FirstStep, boolean>> = {
    calendar: there.calendars > 0,
    window: there.windows > 0,
    // It is read, not made: one goes on by oneself.
    address: there.windows === 0 && skipped.includes('window'),
  };
  return FIRST_STEPS.find((step) => !done[step] && !skipped.includes(step)) ?? null;
}
