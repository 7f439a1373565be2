import { expect, it } from 'vitest';
import { LOCKED_DOWN, NO_CEILINGS, withCeiling } from '.';

it('one ceiling is set or lifted, and all others stay as they are', () => {
  const low = withCeiling(NO_CEILINGS, { calendarId: 'c', audience: 'street', glass: 'shut' });
  expect(low).toEqual({ house: {}, calendars: { c: { street: 'shut' } } });
  const house = withCeiling(low, { calendarId: null, audience: 'crew', glass: 'clear' });
  expect(house).toEqual({ house: { crew: 'clear' }, calendars: { c: { street: 'shut' } } });
  const other = withCeiling(house, { calendarId: 'd', audience: 'street', glass: 'tinted' });
  const lifted = withCeiling(other, { calendarId: 'c', audience: 'street', glass: null });
  expect(lifted).toEqual({ house: { crew: 'clear' }, calendars: { c: {}, d: { street: 'tinted' } } });
  expect(low.calendars['c']).toEqual({ street: 'shut' });
});

it('a lock-down leaves no audience out', () => {
  expect(Object.values(LOCKED_DOWN)).toEqual(['shut', 'shut', 'shut', 'shut']);
});
