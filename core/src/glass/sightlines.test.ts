import { describe, expect, it } from 'vitest';
import { entry, rulesOf, source, zoned } from '../testing/samples';
import {
  AUDIENCES,
  GLASSES,
  NOTHING_WATCHED,
  limitsFor,
  effectiveGlass,
  sightlines,
  whoSees,
  type SightedWindow,
  type WindowRules,
} from '.';

const NOW = Date.UTC(2026, 5, 10);
const DAYS = 86_400_000;
const NOBODY = NOTHING_WATCHED;
const key = (id: string, audience: 'street' | 'partners', parts = {}) => ({
  id,
  madeOutTo: id,
  audience,
  cap: null,
  fetchedAt: NOW - DAYS,
  madeAt: NOW - 90 * DAYS,
  expiresAt: null,
  ...parts,
});
const window = (id: string, rules: WindowRules, keys: SightedWindow['keys']): SightedWindow => ({
  id,
  rules,
  keys,
  closed: false,
});
const one = entry({
  start: zoned('2026-06-12T10:00'),
  title: 'Call ann@ostrel.example',
  description: 'Inside',
});

describe('sightlines', () => {
  it('show the clearest glass of each cell, with every way and its reasons', () => {
    const ceilings = { house: { street: 'tinted' as const }, calendars: {} };
    const windows = [
      window('w1', rulesOf('clear', { ceilings }), [key('town', 'street'), key('agents', 'partners')]),
      window('w2', rulesOf('frosted', { ceilings }), [key('paper', 'street')]),
    ];
    const [row] = sightlines(['a'], windows, () => [], NOW, NOBODY);
    const cell = (audience: string) => row!.cells.find((c) => c.audience === audience)!;
    expect(row!.cells.map((c) => c.audience)).toEqual(AUDIENCES);
    expect(cell('street').glass).toBe('tinted');
    expect(cell('street').paths.map((p) => [p.madeOutTo, p.glass])).toEqual([
      ['town', 'tinted'],
      ['paper', 'frosted'],
    ]);
    expect(cell('street').paths[0]!.reasons.find((r) => r.decides)!.by).toBe('house-ceiling');
    expect(cell('partners').glass).toBe('clear');
    expect(cell('crew')).toMatchObject({ glass: 'shut', paths: [] });
    // Each cell is the clearest of what its keys get.
    for (const c of row!.cells)
      for (const p of c.paths)
        expect(GLASSES.indexOf(c.glass)).toBeGreaterThanOrEqual(GLASSES.indexOf(p.glass));
  });

  it('mark what is clearer than usual, sensitive, not polled, or ending soon', () => {
    const fixed = { kind: 'fixed', from: '2026-06-01', to: '2026-06-20' } as const;
    const windows = [
      window('w1', rulesOf('frosted'), [key('a', 'partners'), key('b', 'partners')]),
      window('w2', rulesOf('tinted', { horizon: fixed }), [
        key('c', 'street', { fetchedAt: NOW - 61 * DAYS }),
      ]),
    ];
    const [row] = sightlines(['a'], windows, () => [one], NOW, NOBODY);
    expect(row!.usual).toBe('frosted');
    const cells = Object.fromEntries(row!.cells.map((c) => [c.audience, c.marks]));
    expect(cells['street']).toEqual(['clearer-than-usual', 'sensitive', 'not-polled', 'ends-soon']);
    expect(cells['partners']).toEqual([]);
    const fresh = [
      window('w', rulesOf('frosted'), [key('n', 'street', { fetchedAt: null, madeAt: NOW - DAYS })]),
    ];
    expect(sightlines(['a'], fresh, () => [], NOW, NOBODY)[0]!.cells[3]!.marks).toEqual([]);
  });

  it('mark a key that ends soon, and leave one out that has ended', () => {
    const marks = (expiresAt: number) =>
      sightlines(
        ['a'],
        [window('w', rulesOf('frosted'), [key('k', 'street', { expiresAt })])],
        () => [],
        NOW,
        NOBODY,
      )[0]!.cells[3]!;
    expect(marks(NOW + 29 * DAYS).marks).toEqual(['ends-soon']);
    expect(marks(NOW + 31 * DAYS).marks).toEqual([]);
    expect(marks(NOW)).toMatchObject({ glass: 'shut', paths: [] });
    const ended = [window('w', rulesOf('tinted'), [key('k', 'street', { expiresAt: NOW })])];
    expect(whoSees(one, ended, NOW)[0]).toMatchObject({ sight: 'ended', items: [] });
  });

  it('leave closed windows out', () => {
    const closed = { ...window('w', rulesOf('clear'), [key('a', 'street')]), closed: true };
    expect(sightlines(['a'], [closed], () => [one], NOW, NOBODY)[0]!.cells[3]!.paths).toEqual([]);
  });
});

describe('who can see an entry', () => {
  const keys = [key('town', 'street'), key('agents', 'partners', { cap: 'frosted' })];
  const sights = (rules: WindowRules, parts: Partial<typeof one> = {}, closed = false) =>
    whoSees({ ...one, ...parts }, [{ ...window('w', rules, keys), closed }], NOW);

  it('is answered for every key with exactly what goes out', () => {
    const [street, partners] = sights(rulesOf('tinted'));
    expect(street).toMatchObject({ sight: 'seen', glass: 'tinted' });
    expect(JSON.stringify(street!.items)).not.toContain('Inside');
    expect(street!.fields).not.toContain('description');
    expect(partners).toMatchObject({ sight: 'seen', glass: 'frosted', fields: [] });
    expect(partners!.items[0]!.kind).toBe('busy');
    expect(partners!.reasons.find((r) => r.decides)!.by).toBe('key');
  });

  it('says why nothing is seen', () => {
    expect(sights(rulesOf('tinted'), { hold: 'keep-in' })[0]!.sight).toBe('held-back');
    expect(sights(rulesOf('tinted', { filter: { field: 'label', value: 'x' } }))[0]!.sight).toBe(
      'filtered-out',
    );
    expect(
      sights(rulesOf('tinted'), { start: zoned('2031-06-12T10:00'), end: zoned('2031-06-12T11:00') })[0]!
        .sight,
    ).toBe('outside-horizon');
    expect(sights(rulesOf('tinted'), {}, true)[0]!.sight).toBe('closed');
    expect(sights(rulesOf('shut', { sources: [source('b', 'clear')] }))).toEqual([]);
  });

  it('agrees with the effective glass', () => {
    for (const glass of GLASSES)
      for (const path of sights(rulesOf(glass))) {
        const { audience } = path;
        const { cap } = keys.find((k) => k.id === path.keyId)!;
        expect(path.glass).toBe(effectiveGlass(limitsFor(one, rulesOf(glass), { audience, cap })).glass);
      }
  });
});
