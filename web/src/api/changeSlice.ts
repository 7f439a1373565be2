import { createSlice } from '@reduxjs/toolkit';

/** Counts the changes of entries, here or by others, so that what is worked out from them can be worked out anew. */
export const changeSlice = createSlice({
  name: 'changes',
  initialState: 0,
  reducers: { insideChanged: (count) => count + 1 },
});

export const { insideChanged } = changeSlice.actions;
