import fc from 'fast-check';
import { expect, it } from 'vitest';
import { ruleFromText, ruleWords } from '.';

const PARTS = {
  FREQ: ['YEARLY', 'MONTHLY', 'WEEKLY', 'DAILY', 'HOURLY'],
  INTERVAL: ['', '2', '3', '12'],
  BYMONTH: ['', '1', '3,11', '12'],
  BYMONTHDAY: ['', '1', '15,-1', '-2'],
  BYDAY: ['', 'MO', 'TU,TH', 'SA,SU'],
  BYHOUR: ['', '9', '9,17'],
  BYMINUTE: ['', '0', '30'],
  BYSETPOS: ['', '1', '-1', '2,-2'],
  WKST: ['', 'SU'],
  END: ['', 'COUNT=1', 'COUNT=21', 'UNTIL=20261231', 'UNTIL=20270101'],
} as const;
type Parts = { readonly [P in keyof typeof PARTS]: (typeof PARTS)[P][number] };

const textOf = ({ END, ...rest }: Parts) =>
  [...Object.entries(rest).flatMap(([name, value]) => (value ? [`${name}=${value}`] : [])), END]
    .filter(Boolean)
    .join(';');

const rule = fc.record(
  Object.fromEntries(Object.entries(PARTS).map(([name, values]) => [name, fc.constantFrom(...values)])),
) as fc.Arbitrary<Parts>;

/** Weekdays that are all there, or BYSETPOS with nothing to choose from, are not valid with every frequency. */
function isRule(text: string): boolean {
  try {
    ruleFromText(text);
    return true;
  } catch {
    return false;
  }
}

it('no part of a rule goes untold: another value of one part always reads otherwise', () => {
  let compared = 0;
  fc.assert(
    fc.property(rule, rule, fc.constantFrom(...(Object.keys(PARTS) as (keyof Parts)[])), (a, b, part) => {
      const changed = { ...a, [part]: b[part] };
      const [one, other] = [textOf(a), textOf(changed)];
      if (one === other || !isRule(one) || !isRule(other)) return;
      compared++;
      expect(ruleWords(one)).not.toBe(ruleWords(other));
    }),
    { numRuns: 3000, seed: 11 },
  );
  expect(compared).toBeGreaterThan(1000);
});

it('what a program spells out though it is the default reads the same', () => {
  expect(ruleWords('FREQ=WEEKLY;INTERVAL=1;WKST=MO')).toBe(ruleWords('FREQ=WEEKLY'));
  expect(ruleWords('freq=weekly;byday=mo')).toBe(ruleWords('FREQ=WEEKLY;BYDAY=MO'));
});

it('ordinals are written as they are spoken', () => {
  const nth = (n: number) => ruleWords(`FREQ=YEARLY;BYDAY=${n}MO`);
  expect([1, 2, 3, 4, 11, 12, 13, 21, 22, 23, 53].map((n) => nth(n).match(/the (\S+) Monday/)![1])).toEqual([
    '1st',
    '2nd',
    '3rd',
    '4th',
    '11th',
    '12th',
    '13th',
    '21st',
    '22nd',
    '23rd',
    '53rd',
  ]);
  expect(nth(-1)).toContain('the last Monday');
  expect(nth(-3)).toContain('the 3rd last Monday');
});
