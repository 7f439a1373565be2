/** Returns a list in parts, each under what its members have in common; all keep their order. */
export function groupedBy<T, K>(list: readonly T[], keyOf: (one: T) => K): Map<K, T[]> {
  const out = new Map<K, T[]>();
  for (const one of list) {
    const key = keyOf(one);
    const own = out.get(key);
    if (own) own.push(one);
    else out.set(key, [one]);
  }
  return out;
}
