import { describe, expect, it } from 'vitest';
import { entry, rulesOf, source, zoned } from '../testing/samples';
import {
  AUDIENCES,
  CUT_FIELDS,
  GLASSES,
  SOURCE_GLASSES,
  effectiveGlass,
  fieldsOfSource,
  fieldsThroughCut,
  limitsFor,
  outwardView,
  type CutField,
  type Glass,
  type SourceGlass,
} from '.';

const RANGE = { from: Date.UTC(2026, 5, 1), to: Date.UTC(2026, 6, 1) };
const HOLDS = { none: 'clear', frost: 'frosted', 'keep-in': 'shut' } as const;
const NO_OR = [null, ...GLASSES] as const;
const rank = (g: Glass) => GLASSES.indexOf(g);

describe('the effective glass, for every audience, ceiling, glass, cap and hold', () => {
  it('is the least of all limits, and the reasons name those that decide', () => {
    let cases = 0;
    for (const audience of AUDIENCES)
      for (const house of NO_OR)
        for (const own of NO_OR)
          for (const glass of SOURCE_GLASSES)
            for (const cap of NO_OR)
              for (const label of [null, 'frost', 'keep-in'] as const)
                for (const hold of ['none', 'frost', 'keep-in'] as const) {
                  cases++;
                  const window: Glass = glass === 'cut' ? 'tinted' : glass;
                  const limits: Glass[] = [
                    window,
                    house ?? 'clear',
                    own ?? 'clear',
                    cap ?? 'clear',
                    label ? HOLDS[label] : 'clear',
                    HOLDS[hold],
                  ];
                  const expected = limits.reduce((a, b) => (rank(a) <= rank(b) ? a : b));
                  const rules = rulesOf('shut', {
                    sources: [source('a', glass, ['title', 'place'])],
                    labelHolds: label ? [{ label: 'Inner', hold: label }] : [],
                    ceilings: {
                      house: house ? { [audience]: house } : {},
                      calendars: own ? { a: { [audience]: own } } : {},
                    },
                  });
                  const told = effectiveGlass(
                    limitsFor({ calendarId: 'a', hold, labels: ['inner'] }, rules, { audience, cap }),
                  );
                  expect(told.glass).toBe(expected);
                  expect(told.reasons.every((r) => r.decides === (r.glass === expected))).toBe(true);
                  expect(told.reasons.map((r) => r.by)).toEqual([
                    ...(house ? ['house-ceiling'] : []),
                    ...(own ? ['calendar-ceiling'] : []),
                    'window',
                    ...(cap ? ['key'] : []),
                    ...(label ? ['label'] : []),
                    ...(hold === 'none' ? [] : ['hold']),
                  ]);
                }
    expect(cases).toBe(4 * 5 * 5 * 5 * 5 * 3 * 3);
  });

  it('knows no ceiling of another audience or another calendar', () => {
    const rules = rulesOf('clear', {
      ceilings: { house: { street: 'frosted' }, calendars: { b: { partners: 'shut' } } },
    });
    const glassFor = (audience: 'street' | 'partners') =>
      effectiveGlass(limitsFor({ calendarId: 'a', hold: 'none', labels: [] }, rules, { audience, cap: null }))
        .glass;
    expect(glassFor('street')).toBe('frosted');
    expect(glassFor('partners')).toBe('clear');
  });
});

