/**
 * Returns how long one piece of work takes for each millisecond of another, and the medians of both: they are done in
 * turn, so that a machine that is now faster, now slower, is so for both.
 */
export function medianRatio(
  work: () => void,
  other: () => void,
  runs = 9,
): { ratio: number; ms: number; otherMs: number } {
  const pairs = Array.from({ length: runs + 2 }, () => [timed(work), timed(other)] as const).slice(2);
  return {
    ratio: median(pairs.map(([a, b]) => a / b)),
    ms: median(pairs.map(([a]) => a)),
    otherMs: median(pairs.map(([, b]) => b)),
  };
}

function timed(work: () => void): number {
  const start = performance.now();
  work();
  return performance.now() - start;
}

function median(of: readonly number[]): number {
  return [...of].sort((a, b) => a - b)[Math.floor(of.length / 2)]!;
}

/** Returns the median of the milliseconds that a piece of work takes, after two runs that do not count. */
export function medianTime(work: () => void, runs = 7): number {
  work();
  work();
  return median(Array.from({ length: runs }, () => timed(work)));
}
