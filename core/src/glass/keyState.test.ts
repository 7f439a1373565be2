import { expect, it } from 'vitest';
import { DAY } from '../zones';
import { SOON, keyState, listingAfter, publicAddressEnd } from './keyState';

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

it('a public address works while its window is listed, and then for the days that were chosen', () => {
  const now = Date.UTC(2026, 5, 1);
  const never = { listed: false, unlistedAt: null, publicUntil: null };
  const listed = { ...never, listed: true };
  expect(publicAddressEnd(listed)).toBe(Infinity);
  expect(publicAddressEnd(never)).toBe(-Infinity);
  expect(listingAfter(null, { listed: false, publicGraceDays: 7 }, now)).toMatchObject({ publicUntil: null });
  expect(listingAfter(never, { listed: false, publicGraceDays: 7 }, now).publicUntil).toBe(null);

  const unlisted = { listed: false, ...listingAfter(listed, { listed: false, publicGraceDays: 7 }, now) };
  expect(publicAddressEnd(unlisted)).toBe(now + 7 * DAY);
  // Published again a day later, it counts from when it was unlisted.
  const shorter = listingAfter(unlisted, { listed: false, publicGraceDays: 0 }, now + DAY);
  expect(shorter).toEqual({ unlistedAt: now, publicUntil: now });
  const again = listingAfter(unlisted, { listed: true, publicGraceDays: 7 }, now + DAY);
  expect(again).toEqual({ unlistedAt: null, publicUntil: null });
});
