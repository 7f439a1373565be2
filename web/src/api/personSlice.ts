import type { Session } from '@zonal/core/api';
import { createSlice } from '@reduxjs/toolkit';
import { baseApi } from './baseApi';

/** Who uses this page. It stays known if their session ends by itself, so that they can go on where they were. */
export interface Person {
  readonly user: Session['user'];
  /** Whether the session ended without signing out here: it was ended elsewhere, took too long, or the account is suspended. */
  readonly isSessionLost: boolean;
}

const { session, signOut, signOutEverywhere } = baseApi.endpoints;
const NOBODY: Person = { user: null, isSessionLost: false };

/** Follows the answers about the session. */
export const personSlice = createSlice({
  name: 'person',
  initialState: NOBODY,
  reducers: {},
  extraReducers: (builder) =>
    builder
      .addMatcher(session.matchFulfilled, (person, { payload: { user } }) =>
        user ? { user, isSessionLost: false } : { ...person, isSessionLost: person.user !== null },
      )
      .addMatcher(signOut.matchFulfilled, () => NOBODY)
      .addMatcher(signOutEverywhere.matchFulfilled, () => NOBODY),
});
