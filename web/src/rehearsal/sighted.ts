import { keyState, type RehearsedWindow, type SightedWindow } from '@zonal/core/glass';
import type { OutwardWindow } from '@zonal/core/api';

/** Returns a window as rehearsals need it: with the keys that have not ended. */
export function rehearsed(
  window: OutwardWindow,
  now: number,
): RehearsedWindow & { keys: OutwardWindow['keys'] } {
  const { id, listed, closedAt } = window;
  const keys = window.keys.filter((k) => keyState(k, now) !== 'ended');
  return { id, rules: window, listed, closed: closedAt !== null, keys };
}

/** Returns a window as sightlines need it. */
export function sighted(window: OutwardWindow): SightedWindow {
  const { id, listed, closedAt } = window;
  return {
    id,
    rules: window,
    listed,
    closed: closedAt !== null,
    keys: window.keys.map(({ id, madeOutTo, audience, cap, fetchedAt, madeAt, expiresAt }) => ({
      id,
      madeOutTo,
      audience,
      cap,
      fetchedAt: fetchedAt ? Date.parse(fetchedAt) : null,
      madeAt: Date.parse(madeAt),
      expiresAt: expiresAt ? Date.parse(expiresAt) : null,
    })),
  };
}
