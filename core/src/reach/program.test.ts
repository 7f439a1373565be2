import { describe, expect, it } from 'vitest';
import { isPassedOn, programOf, readersBehind } from './program';

describe('a program that looks', () => {
  it('is the same one after an update, and whatever number of readers it has', () => {
    const before = 'Tidebook/4.2.1 (Harbour OS 14_3; 12 subscribers)';
    expect(programOf(before)).toBe('tidebook harbour os');
    expect(programOf('Tidebook/5.0 (Harbour OS 15; 40 subscribers)')).toBe(programOf(before));
    expect(programOf('Other/1')).not.toBe(programOf('Another/1'));
    expect(programOf('')).toBe('');
    expect(programOf('x '.repeat(5000)).length).toBe(120);
  });

  it('stands for as many readers as it says, if that can be', () => {
    expect(readersBehind('Fetcher/1.0 (+https://f.example; 37 subscribers)')).toBe(37);
    expect(readersBehind('Fetcher; 1 subscriber')).toBe(1);
    for (const text of ['', 'Tidebook/4', '0 subscribers', '99999999999 subscribers', 'many subscribers'])
      expect(readersBehind(text), text).toBe(1);
  });
});

it('a key is passed on where far more readers came than it was made out for', () => {
  expect([0, 9, 10].map((n) => isPassedOn(n, 1))).toEqual([false, false, true]);
  expect([39, 40].map((n) => isPassedOn(n, 10))).toEqual([false, true]);
  expect(isPassedOn(1e6, null)).toBe(false);
});
