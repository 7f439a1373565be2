import { expect, it } from 'vitest';
import { warningsOf } from './embedWarnings';

const size = { zonalWindow: 'size', height: 600, room: 640, sideways: 0, cut: 0 } as const;

it('says nothing where all is in sight', () => {
  expect(warningsOf(size, 'frame')).toEqual([]);
  expect(warningsOf({ ...size, height: 640.6 }, 'frame')).toEqual([]);
});

it('says by how much an embed is too high, too wide, and how many entries are cut', () => {
  expect(warningsOf({ ...size, height: 900 }, 'frame')).toEqual([
    expect.stringContaining('260 pixels higher'),
  ]);
  expect(warningsOf({ ...size, height: 900 }, 'fitting')).toEqual([
    expect.stringContaining('260 pixels too low'),
  ]);
  expect(warningsOf({ ...size, sideways: 12, cut: 2 }, 'frame')).toEqual([
    'It scrolls sideways by 12 pixels.',
    expect.stringContaining('The words of 2 entries are cut off'),
  ]);
});
