import { expect, it } from 'vitest';
import { SOON, keyState } from './keyState';

it('a key ends at its very moment, and is said to end soon before it', () => {
  const end = Date.UTC(2026, 5, 1);
  const at = (now: number, expiresAt: number | string | null) => keyState({ expiresAt }, now);
  for (const told of [end, new Date(end).toISOString()]) {
    expect(at(end, told)).toBe('ended');
    expect(at(end - 1, told)).toBe('ends-soon');
    expect(at(end - SOON + 1, told)).toBe('ends-soon');
    expect(at(end - SOON, told)).toBe('open');
  }
  expect(at(end, null)).toBe('open');
});
