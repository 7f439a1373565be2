import { EMPTY_CONTENT, type Entry } from '@zonal/core/entries';
import { NO_CEILINGS, type Glass } from '@zonal/core/glass';
import { expect, it } from 'vitest';
import { insideLines } from './insideLines';

const NOW = Date.UTC(2026, 5, 1);
const at = (day: number) => ({ kind: 'zoned' as const, at: `2026-06-0${day}T10:00:00`, zone: 'UTC' });
const entry = (day: number, title: string): Entry => ({
  ...{ ...EMPTY_CONTENT, title, place: 'Quay', id: title, uid: title, calendarId: 'c', version: 1 },
  ...{ start: at(day), end: at(day + 1), recurrence: null, overrides: [] },
});
const calendar = { id: 'c', zone: 'UTC', labelHolds: [] };
const lines = (glass: Glass) => {
  const through = { audience: 'crew', glass } as const;
  return insideLines([entry(4, 'Later'), entry(2, 'Sooner')], {
    calendar,
    through,
    ceilings: NO_CEILINGS,
    now: NOW,
  });
};

it('what somebody would see next is told in order, and as their glass lets it through', () => {
  expect(lines('tinted')).toEqual([
    { when: 'Tue 2 Jun 2026, 10:00 to Wed 3 Jun 2026, 10:00', title: 'Sooner', place: 'Quay' },
    { when: 'Thu 4 Jun 2026, 10:00 to Fri 5 Jun 2026, 10:00', title: 'Later', place: 'Quay' },
  ]);
  expect(lines('frosted').map((l) => [l.title, l.place])).toEqual([
    ['Busy', ''],
    ['Busy', ''],
  ]);
  expect(lines('shut')).toEqual([]);
});
