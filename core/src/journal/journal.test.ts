import { describe, expect, it } from 'vitest';
import { journalTable } from '../forms';
import { BLANK_WINDOW } from '../glass';
import { JOURNAL_KINDS, journalChanges, journalField, journalValue, turnOf } from '.';

describe('a line of the journal', () => {
  it('says from what to what each field was changed', () => {
    expect(
      journalChanges({ glass: 'clear', told_as: 'Works' }, { glass: 'tinted', told_as: 'Works' }),
    ).toEqual([{ what: 'glass', from: 'clear', to: 'tinted' }]);
    expect(journalChanges(null, { name: 'Quay', archived_at: null })).toEqual([
      { what: 'name', from: '–', to: 'Quay' },
    ]);
    expect([turnOf(null, {}), turnOf({}, null), turnOf({}, {})]).toEqual(['made', 'gone', 'changed']);
  });

  it.each([
    [null, '–'],
    ['', '–'],
    [[], '–'],
    [true, 'yes'],
    [false, 'no'],
    [12, '12'],
    [['a', 'b'], 'a; b'],
    ['2031-05-02T10:15:30.123+00:00', '2031-05-02 10:15 UTC'],
    [{ kind: 'rolling', days: 3, none: null, inner: { on: true } }, 'kind rolling, days 3, inner (on true)'],
    [[{ a: 'x' }, { b: '' }, { c: 1 }], 'a x; c 1'],
  ])('tells %j as %s', (value, said) => {
    expect(journalValue(value)).toBe(said);
  });

  it('has words for every field that is noted, and for every setting of a window', () => {
    const noted = Object.values(JOURNAL_KINDS).flatMap((kind) => kind.noted.filter((f) => f !== '*settings'));
    const parts = [BLANK_WINDOW, BLANK_WINDOW.switches, BLANK_WINDOW.include].flatMap((part) =>
      Object.keys(part),
    );
    for (const field of [...noted, ...parts])
      expect(journalField(field), field).toMatch(/^[a-z’]+,?( [A-Za-z’]+,?)*$/);
  });

  it('cuts what is too long to be read in a line', () => {
    expect(journalValue('x'.repeat(400))).toHaveLength(302);
  });

  it('goes into a table that no spreadsheet takes for formulas', () => {
    const line = {
      id: 7,
      at: '2031-05-02T10:15:30.000Z',
      by: 'Ida',
      area: 'keys',
      kind: 'keys',
      turn: 'changed',
      about: '=HYPERLINK("x")',
      changes: [{ what: 'contact', from: '–', to: '+49 1' }],
    } as const;
    expect(journalTable([line])).toBe(
      'Number,When,By,Area,What,Which,Became,Field,From,To\r\n' +
        `7,2031-05-02T10:15:30.000Z,Ida,keys and link sheets,key,"'=HYPERLINK(""x"")",changed,contact,–,'+49 1\r\n`,
    );
  });
});
