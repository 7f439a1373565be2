import { emptyMemo, type OutwardView, type TellingMemo, type WindowRules } from '@zonal/core/glass';
import type { Range } from '@zonal/core/entries';
import type { Revision } from '@zonal/core/reach';
import type { Instant } from '@zonal/core/zones';
import { LRUCache } from 'lru-cache';
import type { BodyWriter } from './writing';

/** A view as it is in memory: what it shows, and what makes it quick to work out and to write again. */
export interface State {
  readonly view: OutwardView;
  readonly revision: Revision;
  readonly memo: {
    readonly rules: WindowRules;
    readonly from: Instant;
    readonly telling: TellingMemo;
  } | null;
  readonly bodies: Bodies;
}

/** What writes the bodies of documents, by form, and by address where each has a body of its own. */
export type Bodies = LRUCache<string, BodyWriter>;

/** As many are kept as a view has forms that are alike for all, and a few of single addresses. */
const MOST_BODIES = 6;

export function noBodies(): Bodies {
  return new LRUCache({ max: MOST_BODIES });
}

/**
 * Bytes that an item takes in memory, more or less: itself, its texts, its stamp, what it was worked out from, and its part
 * of bodies.
 */
const WEIGHT = 4_500;

/** Returns how many bytes a view takes in memory, more or less. */
export function weightOf({ view }: State): number {
  return (view.items.length + 5) * WEIGHT;
}

/** Returns what was worked out before of entries under the same rules in the same range, or an empty memo. */
export function memoOf(state: State | null | undefined, rules: WindowRules, { from }: Range): TellingMemo {
  const memo = state?.memo;
  return memo?.rules === rules && memo.from === from ? memo.telling : emptyMemo();
}
