import { useSyncExternalStore } from 'react';

let now = Date.now();

function subscribe(tell: () => void): () => void {
  const timer = setInterval(() => {
    now = Date.now();
    tell();
  }, 30_000);
  return () => clearInterval(timer);
}

/** Returns the present instant in milliseconds; it moves on twice a minute. */
export function useNow(): number {
  return useSyncExternalStore(subscribe, () => now);
}
