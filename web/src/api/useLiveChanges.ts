import { useEffect } from 'react';
import { useAppDispatch } from '../store';
import { insideChanged } from './changeSlice';
import { TAGS, zonalApi } from './zonalApi';

interface News {
  readonly calendarIds: readonly string[];
  readonly windowIds: readonly string[];
}

/** Milliseconds before the stream is opened again if the server refused it, as while it starts. */
const REOPEN_DELAY_MS = 3_000;

/**
 * Fetches again what somebody has just changed, while the page is open. When the stream ends, it asks whether the session still
 * holds.
 */
export function useLiveChanges(): void {
  const dispatch = useAppDispatch();
  useEffect(() => {
    let source: EventSource;
    let isLost = false;
    let timer: ReturnType<typeof setTimeout> | undefined;
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
    const open = () => {
      source = new EventSource('/api/changes');
      source.addEventListener('change', (event) =>
        refresh(JSON.parse((event as MessageEvent<string>).data) as News),
      );
      source.onerror = () => {
        // The browser tries again by itself after a cut connection, but never after a refusal.
        const isRefused = source.readyState === EventSource.CLOSED;
        if (isRefused) timer = setTimeout(open, REOPEN_DELAY_MS);
        // The server ends the stream of a session that has ended, and refuses to open it again.
        if (isRefused || !isLost) void dispatch(zonalApi.endpoints.session.initiate(undefined, ONCE));
        isLost = true;
      };
      source.onopen = () => {
        // Changes during the gap are not reported again.
        if (isLost) dispatch(zonalApi.util.invalidateTags([...TAGS]));
        isLost = false;
      };
    };
    open();
    return () => {
      clearTimeout(timer);
      source.close();
    };
  }, [dispatch]);
}

const ONCE = { forceRefetch: true, subscribe: false };
