import type { Entry } from '@zonal/core/entries';
import { createApi, fetchBaseQuery, type BaseQueryFn, type FetchArgs } from '@reduxjs/toolkit/query/react';
import type {
  ApiProblem,
  Calendar,
  CalendarInput,
  EntryInput,
  ImportReport,
  OutwardWindow,
  Session,
  WindowInput,
} from './types';

let csrf = '';

const plain = fetchBaseQuery({
  baseUrl: '/api',
  prepareHeaders: (headers) => {
    headers.set('x-csrf-token', csrf);
    return headers;
  },
});

/** Every failure becomes a problem with a code and a sentence, also when the server does not answer at all. */
const base: BaseQueryFn<string | FetchArgs, unknown, ApiProblem> = async (args, api, extra) => {
  const result = await plain(args, api, extra);
  if (!result.error) return { data: result.data };
  const { data, status } = result.error;
  if (typeof data === 'object' && data !== null && 'code' in data) return { error: data as ApiProblem };
  const away = 'The server does not answer. What you wrote is still here; try again in a moment.';
  return { error: { code: 'unexpected', message: away, details: { status } } };
};

/** Removes what the server does not take back. */
function entryBody(entry: EntryInput & Partial<Entry>): EntryInput {
  const { id: _id, calendarId: _calendar, uid: _uid, ...body } = entry;
  return body;
}

export const zonalApi = createApi({
  reducerPath: 'api',
  baseQuery: base,
  tagTypes: ['Session', 'Calendar', 'Entry', 'Window'],
  endpoints: (build) => ({
    session: build.query<Session, void>({
      query: () => '/session',
      providesTags: ['Session'],
      transformResponse: (session: Session) => {
        csrf = session.csrf;
        return session;
      },
    }),
    signIn: build.mutation<Session, { email: string; password: string }>({
      query: (body) => ({ url: '/session', method: 'POST', body }),
      invalidatesTags: (_result, error) => (error ? [] : ['Session', 'Calendar', 'Entry', 'Window']),
      transformResponse: (session: Session) => {
        csrf = session.csrf;
        return session;
      },
    }),
    signOut: build.mutation<void, void>({
      query: () => ({ url: '/session', method: 'DELETE' }),
      invalidatesTags: ['Session'],
    }),
    calendars: build.query<Calendar[], void>({ query: () => '/calendars', providesTags: ['Calendar'] }),
    saveCalendar: build.mutation<Calendar, { id?: string; body: CalendarInput }>({
      query: ({ id, body }) => ({
        url: id ? `/calendars/${id}` : '/calendars',
        method: id ? 'PUT' : 'POST',
        body,
      }),
      invalidatesTags: ['Calendar'],
    }),
    deleteCalendar: build.mutation<void, string>({
      query: (id) => ({ url: `/calendars/${id}`, method: 'DELETE' }),
      invalidatesTags: ['Calendar', 'Entry'],
    }),
    entries: build.query<Entry[], { calendarId: string; from: string; to: string }>({
      query: ({ calendarId, from, to }) => `/calendars/${calendarId}/entries?from=${from}&to=${to}`,
      providesTags: (_result, _error, { calendarId }) => ['Entry', { type: 'Entry', id: calendarId }],
    }),
    addEntry: build.mutation<Entry, { calendarId: string; entry: EntryInput }>({
      query: ({ calendarId, entry }) => ({
        url: `/calendars/${calendarId}/entries`,
        method: 'POST',
        body: entryBody(entry),
      }),
      invalidatesTags: ['Entry', 'Calendar'],
    }),
    saveEntry: build.mutation<Entry, { id: string; entry: EntryInput }>({
      query: ({ id, entry }) => ({ url: `/entries/${id}`, method: 'PUT', body: entryBody(entry) }),
      invalidatesTags: ['Entry'],
    }),
    splitEntry: build.mutation<
      { before: Entry; from: Entry },
      { version: number; before: Entry; from: Entry }
    >({
      query: ({ version, before, from }) => ({
        url: `/entries/${before.id}/split`,
        method: 'POST',
        body: { version, before: entryBody(before), from: entryBody(from) },
      }),
      invalidatesTags: ['Entry', 'Calendar'],
    }),
    deleteEntry: build.mutation<void, { id: string; version: number }>({
      query: ({ id, version }) => ({ url: `/entries/${id}?version=${version}`, method: 'DELETE' }),
      invalidatesTags: ['Entry', 'Calendar'],
    }),
    importFile: build.mutation<ImportReport, { calendarId: string; file: Blob; tryOnly: boolean }>({
      query: ({ calendarId, file, tryOnly }) => ({
        url: `/calendars/${calendarId}/import${tryOnly ? '?try=1' : ''}`,
        method: 'POST',
        headers: { 'content-type': 'text/calendar' },
        body: file,
      }),
      invalidatesTags: (result) => (result?.saved ? ['Entry', 'Calendar'] : []),
    }),
    windows: build.query<OutwardWindow[], void>({ query: () => '/windows', providesTags: ['Window'] }),
    openWindow: build.mutation<OutwardWindow, WindowInput>({
      query: (body) => ({ url: '/windows', method: 'POST', body }),
      invalidatesTags: ['Window'],
    }),
    saveWindow: build.mutation<OutwardWindow, { id: string; body: WindowInput }>({
      query: ({ id, body }) => ({ url: `/windows/${id}`, method: 'PUT', body }),
      invalidatesTags: ['Window'],
    }),
    shutWindow: build.mutation<OutwardWindow, { id: string; close: boolean }>({
      query: ({ id, close }) => ({ url: `/windows/${id}/${close ? 'close' : 'open'}`, method: 'POST' }),
      invalidatesTags: ['Window'],
    }),
  }),
});

export const {
  useSessionQuery,
  useSignInMutation,
  useSignOutMutation,
  useCalendarsQuery,
  useSaveCalendarMutation,
  useDeleteCalendarMutation,
  useAddEntryMutation,
  useSaveEntryMutation,
  useSplitEntryMutation,
  useDeleteEntryMutation,
  useImportFileMutation,
  useWindowsQuery,
  useOpenWindowMutation,
  useSaveWindowMutation,
  useShutWindowMutation,
} = zonalApi;

/** Returns the problem that a call ended with, or null. */
export function problemOf(error: unknown): ApiProblem | null {
  return typeof error === 'object' && error !== null && 'message' in error ? (error as ApiProblem) : null;
}
