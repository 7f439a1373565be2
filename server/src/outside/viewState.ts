import { emptyMemo, type TellingMemo, type WindowRules } from '@zonal/core/glass';
import type { Range } from '@zonal/core/entries';
import type { Instant } from '@zonal/core/zones';
import type { RenderedView } from './viewDelta';

/** A view as it is in memory: what it shows, and what makes it quick to work out and to write again. */
export interface State extends RenderedView {
  readonly memo: {
    readonly rules: WindowRules;
    readonly from: Instant;
    readonly telling: TellingMemo;
  } | null;
}

/** Bytes that an item takes in memory, more or less: itself, its texts, its stamp, and what it was computed from. */
const WEIGHT = 3_000;

/** Returns how many bytes a view takes in memory, more or less. */
export function weightOf({ view }: State): number {
  return (view.items.length + 5) * WEIGHT;
}

/** Returns what was worked out before of entries under the same rules in the same range, or an empty memo. */
export function memoOf(state: State | null | undefined, rules: WindowRules, { from }: Range): TellingMemo {
  const memo = state?.memo;
  return memo?.rules === rules && memo.from === from ? memo.telling : emptyMemo();
}
