import type { Calendar } from '@zonal/core/api';
import { beforeEach, expect, it, vi } from 'vitest';
import { blankDraft, sourceOf } from './draft';
import { removeNewWindow, storeNewWindow, storedNewWindow } from './newWindowDraft';

const calendar = (id: string) => ({ id, name: id, zone: 'America/Halifax' }) as Calendar;
const CALENDARS = [calendar('a'), calendar('b')];
const DRAFT = { ...blankDraft(CALENDARS), name: 'Works', sources: CALENDARS.map((c) => sourceOf(c)) };

const items = new Map<string, string>();
beforeEach(() => {
  items.clear();
  vi.stubGlobal('localStorage', {
    getItem: (key: string) => items.get(key) ?? null,
    setItem: (key: string, value: string) => void items.set(key, value),
    removeItem: (key: string) => void items.delete(key),
  });
});

it('is there again for the person who began it, and for nobody else', () => {
  expect(storedNewWindow('ida@ostrel.example', CALENDARS)).toBeNull();
  storeNewWindow('ida@ostrel.example', DRAFT);
  expect(storedNewWindow('ida@ostrel.example', CALENDARS)).toEqual(DRAFT);
  expect(storedNewWindow('siri@ostrel.example', CALENDARS)).toBeNull();
  removeNewWindow();
  expect(storedNewWindow('ida@ostrel.example', CALENDARS)).toBeNull();
});

it('leaves out calendars that are gone, and is nothing if it cannot be read', () => {
  storeNewWindow('ida@ostrel.example', DRAFT);
  const left = storedNewWindow('ida@ostrel.example', [calendar('b')]);
  expect(left?.sources.map((s) => s.calendarId)).toEqual(['b']);
  items.set('zonal.newWindow', '{"email":"ida@ostrel.example"}');
  expect(storedNewWindow('ida@ostrel.example', CALENDARS)).toBeNull();
  items.set('zonal.newWindow', 'not JSON');
  expect(storedNewWindow('ida@ostrel.example', CALENDARS)).toBeNull();
});
