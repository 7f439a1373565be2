import { expect, it } from 'vitest';
import { plateFrom, plateLook } from './plateFrom';

it('takes first letters of words, or of the only word', () => {
  expect(plateFrom('Bridge and lock times')).toBe('BAL');
  expect(plateFrom('Tugs')).toBe('TUG');
  expect(plateFrom('Événements du quai')).toBe('EDQ');
});

it('always gives two letters at least', () => {
  expect(plateFrom('7')).toBe('7X');
  expect(plateFrom('')).toBe('XX');
  expect(plateFrom('漁港')).toBe('XX');
});

it('proposes letters and a look that other calendars do not have', () => {
  expect(plateFrom('Tugs', ['TUG'])).toBe('TUU');
  expect(plateFrom('Tu', ['TU', 'TUU'])).toBe('TU2');
  const first = plateLook([]);
  const second = plateLook([first]);
  expect(second.colour).not.toBe(first.colour);
  expect(second.shape).not.toBe(first.shape);
  expect(second.pattern).not.toBe(first.pattern);
});
