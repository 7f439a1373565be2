import type { CeilingRequest, RequestRecord, Wish } from '@zonal/core/api';
import { useMemo } from 'react';
import { useCalendarsQuery, useCeilingsQuery, useWishesQuery } from '../api/zonalApi';
import { t } from '../texts/shell';
import { ceilingRequestWords, wishWords } from '../texts/rightsWords';

/** A request of a colleague: for access to a calendar, or for a higher ceiling. */
export type Request = {
  /** What is asked for, as words that follow “asks to”; for a ceiling “asks you to”. */
  readonly words: string;
} & (({ readonly kind: 'access' } & Wish) | ({ readonly kind: 'ceiling' } & CeilingRequest));

const REFRESH_INTERVAL_MS = 30_000;

const newestFirst = (a: RequestRecord, b: RequestRecord) => b.at.localeCompare(a.at);

/**
 * Returns all requests that the person who is signed in made or may answer, newest first; undefined until they have been fetched.
 * They are fetched again every half minute.
 */
export function useRequests(): { requests: readonly Request[] | undefined; error: unknown } {
  const often = { pollingInterval: REFRESH_INTERVAL_MS };
  const { data: wishes, error: wishError } = useWishesQuery(undefined, often);
  const { data: ceilings, error: ceilingError } = useCeilingsQuery(undefined, often);
  const { data: calendars } = useCalendarsQuery();
  const requests = useMemo(() => {
    if (!wishes || !ceilings) return undefined;
    const nameOf = (id: string) => calendars?.find((c) => c.id === id)?.name ?? t('aCalendar');
    const access = wishes.map((wish): Request => {
      return { ...wish, kind: 'access', words: wishWords(wish, wish.calendar) };
    });
    const raised = ceilings.requests
      .filter((request) => request.own || request.toAnswer)
      .map((request): Request => {
        const calendar = request.calendarId === null ? null : nameOf(request.calendarId);
        return { ...request, kind: 'ceiling', words: ceilingRequestWords(request, calendar) };
      });
    return [...access, ...raised].sort(newestFirst);
  }, [wishes, ceilings, calendars]);
  return { requests, error: wishError ?? ceilingError };
}
