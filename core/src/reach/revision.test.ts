import { expect, it } from 'vitest';
import { outwardView } from '../glass';
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
