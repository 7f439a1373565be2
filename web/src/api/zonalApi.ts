import type { Entry, FindQuery } from '@zonal/core/entries';
import { nanoid } from '@reduxjs/toolkit';
import { createApi, fetchBaseQuery, type BaseQueryFn, type FetchArgs } from '@reduxjs/toolkit/query/react';
import type { Demand, Glass, OutwardView, Watch } from '@zonal/core/glass';
import type {
  AllCeilings,
  ApiProblem,
  Calendar,
  CalendarImpact,
  CalendarInput,
  Ceiling,
  EditAnswer,
  EditWay,
  EntryChange,
  House,
  Label,
  LedgerLine,
  OutwardWindow,
  Session,
  WindowDraft,
  WindowInput,
  WindowVersion,
  ZoneChange,
} from './types';

import { unconfirmedChanged, unconfirmedIn } from './unconfirmedSlice';

let csrf = '';

/** Returns the token that requests of workers must carry. */
export const csrfToken = () => csrf;

const plain = fetchBaseQuery({
  baseUrl: '/api',
  prepareHeaders: (headers) => {
    headers.set('x-csrf-token', csrf);
    return headers;
  },
});

/** Codes with which it is not known whether a change was made: sending it again under its id makes it once. */
const UNSURE = ['outcome-unknown', 'change-repeated'];
const RETRY = 1500;

/** Sends a request; a change carries an id of its own, and is sent once more where it is not known what became of it. */
async function sent(
  args: string | FetchArgs,
  api: Parameters<typeof plain>[1],
  extra: Parameters<typeof plain>[2],
) {
  const { method = 'GET' } = typeof args === 'string' ? {} : args;
  if (typeof args === 'string' || method === 'GET') return plain(args, api, extra);
  const named = { ...args, headers: { 'x-change-id': nanoid() } };
  const first = await plain(named, api, extra);
  const lost = first.error?.status === 'FETCH_ERROR';
  const code = (first.error?.data as ApiProblem | undefined)?.code ?? '';
  let result = first;
  if (lost || UNSURE.includes(code)) {
    await new Promise((resolve) => setTimeout(resolve, RETRY));
    result = await plain(named, api, extra);
  }
  if (!result.error)
    api.dispatch(
      unconfirmedChanged(unconfirmedIn(result.meta?.response?.headers.get('x-unconfirmed') ?? null)),
    );
  return result;
}

/** Every failure becomes a problem with a code and a sentence, also when the server does not answer at all. */
const base: BaseQueryFn<string | FetchArgs, unknown, ApiProblem> = async (args, api, extra) => {
  const result = await sent(args, api, extra);
  if (!result.error) return { data: result.data };
  const { data, status } = result.error;
  if (typeof data === 'object' && data !== null && 'code' in data) return { error: data as ApiProblem };
  const away = 'The server does not answer. What you wrote is still here; try again in a moment.';
  return { error: { code: 'unexpected', message: away, details: { status } } };
};

