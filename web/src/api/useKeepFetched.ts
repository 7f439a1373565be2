import { useEffect } from 'react';
import { useAppStore } from '../store';
import { queryByName } from './baseApi';

/**
 * Keeps all answers that are cached now for as long as this component is shown. Screens that are hidden meanwhile have no
 * subscriptions of their own; if their answers were dropped, forms that were made from them would be dropped too.
 */
export function useKeepFetched(): void {
  const { dispatch, getState } = useAppStore();
  useEffect(() => {
    const kept = Object.values(getState().api.queries).flatMap((query) =>
      query?.data === undefined ? [] : [dispatch(queryByName(query.endpointName, query.originalArgs))],
    );
    return () => kept.forEach(({ unsubscribe }) => unsubscribe());
  }, [dispatch, getState]);
}
