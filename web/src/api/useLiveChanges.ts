import { useEffect } from 'react';
import { useAppDispatch } from '../store';
import { insideChanged } from './changeSlice';
import { zonalApi } from './zonalApi';

interface News {
  readonly calendarIds: readonly string[];
  readonly windowIds: readonly string[];
}

/** Fetches anew what somebody has changed, as it is changed, while the page is open. */
export function useLiveChanges(): void {
  const dispatch = useAppDispatch();
  useEffect(() => {
    const source = new EventSource('/api/changes');
    let lost = false;
    const refresh = ({ calendarIds, windowIds }: News) => {
      if (calendarIds.length) {
        dispatch(
          zonalApi.util.invalidateTags([
            ...calendarIds.map((id) => ({ type: 'Entry' as const, id })),
            'Calendar',
          ]),
        );
        dispatch(insideChanged());
      }
      if (windowIds.length) dispatch(zonalApi.util.invalidateTags(['Window']));
    };
    source.addEventListener('change', (event) =>
      refresh(JSON.parse((event as MessageEvent<string>).data) as News),
    );
    source.onerror = () => {
      lost = true;
    };
    source.onopen = () => {
      // What happened while the connection was lost is not told again.
      if (lost) dispatch(zonalApi.util.invalidateTags(['Entry', 'Calendar', 'Window']));
      lost = false;
    };
    return () => source.close();
  }, [dispatch]);
}
