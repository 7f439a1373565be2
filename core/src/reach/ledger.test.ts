import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { differenceOf, outwardView, type OutwardView } from '../glass';
import { RANGE, entryArbitrary, rulesArbitrary } from '../testing/arbitraries';
import { STREET, entry, rulesOf, zoned } from '../testing/samples';
import { ledgerStep, nextRevision, viewAfter, type LedgerStep, type Revision } from '.';

/** The steps that a history of views writes, as they are kept. */
function written(views: readonly OutwardView[]): { steps: LedgerStep[]; shown: OutwardView[] } {
  const steps: LedgerStep[] = [];
  const shown: OutwardView[] = [];
  let last: { readonly revision: Revision; readonly view: OutwardView } | undefined;
  views.forEach((view, i) => {
    const revision = nextRevision(last?.revision ?? null, view, i * 60_000);
    if (revision === last?.revision) return;
    const before = last && {
      revision: last.revision,
      wording: last.view.wording,
      hostZone: last.view.hostZone,
    };
    steps.push(JSON.parse(JSON.stringify(ledgerStep(before ?? null, revision, view))) as LedgerStep);
    shown.push(view);
    last = { revision, view };
  });
  return { steps, shown };
}

it('the same wording and times make no new revision, in whatever order their parts are stored', () => {
  const rules = rulesOf('clear');
  const turned = (o: object) => Object.fromEntries(Object.entries(o).reverse());
  const wording = turned(rules.wording) as unknown as typeof rules.wording;
  const one = [entry({ start: zoned('2026-06-12T10:00') })];
  const first = nextRevision(null, outwardView(one, rules, RANGE, STREET), 0);
  expect(nextRevision(first, outwardView(one, { ...rules, wording }, RANGE, STREET), 9)).toBe(first);
  const previous = { revision: first, wording, hostZone: rules.hostZone };
  expect(ledgerStep(previous, first, outwardView(one, rules, RANGE, STREET)).wording).toBeUndefined();
  const start = turned(one[0]!.start) as unknown as (typeof one)[0]['start'];
  const other = outwardView([{ ...one[0]!, start }], rules, RANGE, STREET);
  expect(differenceOf(outwardView(one, rules, RANGE, STREET), other).items).toEqual([]);
});

describe('the ledger', () => {
  it('gives back every revision as readers saw it, from differences alone', () => {
    fc.assert(
      fc.property(
        fc.array(fc.array(entryArbitrary, { maxLength: 4 }), { minLength: 1, maxLength: 5 }),
        rulesArbitrary,
        rulesArbitrary,
        (states, first, second) => {
          const views = states.map((entries, i) =>
            outwardView(entries, i % 3 ? second : first, RANGE, STREET),
          );
          const { steps, shown } = written(views);
          for (const [i, view] of shown.entries())
            expect(viewAfter(steps.slice(0, i + 1))).toEqual(JSON.parse(JSON.stringify(view)));
        },
      ),
      { numRuns: 400, seed: 5 },
    );
  });

  it('keeps of an edit only what it changed', () => {
    const many = Array.from({ length: 500 }, (_, i) =>
      entry({ id: `e${i}`, start: zoned(`2026-06-${String(1 + (i % 28)).padStart(2, '0')}T10:00`) }),
    );
    const view = (entries: typeof many) => outwardView(entries, rulesOf('clear'), RANGE, STREET);
    const changed = many.with(250, { ...many[250]!, title: 'Changed' });
    const { steps } = written([view(many), view(changed), view(changed.slice(1))]);
    expect(steps.map((s) => [s.set.length, s.gone.length])).toEqual([
      [500, 0],
      [1, 0],
      [0, 1],
    ]);
    const size = (s: LedgerStep) => JSON.stringify(s).length;
    expect(size(steps[1]!)).toBeLessThan(size(steps[0]!) / 200);
  });
});