export const zonalApi = createApi({
  reducerPath: 'api',
  baseQuery: base,
  tagTypes: ['Session', 'Calendar', 'Entry', 'Window', 'House', 'Ceiling', 'Label'],
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
      query: (id) => ({ url: `/calendars/${id}?windows=take-out`, method: 'DELETE' }),
      invalidatesTags: ['Calendar', 'Entry', 'Window'],
    }),
    allEntries: build.query<Entry[], string>({
      query: (calendarId) => `/calendars/${calendarId}/entries`,
      providesTags: (_result, _error, id) => ['Entry', { type: 'Entry', id }],
    }),
    entries: build.query<Entry[], { calendarId: string; from: string; to: string }>({
      query: ({ calendarId, from, to }) => `/calendars/${calendarId}/entries?from=${from}&to=${to}`,
      providesTags: (_result, _error, { calendarId }) => ['Entry', { type: 'Entry', id: calendarId }],
    }),
    find: build.query<{ total: number; entries: Entry[] }, FindQuery>({
      query: (params) => ({ url: '/find', params: { ...params } }),
      providesTags: ['Entry'],
    }),
    makeEdit: build.mutation<EditAnswer, { label: string; changes: readonly EntryChange[] }>({
      query: (body) => ({ url: '/edits', method: 'POST', body }),
      invalidatesTags: ['Entry', 'Calendar'],
    }),
    turnEdit: build.mutation<EditAnswer, { id: string; way: EditWay }>({
      query: ({ id, way }) => ({ url: `/edits/${id}/${way}`, method: 'POST' }),
      invalidatesTags: ['Entry', 'Calendar'],
    }),
    archiveCalendar: build.mutation<Calendar, { id: string; archived: boolean }>({
      query: ({ id, archived }) => ({ url: `/calendars/${id}/archive`, method: 'PUT', body: { archived } }),
      invalidatesTags: ['Calendar'],
    }),
    rezoneCalendar: build.mutation<EditAnswer, ZoneChange>({
      query: ({ id, ...body }) => ({ url: `/calendars/${id}/zone`, method: 'POST', body }),
      invalidatesTags: ['Entry', 'Calendar'],
    }),
    calendarImpact: build.query<CalendarImpact, string>({
      query: (id) => `/calendars/${id}/impact`,
      providesTags: ['Window', 'Entry'],
    }),
    house: build.query<House, void>({ query: () => '/house', providesTags: ['House'] }),
    watch: build.query<Watch, void>({ query: () => '/house/watch', providesTags: ['House'] }),
    saveHouse: build.mutation<House, House>({
      query: (body) => ({ url: '/house', method: 'PUT', body }),
      invalidatesTags: ['House', 'Window'],
    }),
    labels: build.query<Label[], void>({ query: () => '/labels', providesTags: ['Label', 'Entry'] }),
    forgetLabel: build.mutation<void, string>({
      query: (name) => ({ url: `/labels/${encodeURIComponent(name)}`, method: 'DELETE' }),
      invalidatesTags: ['Label', 'Window'],
    }),
    ceilings: build.query<AllCeilings, void>({
      query: () => '/ceilings',
      providesTags: ['Ceiling', 'Window'],
    }),
    setCeiling: build.mutation<
      AllCeilings,
      Omit<Ceiling, 'by' | 'at' | 'glass'> & { glass: Glass | null; confirmed: readonly Demand[] }
    >({
      query: (body) => ({ url: '/ceilings', method: 'PUT', body }),
      invalidatesTags: ['Ceiling', 'Window'],
    }),
    askCeiling: build.mutation<AllCeilings, Omit<Ceiling, 'by' | 'at'> & { reason: string }>({
      query: (body) => ({ url: '/ceilings/requests', method: 'POST', body }),
      invalidatesTags: ['Ceiling'],
    }),
    answerRequest: build.mutation<AllCeilings, { id: string; grant: boolean; confirmed: readonly Demand[] }>({
      query: ({ id, ...body }) => ({ url: `/ceilings/requests/${id}`, method: 'POST', body }),
      invalidatesTags: ['Ceiling', 'Window'],
    }),
    lockDown: build.mutation<void, { id: string; locked: boolean }>({
      query: ({ id, locked }) => ({ url: `/calendars/${id}/lock-down`, method: locked ? 'POST' : 'DELETE' }),
      invalidatesTags: ['Calendar', 'Window', 'Ceiling'],
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
    keepDraft: build.mutation<WindowDraft, { id: string; version: number; body: WindowInput }>({
      query: ({ id, ...body }) => ({ url: `/windows/${id}/draft`, method: 'PUT', body }),
      onQueryStarted: async ({ id }, { dispatch, queryFulfilled }) => {
        const { data } = await queryFulfilled.catch(() => ({ data: null }));
        if (!data) return;
        dispatch(
          zonalApi.util.updateQueryData('windows', undefined, (windows) =>
            windows.map((w) => (w.id === id ? { ...w, draft: data } : w)),
          ),
        );
      },
    }),
    discardDraft: build.mutation<void, string>({
      query: (id) => ({ url: `/windows/${id}/draft`, method: 'DELETE' }),
      invalidatesTags: ['Window'],
    }),
    scheduleDraft: build.mutation<
      OutwardWindow,
      { id: string; at: string | null; confirmed: readonly Demand[] }
    >({
      query: ({ id, ...body }) => ({ url: `/windows/${id}/schedule`, method: 'POST', body }),
      invalidatesTags: ['Window'],
    }),
    versions: build.query<WindowVersion[], string>({
      query: (id) => `/windows/${id}/versions`,
      providesTags: ['Window'],
    }),
    ledger: build.query<LedgerLine[], string>({
      query: (keyId) => `/keys/${keyId}/ledger`,
      providesTags: ['Window', 'Entry'],
    }),
    pastView: build.query<OutwardView, { keyId: string; number: number }>({
      query: ({ keyId, number }) => `/keys/${keyId}/ledger/${number}`,
    }),
    endKey: build.mutation<OutwardWindow, { id: string; expiresAt: string | null }>({
      query: ({ id, expiresAt }) => ({ url: `/keys/${id}`, method: 'PUT', body: { expiresAt } }),
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
  useArchiveCalendarMutation,
  useRezoneCalendarMutation,
  useCalendarImpactQuery,
  useAllEntriesQuery,
  useFindQuery,
  useMakeEditMutation,
  useTurnEditMutation,
  useHouseQuery,
  useWatchQuery,
  useSaveHouseMutation,
  useWindowsQuery,
  useOpenWindowMutation,
  useSaveWindowMutation,
  useEndKeyMutation,
  useShutWindowMutation,
  useKeepDraftMutation,
  useDiscardDraftMutation,
  useScheduleDraftMutation,
  useVersionsQuery,
  useLedgerQuery,
  usePastViewQuery,
  useLabelsQuery,
  useForgetLabelMutation,
  useCeilingsQuery,
  useSetCeilingMutation,
  useAskCeilingMutation,
  useAnswerRequestMutation,
  useLockDownMutation,
} = zonalApi;

/** Returns the problem that a call ended with, or null. */
export function problemOf(error: unknown): ApiProblem | null {
  return typeof error === 'object' && error !== null && 'message' in error ? (error as ApiProblem) : null;
}