describe('cut glass', () => {
  const one = entry({
    start: zoned('2026-06-12T10:00'),
    place: 'Quay',
    description: 'Inside talk',
    labels: ['works'],
    people: [{ name: 'Ann', address: '' }],
    status: 'cancelled',
  });
  const shown = (glass: SourceGlass, fields: CutField[], parts = {}) => {
    const rules = rulesOf('shut', { sources: [source('a', glass, fields)], ...parts });
    const item = outwardView([one], rules, RANGE, { audience: 'street', cap: null }).items[0];
    return item && item.kind !== 'busy' ? item.content : null;
  };

  it('lets exactly the picked fields through, and always what the time means', () => {
    for (const field of CUT_FIELDS) {
      const through = fieldsThroughCut('clear', [field]);
      expect(through.filter((f) => f !== field)).toEqual(['status', 'shows', 'kind']);
    }
    expect(shown('cut', ['place', 'people'])).toEqual({
      title: 'Taken',
      place: 'Quay',
      status: 'cancelled',
      shows: 'busy',
      people: one.people,
    });
  });

  it('is held by a ceiling as any other glass is', () => {
    const ceilings = { house: { street: 'tinted' as const }, calendars: {} };
    expect(shown('cut', ['title', 'description', 'people'], { ceilings })).toEqual({
      title: 'Lock inspection',
      place: '',
      status: 'cancelled',
      shows: 'busy',
    });
    expect(
      shown('cut', ['title', 'description'], { ceilings: { house: { street: 'shut' }, calendars: {} } }),
    ).toBeNull();
  });

  it('does not look at the switches, which are for the other glasses', () => {
    const rules = rulesOf('shut', { sources: [source('a', 'cut', ['joinLink'])] });
    expect(fieldsOfSource(rules.sources[0]!, 'clear', rules)).toContain('joinLink');
    expect(fieldsOfSource(source('a', 'clear'), 'clear', rules)).not.toContain('joinLink');
  });
});

describe('what a window takes', () => {
  const view = (parts: Parameters<typeof rulesOf>[1], entries: Parameters<typeof outwardView>[0]) =>
    outwardView(entries, rulesOf('clear', parts), RANGE, { audience: 'street', cap: null }).items;
  const at = zoned('2026-06-12T10:00');

  it('leaves free, cancelled and tentative entries out as told', () => {
    const all = [
      entry({ id: '1', start: at }),
      entry({ id: '2', start: at, shows: 'free' }),
      entry({ id: '3', start: at, status: 'cancelled' }),
      entry({ id: '4', start: at, status: 'tentative' }),
    ];
    const include = { free: true, cancelled: true, tentative: true };
    expect(view({ include }, all)).toHaveLength(4);
    for (const key of ['free', 'cancelled', 'tentative'] as const)
      expect(view({ include: { ...include, [key]: false } }, all)).toHaveLength(3);
  });

  it('holds back what bears a label, also on one date of a series', () => {
    const series = entry({
      start: zoned('2026-06-10T10:00'),
      recurrence: { rule: 'FREQ=DAILY;COUNT=3', dates: [], exceptDates: [] },
      overrides: [
        {
          slot: zoned('2026-06-11T10:00'),
          start: zoned('2026-06-11T10:00'),
          end: zoned('2026-06-11T11:00'),
          content: { ...entry({ start: at }), labels: ['Inner'] },
        },
      ],
    });
    const dates = (hold: 'frost' | 'keep-in') =>
      view({ labelHolds: [{ label: 'inner', hold }] }, [series]).map((i) => i.kind);
    expect(dates('keep-in')).toEqual(['series']);
    expect(dates('frost').sort()).toEqual(['busy', 'series']);
  });

  it('of two labels that hold back goes by the one that holds more, in whatever order they stand', () => {
    const both = [
      { label: 'Inner', hold: 'frost' },
      { label: 'Kept', hold: 'keep-in' },
    ] as const;
    for (const labels of [
      ['Inner', 'Kept'],
      ['Kept', 'Inner'],
    ])
      for (const labelHolds of [both, [...both].reverse()]) {
        const own = entry({ start: zoned('2026-06-10T10:00'), labels });
        expect(view({ labelHolds }, [own])).toEqual([]);
        expect(view({ labelHolds }, [{ ...own, labels: ['Inner'] }]).map((i) => i.kind)).toEqual(['busy']);
      }
  });

  it('asks every date of a series by itself', () => {
    const series = entry({
      start: zoned('2026-06-10T10:00'),
      title: 'Quiet',
      recurrence: { rule: 'FREQ=DAILY;COUNT=3', dates: [], exceptDates: [] },
      overrides: [
        {
          slot: zoned('2026-06-11T10:00'),
          start: zoned('2026-06-11T10:00'),
          end: zoned('2026-06-11T11:00'),
          content: { ...entry({ start: at }), title: 'Loud' },
        },
      ],
    });
    const [only, ...rest] = view({ filter: { field: 'text', value: 'loud' } }, [series]);
    expect(rest).toEqual([]);
    expect(only).toMatchObject({ kind: 'single', content: { title: 'Loud' } });
    expect(JSON.stringify(only)).not.toContain('Quiet');
  });
});
