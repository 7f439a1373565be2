import type { AnswerOf, CallName, Session, SignIn } from '@zonal/core/api';
import { nanoid } from '@reduxjs/toolkit';
import {
  createApi,
  type BaseQueryApi,
  type BaseQueryFn,
  type EndpointBuilder,
} from '@reduxjs/toolkit/query/react';
import { sendCall, type Asking, type CallProblem, type Sent } from './client';
import { unconfirmedChanged, unconfirmedIn } from './unconfirmedSlice';

let csrf = '';

/** Returns the token that requests of workers must carry. */
export const csrfToken = () => csrf;

/** Codes with which it is not known whether a change was made: sending it again under its id makes it once. */
const UNSURE = ['outcome-unknown', 'change-repeated'];
const RETRY = 1500;

/** Sends a call; a change carries an id of its own, and is sent once more where it is not known what became of it. */
async function sent(asking: Asking, api: BaseQueryApi) {
  if (asking.name.startsWith('GET ')) return sendCall(asking, { csrf });
  const named = { csrf, changeId: nanoid() };
  let reply = await sendCall(asking, named);
  if ('problem' in reply && (reply.lost || UNSURE.includes(reply.problem.code))) {
    await new Promise((resolve) => setTimeout(resolve, RETRY));
    reply = await sendCall(asking, named);
  }
  if (!('problem' in reply))
    api.dispatch(unconfirmedChanged(unconfirmedIn(reply.headers.get('x-unconfirmed'))));
  return reply;
}

const base: BaseQueryFn<Asking, unknown, CallProblem> = async (asking, api) => {
  const reply = await sent(asking, api);
  if ('problem' in reply) {
    if (reply.problem.code === 'not-signed-in') api.dispatch(baseApi.util.invalidateTags(['Session']));
    return { error: reply.problem };
  }
  const { answer } = reply;
  // Whoever was just signed in is told the token of their session.
  if (typeof answer === 'object' && answer && 'csrf' in answer) ({ csrf } = answer as Session);
  return { data: reply.answer ?? null };
};

/** What answers are about: a change makes answers about its tags be fetched again. */
export const TAGS = [
  'Session',
  'Calendar',
  'Entry',
  'Window',
  'House',
  'Ceiling',
  'Label',
  'Sheet',
  'Person',
  'Invitation',
  'Account',
  'Post',
  'Directory',
  'Wish',
  'Journal',
  'Reach',
  'Push',
  'Alert',
] as const;
export type Tag = (typeof TAGS)[number];
type Tags<A> =
  readonly Tag[] | ((result: unknown, error: unknown, args: A) => (Tag | { type: Tag; id: string })[]);

/** Nothing that a call is sent with. */
export const bare = (_args: void) => ({});

/** Every answer may differ for somebody who has just signed in. */
export const SIGNED_IN = (_: unknown, error: unknown): Tag[] => (error ? [] : [...TAGS]);

/** Returns what writes the endpoints of the API in short. */
export function endpointsOf(build: EndpointBuilder<typeof base, Tag, 'api'>) {
  /** A question: what it is sent with follows from its arguments, its answer is the one that core says. */
  const query = <N extends CallName, A = void>(
    name: N,
    sentWith: (args: A) => Sent<N>,
    providesTags: Tags<A>,
    transformResponse: (answer: AnswerOf<N>) => AnswerOf<N> = (answer) => answer,
  ) =>
    build.query<AnswerOf<N>, A>({
      query: (args) => ({ name, ...(sentWith(args) as object) }),
      providesTags: providesTags as Tag[],
      transformResponse,
    });
  const mutation = <N extends CallName, A = void>(
    name: N | ((args: A) => N),
    sentWith: (args: A) => Sent<N> & Pick<Asking, 'file'>,
    invalidatesTags: Tags<A>,
  ) =>
    build.mutation<AnswerOf<N>, A>({
      query: (args) => ({
        name: typeof name === 'string' ? name : name(args),
        ...(sentWith(args) as object),
      }),
      invalidatesTags: invalidatesTags as Tag[],
    });
  return { query, mutation };
}

/** What the page to sign in needs of the API; the rest is added with the screens, see zonalApi. */
export const baseApi = createApi({
  reducerPath: 'api',
  baseQuery: base,
  tagTypes: TAGS,
  endpoints: (build) => {
    const { query, mutation } = endpointsOf(build);
    return {
      session: query('GET /session', bare, ['Session']),
      signIn: mutation('POST /session', (body: SignIn) => ({ body }), SIGNED_IN),
      signOut: mutation('DELETE /session', bare, ['Session']),
      signOutEverywhere: mutation('DELETE /account/devices', bare, ['Session']),
    };
  },
});

export const { useSessionQuery, useSignInMutation, useSignOutMutation, useSignOutEverywhereMutation } =
  baseApi;

/** Returns the problem that a call ended with, or null. */
export function problemOf(error: unknown): CallProblem | null {
  return typeof error === 'object' && error !== null && 'message' in error ? (error as CallProblem) : null;
}

/** Returns the action that asks a query which is only known by its name, as those in the cache are. */
export function queryByName(
  endpoint: string,
  args: unknown,
  options: { readonly forceRefetch?: boolean; readonly subscribe?: boolean } = {},
) {
  // The types of all queries differ in what they ask and answer only, and nobody reads that here.
  return baseApi.endpoints[endpoint as 'session'].initiate(args as void, options);
}
