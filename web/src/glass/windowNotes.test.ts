import { expect, it } from 'vitest';
import type { Calendar, OutwardWindow, WindowDraft, WindowKey } from '@zonal/core/api';
import { windowNotes } from './windowNotes';

const NOW = Date.UTC(2026, 5, 10);
const DAY = 86_400_000;
const calendars = [
  { id: 'c', name: 'Works', lockedAt: null },
  { id: 'd', name: 'Quay', lockedAt: '2026-06-09T10:00:00Z' },
] as unknown as Calendar[];
const notes = (parts: Partial<OutwardWindow>) =>
  windowNotes(
    {
      draft: null,
      gone: [],
      keys: [],
      sources: [{ calendarId: 'c' }],
      closedAt: null,
      ...parts,
    } as unknown as OutwardWindow,
    calendars,
    NOW,
  );
const key = (days: number | null) =>
  ({ expiresAt: days === null ? null : new Date(NOW + days * DAY).toISOString() }) as WindowKey;
const draft = (parts: Partial<WindowDraft> = {}) =>
  ({ by: 'Ole', publishAt: null, stopped: '', ...parts }) as WindowDraft;

it('a window that is as it should be has nothing to tell', () => {
  expect(notes({ keys: [key(null), key(31)] })).toEqual([]);
});

it('a window tells what it has lost, what is locked down, and which keys end', () => {
  const gone = ['calendar:c', 'calendar:z', 'label:works', 'property:Berth'];
  expect(notes({ gone })).toEqual([
    'Shows less: its filter names something that no longer exists: Works, a deleted calendar, label “works”, property “Berth”',
  ]);
  expect(notes({ sources: [{ calendarId: 'c' }, { calendarId: 'd' }] as never })).toEqual([
    'Locked down: Quay',
  ]);
  expect(notes({ keys: [key(-1), key(0), key(29), key(null)] })).toEqual([
    '2 keys have ended',
    'One key ends within 30 days',
  ]);
});

it('a draft is told with its time, or with why it was not shown; a closed window tells of nothing else', () => {
  expect(notes({ draft: draft() })).toEqual(['A draft by Ole is not outside yet']);
  expect(notes({ draft: draft({ publishAt: '2026-06-12T09:00:00Z' }) })[0]).toMatch(
    /^A draft is shown automatically at /,
  );
  const stopped = draft({ stopped: 'It must be confirmed first.' });
  expect(notes({ draft: stopped, gone: ['label:x'], closedAt: '2026-06-01T00:00:00Z' })).toEqual([
    'The draft was not shown when its time came: It must be confirmed first.',
  ]);
});
