import fc from 'fast-check';
import { expect, it } from 'vitest';
import { entryArbitrary } from '../testing/arbitraries';
import { HOST, entry, zoned } from '../testing/samples';
import { cutSeries } from './editSeries';
import type { Entry } from './entry';
import { continuedLineages, lineageOf } from './lineage';
import { slotsOf } from './occurrences';
import { whenLike } from './when';

const isHeld = ({ hold }: Entry) => hold !== 'none';

const weekly = entry({
  id: 'weekly',
  start: zoned('2026-06-01T10:00'),
  recurrence: { rule: 'FREQ=WEEKLY', dates: [], exceptDates: [] },
});

it('a series that is cut is one lineage, whatever is said of its later part', () => {
  const { before, from } = cutSeries(weekly, zoned('2026-06-15T10:00'));
  const later = { ...from, id: 'later', description: 'Told inside only' };
  const steps = [
    { before: weekly, after: before },
    { before: null, after: later },
  ];
  expect(continuedLineages(steps, HOST, isHeld)).toEqual(new Map([['later', 'weekly']]));
});

it('what is deleted and written anew in one edit is of one lineage, also after it was cut before', () => {
  const old = { ...weekly, id: 'piece', lineage: 'weekly' };
  const steps = [
    { before: old, after: null },
    { before: null, after: { ...weekly, id: 'anew' } },
  ];
  expect(continuedLineages(steps, HOST, isHeld).get('anew')).toBe('weekly');
});

it('of several at one time those with the same times find each other, whatever they say', () => {
  const at = { start: zoned('2026-06-12T10:00') };
  const long = { ...at, end: zoned('2026-06-12T14:00') };
  const found = (...titles: readonly string[]) => {
    const [a, b, c, d] = titles;
    const steps = [
      { before: entry({ id: 'a', title: a!, ...at }), after: null },
      { before: entry({ id: 'b', title: b!, ...long }), after: null },
      { before: null, after: entry({ id: 'c', title: c!, ...long }) },
      { before: null, after: entry({ id: 'd', title: d!, ...at }) },
    ];
    return continuedLineages(steps, HOST, isHeld);
  };
  const expected = new Map([
    ['c', 'b'],
    ['d', 'a'],
  ]);
  for (const titles of [
    ['Lock', 'Quay', 'Quay', 'Lock'],
    ['Lock', 'Quay', 'Lock', 'Quay'],
    ['Lock', 'Lock', 'Lock', 'Lock'],
  ])
    expect(found(...titles)).toEqual(expected);
});

it('what readers may not see passes no identity on, and keeps no other entry from passing on its own', () => {
  const at = { start: zoned('2026-06-12T10:00') };
  const shown = entry({ id: 'shown', ...at });
  const fresh = { before: null, after: entry({ id: 'fresh', ...at }) };
  for (const hold of ['keep-in', 'frost'] as const) {
    const held = { before: entry({ id: 'held', hold, ...at }), after: null };
    expect(continuedLineages([held, fresh], HOST, isHeld).size).toBe(0);
    expect(continuedLineages([held, { before: shown, after: null }, fresh], HOST, isHeld)).toEqual(
      new Map([['fresh', 'shown']]),
    );
  }
});

it('what stays as it was, stands elsewhere, or is of another calendar is not continued', () => {
  const old = entry({ id: 'old', start: zoned('2026-06-12T10:00') });
  const fresh = entry({ id: 'fresh', start: zoned('2026-06-12T10:00') });
  const of = (before: typeof old, after: typeof old | null, next: typeof old) =>
    continuedLineages(
      [
        { before, after },
        { before: null, after: next },
      ],
      HOST,
      isHeld,
    ).size;
  expect(of(old, null, fresh)).toBe(1);
  expect(of(old, { ...old, title: 'Other' }, fresh)).toBe(0);
  expect(of(old, null, { ...fresh, start: zoned('2026-06-12T11:00') })).toBe(0);
  expect(of(old, null, { ...fresh, calendarId: 'b' })).toBe(0);
});

it('a cut anywhere is found in generated series', () => {
  fc.assert(
    fc.property(entryArbitrary, fc.nat(40), (e, at) => {
      fc.pre(e.recurrence !== null);
      const slots = slotsOf(e, { from: 0, to: Date.UTC(2027, 0, 1) }, HOST);
      fc.pre(slots.length > 1);
      const { before, from } = cutSeries(e, whenLike(e.start, slots[at % slots.length]!));
      fc.pre(before !== null);
      const later = { ...from, id: 'later' };
      const found = continuedLineages(
        [
          { before: e, after: before },
          { before: null, after: later },
        ],
        HOST,
        () => false,
      );
      expect(found.get('later')).toBe(lineageOf(e));
    }),
    { numRuns: 300 },
  );
});
