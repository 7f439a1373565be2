/** What was worked out, and as of which moment it is true. */
export interface Answered<T> {
  readonly at: number;
  readonly value: T;
}

/** An answer is fresh for so many milliseconds, or ten times as long as it took. */
const FRESH = 3_000;
/** Who asks waits for a fresh one where the last took no longer than this; else they get the last one meanwhile. */
const WAITED_FOR = 1_000;

/**
 * Returns what works an answer out once for all who ask at about the same time. One that takes long is given as it was last,
 * with its moment, while the next one is worked out.
 */
export function lastingAnswer<T>(
  work: (at: number) => Promise<T>,
  clock: () => number = Date.now,
): () => Promise<Answered<T>> {
  let last: (Answered<T> & { readonly took: number; readonly until: number }) | null = null;
  let next: Promise<Answered<T>> | null = null;
  const begin = () => {
    const at = clock();
    next = work(at)
      .then((value) => {
        const took = clock() - at;
        return (last = { at, value, took, until: clock() + Math.max(FRESH, 10 * took) });
      })
      .finally(() => (next = null));
    return next;
  };
  return () => {
    if (last && clock() < last.until) return Promise.resolve(last);
    const coming = next ?? begin();
    if (!last || last.took <= WAITED_FOR) return coming;
    coming.catch(() => undefined);
    return Promise.resolve(last);
  };
}
