import fc from 'fast-check';
import { expect, it } from 'vitest';
import { outwardView } from '../glass';
import { RANGE as GENERATED, entryArbitrary, rulesArbitrary } from '../testing/arbitraries';
import { STREET, entry, rulesOf, zoned } from '../testing/samples';
import { nextRevision } from './revision';

const RANGE = { from: Date.UTC(2026, 0, 1), to: Date.UTC(2027, 0, 1) };
const viewOf = (entries: Parameters<typeof outwardView>[0], range = RANGE) =>
  outwardView(entries, rulesOf('tinted'), range, STREET);

it('is the same object while nothing that a reader sees has changed', () => {
  const a = entry({ start: zoned('2026-06-01T10:00') });
  const first = nextRevision(null, viewOf([a]), 1_000_400);
  expect(first).toMatchObject({ number: 1, at: 1_000_000 });
  expect(nextRevision(first, viewOf([{ ...a, description: 'hidden', version: 2 }]), 2_000_000)).toBe(first);
  expect(nextRevision(first, viewOf([a], { ...RANGE, to: RANGE.to + 1 }), 2_000_000)).toBe(first);
});

it('counts changes by item, and leaves the stamps of the others alone', () => {
  const a = entry({ id: 'a', start: zoned('2026-06-01T10:00') });
  const b = entry({ id: 'b', start: zoned('2026-06-02T10:00') });
  const first = nextRevision(null, viewOf([a, b]), 1_000_000);
  const view = viewOf([a, { ...b, title: 'Other' }]);
  const second = nextRevision(first, view, 5_000_000);
  const [uidA, uidB] = view.items.map((i) => i.uid) as [string, string];
  expect(second.number).toBe(2);
  expect(second.stamps[uidA]).toBe(first.stamps[uidA]);
  expect(second.stamps[uidB]).toMatchObject({ sequence: 1, at: 5_000_000 });
  const gone = nextRevision(second, viewOf([a]), 9_000_000);
  expect(Object.keys(gone.stamps)).toEqual([uidA]);
  expect(gone.number).toBe(3);
});

it('is the same for the same view worked out anew, and another one exactly when an item or its number differs', () => {
  fc.assert(
    fc.property(fc.array(entryArbitrary, { maxLength: 5 }), rulesArbitrary, (entries, rules) => {
      const view = outwardView(entries, rules, GENERATED, STREET);
      const first = nextRevision(null, view, 1_000_000);
      expect(Object.keys(first.stamps)).toHaveLength(view.items.length);
      expect(nextRevision(first, outwardView(entries, rules, GENERATED, STREET), 2_000_000)).toBe(first);
      if (!view.items.length) return;
      const fewer = nextRevision(first, { ...view, items: view.items.slice(1) }, 2_000_000);
      expect(fewer.number).toBe(2);
      expect(nextRevision(fewer, view, 3_000_000).number).toBe(3);
      const renamed = { ...view, wording: { ...view.wording, name: `${view.wording.name}!` } };
      expect(nextRevision(first, renamed, 2_000_000)).toMatchObject({ number: 2, stamps: first.stamps });
    }),
    { numRuns: 500, seed: 7 },
  );
});
