import { configureStore } from '@reduxjs/toolkit';
import { afterEach, expect, it, vi } from 'vitest';
import { isRefused, selectFailedQueries } from './fetchTrouble';
import { personSlice } from './personSlice';
import { queryByName, zonalApi } from './zonalApi';

afterEach(() => vi.unstubAllGlobals());

const IDA = { name: 'Ida', email: 'ida@ostrel.example', role: 'steward' };
const session = (user: typeof IDA | null) => ({ user, csrf: 'token' });

/** Has the server answer from now on. */
function answer(status: number, body: unknown): void {
  vi.stubGlobal('fetch', () => Promise.resolve(new Response(JSON.stringify(body), { status })));
}

/** Has the server refuse everything but the question who is signed in: nobody. */
function endSession(): void {
  vi.stubGlobal('fetch', (path: string) => {
    const isSession = path.startsWith('/api/session');
    const body = isSession ? session(null) : problem('not-signed-in');
    return Promise.resolve(new Response(JSON.stringify(body), { status: isSession ? 200 : 401 }));
  });
}

const problem = (code: string) => ({ code, message: `Because of ${code}.`, details: {} });

function testStore() {
  const store = configureStore({
    reducer: { [zonalApi.reducerPath]: zonalApi.reducer, person: personSlice.reducer },
    middleware: (defaults) => defaults().concat(zonalApi.middleware),
  });
  const ask = (endpoint: string, again = false) =>
    store.dispatch(queryByName(endpoint, undefined, { forceRefetch: again }));
  return { store, ask, failed: () => selectFailedQueries(store.getState()) };
}

it('a failed query keeps its data and is reported until it is answered again', async () => {
  const { ask, failed } = testStore();
  answer(200, []);
  await ask('calendars');
  answer(503, problem('storage-away'));
  expect((await ask('calendars', true)).data).toEqual([]);
  await vi.waitFor(() => expect(failed()).toHaveLength(1));
  expect(failed()[0]).toMatchObject({
    endpoint: 'calendars',
    hasData: true,
    problem: { code: 'storage-away' },
  });
  answer(200, []);
  await ask('calendars', true);
  expect(failed()).toEqual([]);
});

it('a refusal is the answer of its own screen, and not trouble on the way', async () => {
  const { ask, failed } = testStore();
  answer(403, problem('not-allowed'));
  const { error } = await ask('calendars');
  expect(isRefused(error)).toBe(true);
  expect(isRefused(problem('storage-away'))).toBe(false);
  await new Promise((resolve) => setTimeout(resolve));
  expect(failed()).toEqual([]);
});

it('a person stays known when their session ends, and not when they sign out', async () => {
  const { store, ask } = testStore();
  const person = () => store.getState().person;
  answer(200, session(null));
  await ask('session');
  expect(person()).toEqual({ user: null, isSessionLost: false });
  answer(200, session(IDA));
  await ask('session', true);
  expect(person()).toEqual({ user: IDA, isSessionLost: false });
  endSession();
  await ask('calendars');
  await vi.waitFor(() => expect(person()).toEqual({ user: IDA, isSessionLost: true }));
  answer(200, session(IDA));
  await ask('session', true);
  expect(person().isSessionLost).toBe(false);
  answer(200, null);
  await store.dispatch(zonalApi.endpoints.signOut.initiate());
  expect(person()).toEqual({ user: null, isSessionLost: false });
});
