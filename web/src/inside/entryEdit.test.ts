import { EMPTY_CONTENT, occurrencesOf, type Entry, type When } from '@zonal/core/entries';
import { describe, expect, it } from 'vitest';
import type { Calendar } from '@zonal/core/api';
import { entryDraft, startDraft, type EntryDraft } from './entryDraft';
import { carryOver, effectWords, formFor, resultOf } from './entryEdit';

const ZONE = 'America/Halifax';
const at = (text: string): When => ({ kind: 'zoned', at: `${text}:00`, zone: ZONE });
const calendar: Calendar = {
  id: 'c',
  name: 'Works',
  description: '',
  zone: ZONE,
  plate: 'WO',
  colour: 'teal',
  shape: 'square',
  pattern: 'solid',
  place: '',
  latitude: null,
  longitude: null,
  archivedAt: null,
  lockedAt: null,
  version: 1,
  entryCount: 1,
  who: 'editor',
  sight: 'all',
  windows: [],
  onDesk: true,
};
const series: Entry = {
  ...EMPTY_CONTENT,
  id: 'e',
  calendarId: 'c',
  version: 3,
  uid: 'u',
  title: 'Sounding',
  start: at('2026-05-11T09:00'),
  end: at('2026-05-11T10:00'),
  recurrence: { rule: 'FREQ=DAILY;COUNT=5', dates: [], exceptDates: [] },
  overrides: [],
};
const SLOT = at('2026-05-13T09:00');
const NOW = Date.UTC(2026, 4, 1);
const starts = (entry: Entry | null) =>
  entry
    ? occurrencesOf(entry, { from: NOW, to: NOW + 60 * 86_400_000 }, ZONE).map((o) =>
        (o.start as { at: string }).at.slice(5, 16),
      )
    : [];

describe('an edit of a recurring entry', () => {
  it('starts from the date that was opened, or from the first for all dates', () => {
    expect(formFor(series, SLOT, 'this', calendar)).toMatchObject({ startDate: '2026-05-13' });
    expect(formFor(series, SLOT, 'onward', calendar)).toMatchObject({ startDate: '2026-05-13' });
    expect(formFor(series, SLOT, 'all', calendar)).toMatchObject({
      startDate: '2026-05-11',
      recurs: 'daily',
    });
  });

  it('changes one date by itself', () => {
    const form = { ...formFor(series, SLOT, 'this', calendar), startTime: '11:00', endTime: '12:00' };
    const result = resultOf(form, series, SLOT, 'this');
    expect(result.kind).toBe('entry');
    expect(result.kind === 'entry' && starts(result.entry)).toEqual([
      '05-11T09:00',
      '05-12T09:00',
      '05-13T11:00',
      '05-14T09:00',
      '05-15T09:00',
    ]);
  });

  it('cuts the series for a change from one date on, and not at its first date', () => {
    const edit = (slot: When) =>
      resultOf({ ...formFor(series, slot, 'onward', calendar), title: 'Dredging' }, series, slot, 'onward');
    const result = edit(SLOT);
    expect(result.kind === 'split' && [starts(result.before).length, starts(result.from).length]).toEqual([
      2, 3,
    ]);
    expect(edit(series.start).kind).toBe('entry');
  });

  it('says first which dates it is meant for', () => {
    const words = (scope: 'this' | 'onward' | 'all') => effectWords(series, SLOT, scope, calendar, NOW);
    expect(words('this')).toBe('This changes one date: Wed 13 May 2026. All others stay.');
    expect(words('onward')).toContain('all later dates (3 in two years). 2 earlier ones stay.');
    expect(words('all')).toContain('all dates (5 within');
  });

  it('carries over what was typed when other dates are meant', () => {
    const blank = formFor(series, SLOT, 'this', calendar);
    const typed = { ...blank, title: 'Typed' };
    const carried = carryOver(typed, blank, formFor(series, SLOT, 'all', calendar));
    expect(carried).toMatchObject({ title: 'Typed', startDate: '2026-05-11' });
  });
});

describe('the draft of an entry', () => {
  const typed = (draft: EntryDraft) => entryDraft(draft, { type: 'typed', part: { place: 'Berth 2' } });
  const opened = startDraft({ entry: series, date: { slot: SLOT } }, [calendar]);

  it('starts from the date that was opened, and keeps what was typed when other dates are meant', () => {
    expect(opened).toMatchObject({ slot: SLOT, scope: 'this', form: { startDate: '2026-05-13' } });
    const all = entryDraft(typed(opened), { type: 'meant', scope: 'all', calendar });
    expect(all).toMatchObject({ scope: 'all', form: { startDate: '2026-05-11', place: 'Berth 2' } });
    expect(all.blank.place).toBe('');
  });

  it('goes on from what somebody else saved once it is merged, and in another calendar once it is moved', () => {
    const theirs = { ...series, version: 4, place: 'Quay' };
    const blank = { ...opened.blank, place: 'Quay' };
    const form = { ...blank, title: 'Mine' };
    const merged = entryDraft(typed(opened), { type: 'merged', entry: theirs, blank, form });
    expect(merged).toMatchObject({
      before: theirs,
      slot: SLOT,
      blank: { place: 'Quay' },
      form: { title: 'Mine' },
    });
    expect(entryDraft(merged, { type: 'moved', calendarId: 'd' })).toMatchObject({ calendarId: 'd' });
  });

  it('of a new entry has no date yet, and takes what it was opened with', () => {
    const fresh = startDraft({ calendarId: 'c', day: 20_000, form: { clock: 'date' } }, [calendar]);
    expect(fresh).toMatchObject({
      before: null,
      slot: null,
      form: { clock: 'date', startDate: '2024-10-04' },
    });
    expect(entryDraft(fresh, { type: 'meant', scope: 'all', calendar })).toBe(fresh);
  });
});
