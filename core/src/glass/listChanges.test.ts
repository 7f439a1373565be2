import fc from 'fast-check';
import { expect, it } from 'vitest';
import { listChanges } from './listChanges';

it('leads from one list to the other, or says that it does not know', () => {
  const things = Array.from({ length: 400 }, (_, n) => ({ n }));
  const edit = fc.record({
    at: fc.nat(399),
    kind: fc.constantFrom('drop', 'new', 'replace', 'move'),
    to: fc.nat(399),
  });
  let known = 0;
  fc.assert(
    fc.property(fc.array(edit, { maxLength: 40 }), (edits) => {
      const after = [...things];
      for (const { at, kind, to } of edits) {
        const [one] = kind === 'new' ? [] : after.splice(at, 1);
        if (kind === 'new' || kind === 'replace') after.splice(at, 0, { n: -1 });
        if (kind === 'move' && one) after.splice(to, 0, one);
      }
      const changes = listChanges(things, after);
      if (!changes) return;
      known++;
      const left = new Set<object>(things);
      for (const one of changes.gone) expect(left.delete(one)).toBe(true);
      for (const one of changes.come) left.add(one);
      expect(left).toEqual(new Set(after));
      expect(left.size).toBe(after.length);
    }),
  );
  expect(known).toBeGreaterThan(50);
  expect(listChanges(things, [...things].reverse())).toBeNull();
  expect(listChanges([], things)).toBeNull();
});
