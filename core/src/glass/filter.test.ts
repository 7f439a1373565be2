import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { EMPTY_CONTENT, type Content } from '../entries';
import { content, filterArbitrary } from '../testing/arbitraries';
import { conditionsOf, filterTest, filterWords, goneFrom, isContradictory, readFilter, type Filter } from '.';

const passes = (filter: Filter, parts: Partial<Content>, gone: string[] = [], calendar = 'a') =>
  filterTest(filter, gone)(calendar, { ...EMPTY_CONTENT, ...parts });
const label = (value: string): Filter => ({ field: 'label', value });

describe('a filter', () => {
  it('asks label, person, kind, status, text, calendar and property', () => {
    expect(passes(label('WÖRKS'), { labels: ['works'] })).toBe(true);
    expect(passes(label('work'), { labels: ['works'] })).toBe(false);
    const people = [{ name: 'Ann Lee', address: 'ann@ostrel.example' }];
    expect(passes({ field: 'person', value: 'ann lee' }, { people })).toBe(true);
    expect(passes({ field: 'person', value: 'ANN@ostrel.example' }, { people })).toBe(true);
    expect(passes({ field: 'person', value: 'ann' }, { people })).toBe(false);
    expect(passes({ field: 'kind', value: 'due' }, { kind: 'due' })).toBe(true);
    expect(passes({ field: 'status', value: 'done' }, {})).toBe(false);
    expect(passes({ field: 'text', value: 'gate north' }, { title: 'North', place: 'Gate 4' })).toBe(true);
    expect(passes({ field: 'text', value: 'secret' }, { joinLink: 'https://x/secret' })).toBe(false);
    expect(passes({ field: 'calendar', value: 'b' }, {}, [], 'b')).toBe(true);
    const property = (test: 'is' | 'contains' | 'at-least' | 'at-most', value: string): Filter => ({
      field: 'property',
      name: 'Draught',
      test,
      value,
    });
    const properties = [{ name: 'Draught', value: '7.5' }];
    expect(passes(property('at-least', '10'), { properties })).toBe(false);
    expect(passes(property('at-least', '7'), { properties })).toBe(true);
    expect(passes(property('at-most', '7.5'), { properties })).toBe(true);
    expect(passes(property('contains', '.5'), { properties })).toBe(true);
    expect(passes(property('is', '7.5'), {})).toBe(false);
    const date = { properties: [{ name: 'Draught', value: '2026-05-31' }] };
    expect(passes(property('at-least', '2026-06-01'), date)).toBe(false);
  });

  it('joins and denies', () => {
    const both: Filter = { all: [label('a'), { not: label('b') }] };
    expect(passes(both, { labels: ['a'] })).toBe(true);
    expect(passes(both, { labels: ['a', 'b'] })).toBe(false);
    expect(passes({ any: [label('a'), label('b')] }, { labels: ['b'] })).toBe(true);
  });

  it('shows less and never more when a name in it goes away', () => {
    fc.assert(
      fc.property(filterArbitrary, content, fc.nat(7), (filter, one, pick) => {
        const names = goneFrom(filter, { calendars: [], labels: [], properties: [] });
        const gone = names.filter((_, i) => (pick >> i) & 1);
        const whole = filterTest(filter, []);
        const broken = filterTest(filter, gone);
        if (broken('a', one)) expect(whole('a', one)).toBe(true);
      }),
      { numRuns: 3000, seed: 7 },
    );
    expect(passes({ not: label('x') }, {}, ['label:x'])).toBe(false);
    expect(passes({ any: [label('x'), label('y')] }, { labels: ['y'] }, ['label:x'])).toBe(true);
  });

  it('knows which names are gone, whatever their case', () => {
    const filter: Filter = { all: [label('Works'), { field: 'calendar', value: 'a' }] };
    expect(goneFrom(filter, { calendars: ['a'], labels: ['WORKS'], properties: [] })).toEqual([]);
    expect(goneFrom(filter, { calendars: [], labels: [], properties: [] })).toEqual([
      'calendar:a',
      'label:works',
    ]);
  });

  it('is read from data, and refused with the reason', () => {
    fc.assert(
      fc.property(filterArbitrary, (f) => {
        expect(readFilter(JSON.parse(JSON.stringify(f)))).toEqual(f);
      }),
    );
    expect(readFilter(null)).toBeNull();
    const reason = (data: unknown) => {
      try {
        readFilter(data);
      } catch (error) {
        return (error as Error).message;
      }
      return 'it was taken';
    };
    expect(reason({ field: 'weather', value: 'x' })).toContain('“weather”');
    expect(reason({ field: 'kind', value: 'party' })).toContain('no kind');
    expect(reason({ all: [] })).toContain('a group of it is empty');
    expect(reason({ field: 'label', value: ' ' })).toContain('no value');
    expect(reason({ field: 'property', value: 'x', test: 'is' })).toContain('which property');
    expect(reason({ field: 'property', name: 'a', value: 'x', test: 'near' })).toContain('no comparison');
    expect(reason({ all: Array.from({ length: 51 }, () => label('x')) })).toContain('more than 50');
    let deep: unknown = label('x');
    for (let i = 0; i < 8; i++) deep = { not: deep };
    expect(reason(deep)).toContain('nested');
    expect(reason('text')).toContain('no condition');
  });

  it('that contradicts itself is found, and only then', () => {
    expect(isContradictory({ all: [label('x'), { not: label('X') }] })).toBe(true);
    const kinds: Filter[] = [
      { field: 'kind', value: 'due' },
      { field: 'kind', value: 'event' },
    ];
    expect(isContradictory({ all: kinds })).toBe(true);
    expect(isContradictory({ any: kinds })).toBe(false);
    expect(isContradictory({ all: [label('x'), label('y')] })).toBe(false);
    expect(isContradictory(null)).toBe(false);
    fc.assert(
      fc.property(filterArbitrary, content, (filter, one) => {
        if (filterTest(filter, [])('a', one)) expect(isContradictory(filter)).toBe(false);
      }),
      { numRuns: 2000, seed: 3 },
    );
  });

  it('is looked through in a bounded number of steps, however it is nested', () => {
    const pairs = Array.from({ length: 13 }, (_, i): Filter => ({ any: [label(`a${i}`), label(`b${i}`)] }));
    expect(isContradictory({ all: pairs })).toBe(false);
    expect(isContradictory({ all: [label('x'), ...pairs, { not: label('x') }] })).toBe(true);
    // Each way through the pairs ends in a contradiction: there are too many to look at, so it counts as possible.
    const [x, y] = [label('x'), label('y')];
    const clash: Filter[] = [{ any: [x, { all: [x, y] }] }, { any: [{ not: x }, { all: [{ not: x }, y] }] }];
    const wide: Filter = { all: [...pairs, ...pairs, ...clash] };
    expect(isContradictory(wide)).toBe(false);
    const words = Array.from({ length: 41 }, (_, i) => `w${i}`).join(' ');
    expect(() => readFilter({ field: 'text', value: words })).toThrow('more than 40 words');
    const many = { any: Array.from({ length: 100_000 }, () => ({ any: [label('x')] })) };
    expect(() => readFilter(many)).toThrow('more than 50 conditions');
    expect(() => readFilter({ all: [[label('x')]] })).toThrow('no condition');
  });

  it('reads as a sentence', () => {
    const filter: Filter = {
      all: [
        { any: [label('works'), { field: 'kind', value: 'milestone' }] },
        { not: { field: 'person', value: 'Ann' } },
        { field: 'property', name: 'Berth', test: 'at-least', value: '2' },
        { field: 'calendar', value: 'id' },
      ],
    };
    expect(filterWords(filter, () => 'Dredging')).toBe(
      '(labelled “works” or milestones) and not with “Ann” and whose Berth is at least “2” and from “Dredging”',
    );
    expect(conditionsOf(filter)).toHaveLength(5);
  });
});
