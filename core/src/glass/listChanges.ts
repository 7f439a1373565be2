/** What left a list and what came to it. What moved has done both. */
export interface ListChanges<T> {
  readonly gone: readonly T[];
  readonly come: readonly T[];
}

/** So far ahead one list is looked at for where it goes on like the other. */
const AHEAD = 16;
/** With more changes than this a list is rather taken as a new one. */
const MOST = 256;

/** Returns how a list of objects differs from another one that is much the same, or null where it is not. */
export function listChanges<T extends object>(
  before: readonly T[],
  after: readonly T[],
): ListChanges<T> | null {
  const gone: T[] = [];
  const come: T[] = [];
  let [i, j] = [0, 0];
  while (i < before.length && j < after.length) {
    if (before[i] === after[j]) {
      i++;
      j++;
      continue;
    }
    const step = stepsToAlike(before, after, i, j);
    if (!step || gone.length + come.length > MOST) return null;
    for (; step.old > 0; step.old--) gone.push(before[i++]!);
    for (; step.fresh > 0; step.fresh--) come.push(after[j++]!);
  }
  if (before.length - i + after.length - j > MOST) return null;
  while (i < before.length) gone.push(before[i++]!);
  while (j < after.length) come.push(after[j++]!);
  return { gone, come };
}

/** How many objects of each list stand before those from which on they are alike again. */
function stepsToAlike<T>(
  before: readonly T[],
  after: readonly T[],
  i: number,
  j: number,
): { old: number; fresh: number } | null {
  for (let sum = 1; sum <= AHEAD; sum++)
    for (let old = 0; old <= sum; old++) {
      const fresh = sum - old;
      if (i + old < before.length && j + fresh < after.length && before[i + old] === after[j + fresh])
        return { old, fresh };
    }
  // At the end nothing follows that could be alike.
  const [old, fresh] = [before.length - i, after.length - j];
  return old + fresh <= AHEAD ? { old, fresh } : null;
}
