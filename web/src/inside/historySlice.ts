import { createSlice, type PayloadAction } from '@reduxjs/toolkit';

/** One edit that can be taken back, or done again. */
export interface Step {
  readonly id: string;
  readonly label: string;
}

/** What was done here, newest last, and what was taken back, newest last. */
export interface History {
  readonly done: readonly Step[];
  readonly undone: readonly Step[];
}

/** So many steps are kept. */
export const MOST_STEPS = 200;

export const historySlice = createSlice({
  name: 'history',
  initialState: (): History => ({ done: [], undone: [] }),
  reducers: {
    /** Somebody signed in or out. */
    historyReplaced: (_history, { payload }: PayloadAction<History>) => payload,
    stepDone: ({ done }, { payload }: PayloadAction<Step>) => ({
      done: [...done, payload].slice(-MOST_STEPS),
      undone: [],
    }),
    stepUndone: ({ done, undone }) => ({
      done: done.slice(0, -1),
      undone: done.length ? [...undone, done.at(-1)!] : undone,
    }),
    stepRedone: ({ done, undone }) => ({
      done: undone.length ? [...done, undone.at(-1)!] : done,
      undone: undone.slice(0, -1),
    }),
    /** Drops a step that can no longer be taken: somebody changed what it had changed. */
    stepLost: ({ done, undone }, { payload }: PayloadAction<string>) => ({
      done: done.filter((s) => s.id !== payload),
      undone: undone.filter((s) => s.id !== payload),
    }),
  },
});

export const { historyReplaced, stepDone, stepUndone, stepRedone, stepLost } = historySlice.actions;
