import type { ApiProblem } from '@zonal/core/api';
import { createSelector } from '@reduxjs/toolkit';
import { QueryStatus } from '@reduxjs/toolkit/query';
import { problemOf, type baseApi } from './baseApi';

type ApiState = ReturnType<typeof baseApi.reducer>;

/** A query that could not be answered: what it asks, and why. */
export interface FailedQuery {
  readonly endpoint: string;
  readonly args: unknown;
  readonly problem: ApiProblem;
  /** Whether an earlier answer is still shown. */
  readonly hasData: boolean;
}

/** Statuses that take away what somebody saw before. Whatever else goes wrong leaves it on the screen. */
const REFUSALS: readonly number[] = [403, 404, 410];

/** Returns whether a query failed because this person may not have the answer, or because it no longer exists. */
export function isRefused(error: unknown): boolean {
  const problem = problemOf(error);
  return !!problem && REFUSALS.includes(problem.status);
}

/** Returns the queries of the open screens that failed, except refusals. A lost session has a screen of its own. */
export const selectFailedQueries = createSelector(
  [({ api }: { api: ApiState }) => api.queries, ({ api }: { api: ApiState }) => api.subscriptions],
  (queries, subscriptions): FailedQuery[] =>
    Object.entries(queries).flatMap(([key, query]) => {
      if (query?.status !== QueryStatus.rejected || !Object.keys(subscriptions[key] ?? {}).length) return [];
      const problem = problemOf(query.error);
      if (!problem || isRefused(problem) || problem.code === 'not-signed-in') return [];
      const { endpointName, originalArgs, data } = query;
      return [{ endpoint: endpointName, args: originalArgs, problem, hasData: data !== undefined }];
    }),
);
