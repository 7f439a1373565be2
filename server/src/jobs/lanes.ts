/**
 * Counts what is under way by name, so that one slow neighbour keeps no more than its share of the workers busy. Counts are of
 * this process alone.
 */
export class Lanes {
  private readonly busy = new Map<string, number>();

  /** `limits` says how many may be under way at once for each kind of name. */
  constructor(private readonly limits: Readonly<Record<string, number>>) {}

  /** Returns what ends the use of a lane for each name, or null if one of them has as many under way as it may. */
  enter(names: Readonly<Record<string, string>>): (() => void) | null {
    const keys = Object.entries(names).map(([kind, name]) => [kind, `${kind} ${name}`] as const);
    if (keys.some(([kind, key]) => (this.busy.get(key) ?? 0) >= (this.limits[kind] ?? Infinity))) return null;
    for (const [, key] of keys) this.busy.set(key, (this.busy.get(key) ?? 0) + 1);
    return () => {
      for (const [, key] of keys) {
        const left = this.busy.get(key)! - 1;
        if (left) this.busy.set(key, left);
        else this.busy.delete(key);
      }
    };
  }
}
