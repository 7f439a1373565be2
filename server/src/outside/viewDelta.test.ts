import type { Entry } from '@zonal/core/entries';
import { emptyMemo, outwardView } from '@zonal/core/glass';
import { nextRevision } from '@zonal/core/reach';
import { RANGE, entryArbitrary } from '@zonal/core/testing/arbitraries';
import { STREET, entry, rulesOf, zoned } from '@zonal/core/testing/samples';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { applyDelta, deltaBetween, type RenderedView } from './viewDelta';

const rules = rulesOf('tinted');
const memo = emptyMemo();

function stateOf(entries: readonly Entry[], before: RenderedView | null, at: number): RenderedView {
  const view = outwardView(entries, rules, RANGE, STREET, memo);
  return { view, revision: nextRevision(before?.revision ?? null, view, at) };
}

describe('a view in another thread', () => {
  it('equals the one that was sent, over any history', () => {
    const entries = fc.uniqueArray(entryArbitrary, { selector: (e) => e.id, maxLength: 8 });
    const steps = fc.array(fc.array(fc.boolean(), { minLength: 8, maxLength: 8 }), { maxLength: 6 });
    fc.assert(
      fc.property(entries, steps, (all, shown) => {
        let state: RenderedView | null = null;
        let copy: RenderedView | null = null;
        for (const [n, shows] of [[], ...shown].entries()) {
          const next: RenderedView = stateOf(
            all.filter((_, i) => shows[i] ?? true),
            state,
            RANGE.from + n * 1000,
          );
          const { delta, items } = structuredClone(deltaBetween(state, next));
          copy = applyDelta(copy, delta, items);
          state = next;
          expect(copy).toEqual(state);
          expect(Object.keys(copy.revision.stamps).sort()).toEqual(Object.keys(state.revision.stamps).sort());
        }
      }),
      { numRuns: 150 },
    );
  });

  it('is sent only what changed', () => {
    const all = Array.from({ length: 40 }, (_, n) =>
      entry({ id: `entry-${n}`, start: zoned(`2026-06-${String(1 + (n % 28)).padStart(2, '0')}T10:00`) }),
    );
    const before = stateOf(all, null, RANGE.from);
    expect(deltaBetween(null, before).items).toHaveLength(40);
    const edited = stateOf(all.with(7, { ...all[7]!, title: 'Drill' }), before, RANGE.from + 1000);
    const { items } = deltaBetween(before, edited);
    expect(items.map(({ item }) => (item.kind === 'busy' ? null : item.content.title))).toEqual(['Drill']);
    expect(deltaBetween(edited, edited).items).toEqual([]);
  });
});
