import type { RehearsedWindow, SightedWindow } from '@zonal/core/glass';
import type { OutwardWindow } from '../api/types';

/** Returns a window as rehearsals need it. */
export function rehearsed(window: OutwardWindow): RehearsedWindow & { keys: OutwardWindow['keys'] } {
  const { id, listed, keys, closedAt } = window;
  return { id, rules: window, listed, closed: closedAt !== null, keys };
}

/** Returns a window as sightlines need it. */
export function sighted(window: OutwardWindow): SightedWindow {
  return {
    ...rehearsed(window),
    keys: window.keys.map(({ id, madeOutTo, audience, cap, fetchedAt, madeAt }) => ({
      id,
      madeOutTo,
      audience,
      cap,
      fetchedAt: fetchedAt ? Date.parse(fetchedAt) : null,
      madeAt: Date.parse(madeAt),
    })),
  };
}
