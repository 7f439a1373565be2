import type { Calendar, OutwardWindow } from '@zonal/core/api';
import { expect, it } from 'vitest';
import { beyond, inFull } from './inFull';

const calendar = (id: string, sight: Calendar['sight'], windows: string[]) =>
  ({ id, sight, windows }) as unknown as Calendar;
const window = (name: string, ...ids: string[]) =>
  ({ wording: { name }, sources: ids.map((calendarId) => ({ calendarId })) }) as unknown as OutwardWindow;

it('only windows of which every calendar is seen in full are worked out; the others are named', () => {
  const calendars = [calendar('a', 'all', ['One', 'Both', 'Unseen']), calendar('b', 'tinted', [])];
  const windows = [window('One', 'a'), window('Both', 'a', 'b'), window('Elsewhere', 'c')];
  expect(inFull(windows, calendars).map((w) => w.wording.name)).toEqual(['One']);
  expect(beyond(windows, calendars, ['a'])).toEqual(['Both', 'Unseen']);
  expect(beyond(windows, calendars, ['b'])).toEqual([]);
});
