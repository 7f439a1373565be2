/** Returns a function that gives the same numbers from 0 to below 1 for the same seed. */
export function randomFrom(seed: number): () => number {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let t = state;
    t = Math.imul(t ^ (t >>> 15), t | 1);
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

/** Returns one of several things. */
export function pick<T>(random: () => number, things: readonly T[]): T {
  return things[Math.floor(random() * things.length)]!;
}
