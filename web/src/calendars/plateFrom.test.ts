import { expect, it } from 'vitest';
import { plateFrom } from './plateFrom';

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
