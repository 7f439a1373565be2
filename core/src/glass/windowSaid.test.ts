import { describe, expect, it } from 'vitest';
import { rulesOf, source } from '../testing/samples';
import { checkRules } from './checkRules';
import { outwardWording } from './outwardView';
import {
  BLANK_WINDOW,
  ceilingsInForce,
  rulesOfSaid,
  saidByRules,
  saidOf,
  settingsOf,
  unfitIn,
  type WindowSaid,
} from './windowSaid';

const said: WindowSaid = { ...BLANK_WINDOW, name: 'Quay', listed: true, sources: [source('a', 'tinted')] };
const setting = { secret: 's', ceilings: { house: {}, calendars: {} }, gone: [] };

describe('what a window says', () => {
  it('and its rules are two ways of the same', () => {
    const rules = rulesOfSaid(said, setting);
    expect(saidByRules(rules, said)).toEqual(said);
    const own = rulesOf('clear');
    expect(rulesOfSaid(saidByRules(own, BLANK_WINDOW), own)).toEqual(own);
  });

  it('names a place where it has one, and nothing where it has none', () => {
    const { wording } = rulesOfSaid({ ...said, place: 'Old quay' }, setting);
    expect(outwardWording(wording).place).toBe('Old quay');
    expect(outwardWording(rulesOfSaid(said, setting).wording)).not.toHaveProperty('place');
  });

  it('is read from what was stored before there was all of it, with nothing let out that nobody let out', () => {
    const { tellTentative: _t, dueAs: _d, include: _i, ...old } = settingsOf(said);
    const stored = { ...old, switches: { people: true } } as unknown as Partial<WindowSaid>;
    expect(saidOf(stored)).toMatchObject({
      tellTentative: BLANK_WINDOW.tellTentative,
      dueAs: BLANK_WINDOW.dueAs,
      include: BLANK_WINDOW.include,
      switches: { people: true, contact: false, joinLink: false, planned: false },
    });
  });

  it('keeps nothing that it has no name for', () => {
    const more = { ...said, version: 3, confirmed: [], trap: 'x' };
    expect(Object.keys(saidOf(more)).sort()).toEqual(Object.keys(BLANK_WINDOW).sort());
    expect(Object.keys(settingsOf(more))).not.toContain('trap');
    expect(unfitIn({ name: '', filter: null, version: 2, audience: 'street' })).toEqual([]);
    expect(unfitIn({ trap: 1, name: 5, sources: {}, hostZone: null, __proto__: null })).toEqual([
      'trap',
      'name',
      'sources',
      'hostZone',
    ]);
    const filter = { field: 'label', value: 'a', trap: 1 } as never;
    expect(() => checkRules({ ...said, filter })).toThrowError('trap');
    expect(() => checkRules({ ...said, filter: { not: filter } })).toThrowError('trap');
    expect(() => checkRules({ ...said, filter: { any: [], all: [] } as never })).toThrowError('any');
  });

  it('has the ceilings of its own calendars and of the house; what is locked down is shut', () => {
    const street = { audience: 'street', glass: 'tinted' } as const;
    const all = ceilingsInForce(
      [
        { calendarId: null, ...street },
        { calendarId: 'a', ...street },
        { calendarId: 'a', audience: 'crew', glass: 'clear' },
        { calendarId: 'b', ...street },
      ],
      ['c'],
    );
    expect(rulesOfSaid(said, { ...setting, ceilings: all }).ceilings).toEqual({
      house: { street: 'tinted' },
      calendars: { a: { street: 'tinted', crew: 'clear' } },
    });
    expect(new Set(Object.values(all.calendars['c']!))).toEqual(new Set(['shut']));
  });
});
