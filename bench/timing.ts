/** Returns the median of the milliseconds that a piece of work takes, after two runs that do not count. */
export function medianTime(work: () => void, runs = 7): number {
  work();
  work();
  const times = Array.from({ length: runs }, () => {
    const start = performance.now();
    work();
    return performance.now() - start;
  });
  return times.sort((a, b) => a - b)[Math.floor(runs / 2)]!;
}
