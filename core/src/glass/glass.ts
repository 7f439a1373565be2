/** How much can be seen through, from nothing to everything that may go out. The order is that of clearness. */
export const GLASSES = ['shut', 'frosted', 'tinted', 'clear'] as const;
export type Glass = (typeof GLASSES)[number];

/** What somebody can be given to look through: through shut glass nobody sees anything. */
export const READ_THROUGH = GLASSES.filter((g) => g !== 'shut');

/** Audience rings, from inside out. */
export const AUDIENCES = ['crew', 'house', 'partners', 'street'] as const;
export type Audience = (typeof AUDIENCES)[number];

/** Zones of outsiders. A key for one of the others is a colleague's own. */
export const OUTSIDERS = ['partners', 'street'] as const satisfies readonly Audience[];

/** Who or what can set a limit to the glass, in the order in which reasons are told. */
export const LIMITERS = ['house-ceiling', 'calendar-ceiling', 'window', 'key', 'label', 'hold'] as const;
export type Limiter = (typeof LIMITERS)[number];

export interface Limit {
  readonly by: Limiter;
  readonly glass: Glass;
  /** The label that holds the entry back, where that is the limit. */
  readonly label?: string;
}

/** A limit and whether it is (one of) the least, the one that decides. */
export interface Reason extends Limit {
  readonly decides: boolean;
}

/** The glass that results from all limits together, and why. */
export interface EffectiveGlass {
  readonly glass: Glass;
  readonly reasons: readonly Reason[];
}

/** Returns the least of all limits with the chain of reasons; no limit at all gives `shut`. */
export function effectiveGlass(limits: readonly Limit[]): EffectiveGlass {
  const glass = limits.length ? limits.reduce<Glass>((least, l) => lesser(least, l.glass), 'clear') : 'shut';
  const ordered = [...limits].sort((a, b) => LIMITERS.indexOf(a.by) - LIMITERS.indexOf(b.by));
  return { glass, reasons: ordered.map((l) => ({ ...l, decides: l.glass === glass })) };
}

/** Returns the less clear of two. */
export function lesser(a: Glass, b: Glass): Glass {
  return GLASSES.indexOf(a) <= GLASSES.indexOf(b) ? a : b;
}

/** Returns whether `a` is at least as clear as `b`. */
export function atLeast(a: Glass, b: Glass): boolean {
  return GLASSES.indexOf(a) >= GLASSES.indexOf(b);
}
