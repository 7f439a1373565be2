import type { Entry } from '@zonal/core/entries';
import { DAY, type Day } from '@zonal/core/zones';
import { QueryStatus } from '@reduxjs/toolkit/query/react';
import { useEffect, useMemo } from 'react';
import { isRefused } from '../api/fetchTrouble';
import { problemOf, zonalApi } from '../api/zonalApi';
import type { ApiProblem, Calendar } from '@zonal/core/api';
import { useAppDispatch, useAppSelector } from '../store';

interface Loaded {
  readonly entries: ReadonlyMap<string, readonly Entry[]>;
  readonly loading: boolean;
  /** Whether newer entries are on their way. */
  readonly stale: boolean;
  /** Why some entries are refused. Trouble on the way is said by the shell. */
  readonly problem: ApiProblem | null;
}

const NONE: readonly Entry[] = [];

/** Returns the entries of several calendars that can take place from one day to before another, by calendar. */
export function useEntries(calendars: readonly Calendar[], from: Day, to: Day): Loaded {
  const dispatch = useAppDispatch();
  const iso = (day: Day) => new Date(day * DAY).toISOString();
  const ids = calendars.map((c) => c.id).join(' ');
  const args = useMemo(
    () =>
      ids
        .split(' ')
        .filter(Boolean)
        .map((calendarId) => ({ calendarId, from: iso(from - 1), to: iso(to + 1) })),
    [ids, from, to],
  );
  useEffect(() => {
    const asked = args.map((arg) => dispatch(zonalApi.endpoints.entries.initiate(arg)));
    return () => asked.forEach((a) => a.unsubscribe());
  }, [args, dispatch]);
  const results = useAppSelector(
    (state) => args.map((arg) => zonalApi.endpoints.entries.select(arg)(state)),
    (a, b) => a.length === b.length && a.every((r, i) => r === b[i]),
  );
  const entries = useMemo(
    () => new Map(results.map((r, i) => [args[i]!.calendarId, (isRefused(r.error) ? null : r.data) ?? NONE])),
    [results, args],
  );
  return {
    entries,
    loading: results.some((r) => !r.data && !r.isError),
    stale: results.some((r) => r.status === QueryStatus.pending),
    problem: problemOf(results.find((r) => isRefused(r.error))?.error),
  };
}
