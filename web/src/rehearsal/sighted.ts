import type { SightedWindow } from '@zonal/core/glass';
import type { OutwardWindow } from '@zonal/core/api';

/** Returns a window as sightlines need it. */
export function sighted(window: OutwardWindow): SightedWindow {
  const { id, closedAt } = window;
  return {
    id,
    rules: window,
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
