import { EMPTY_CONTENT, occurrencesOf, type Entry, type Scope, type When } from '@zonal/core/entries';
import { describe, expect, it } from 'vitest';
import type { EntryChange } from '@zonal/core/api';
import { both, carrying, copying, named, removing, shifting } from './changes';
import { historySlice, stepDone, stepLost, stepRedone, stepUndone } from './historySlice';

const ZONE = 'America/Halifax';
const at = (text: string): When => ({ kind: 'zoned', at: `${text}:00`, zone: ZONE });
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
const slot = at('2026-05-13T09:00');
const target = { entry: series, slot };
const HOUR = 3_600_000;
/** Calendar, and days and times of the starts, of all that changes leave behind. */
const left = (changes: readonly EntryChange[]) =>
  changes.map(({ calendarId, entry, version, id }) => ({
    calendarId,
    version,
    known: id !== undefined,
    starts: entry
      ? occurrencesOf(
          { ...series, ...entry },
          { from: Date.UTC(2026, 4, 1), to: Date.UTC(2026, 5, 1) },
          ZONE,
        ).map((o) => (o.start as { at: string }).at.slice(8, 16))
      : null,
  }));

describe('moving the dates that are meant', () => {
  it('moves one, one and all later, or all', () => {
    const starts = (scope: Scope) => left(shifting(target, both(0, HOUR), scope)).map((c) => c.starts);
    expect(starts('this')).toEqual([['11T09:00', '12T09:00', '13T10:00', '14T09:00', '15T09:00']]);
    expect(starts('onward')).toEqual([
      ['11T09:00', '12T09:00'],
      ['13T10:00', '14T10:00', '15T10:00'],
    ]);
    expect(starts('all')).toEqual([['11T10:00', '12T10:00', '13T10:00', '14T10:00', '15T10:00']]);
  });

  it('keeps the version that was seen on what stays, and writes the later part anew', () => {
    expect(left(shifting(target, both(1), 'onward')).map((c) => [c.known, c.version])).toEqual([
      [true, 3],
      [false, 0],
    ]);
  });

  it('moves an edge by itself, and never before the start', () => {
    const [change] = shifting(
      { entry: { ...series, recurrence: null }, slot: null },
      { start: 0, end: -5 * HOUR },
      'all',
    );
    expect(change!.entry).toMatchObject({ start: series.start, end: series.start });
  });

  it('takes one date out of its series for another calendar, or the whole series along', () => {
    expect(left(carrying(target, 'other', both(1), 'this', ZONE))).toEqual([
      { calendarId: 'c', version: 3, known: true, starts: ['11T09:00', '12T09:00', '14T09:00', '15T09:00'] },
      { calendarId: 'other', version: 0, known: false, starts: ['14T09:00'] },
    ]);
    expect(left(carrying(target, 'other', both(0), 'all', ZONE))).toMatchObject([
      { calendarId: 'other', known: true, starts: { length: 5 } },
    ]);
    expect(
      left(carrying(target, 'other', both(0), 'onward', ZONE)).map((c) => [c.calendarId, c.starts!.length]),
    ).toEqual([
      ['c', 2],
      ['other', 3],
    ]);
  });

  it('copies one date as an entry of its own', () => {
    const [copy] = copying(target, 'other', both(7));
    expect(copy).toMatchObject({
      calendarId: 'other',
      version: 0,
      entry: { recurrence: null, title: 'Sounding' },
    });
    expect(left([copy!])[0]!.starts).toEqual(['20T09:00']);
  });

  it('takes dates away', () => {
    const counts = (scope: Scope) => left(removing(target, scope, ZONE)).map((c) => c.starts?.length ?? null);
    expect(counts('this')).toEqual([4]);
    expect(counts('onward')).toEqual([2]);
    expect(counts('all')).toEqual([null]);
    expect(left(removing({ entry: series, slot: series.start }, 'onward', ZONE))[0]!.starts).toBeNull();
  });

  it('is named for what it does', () => {
    expect(named('labelMoved', series, []).label).toBe('Moved “Sounding”');
    expect(named('labelMoved', { title: 'x'.repeat(500) }, []).label.length).toBeLessThanOrEqual(300);
  });
});

describe('the history of edits', () => {
  const { reducer } = historySlice;
  const step = (n: number) => ({ id: `${n}`, label: `Step ${n}` });
  it('goes back and forth over at least 50 steps, and forgets what was taken back once something new is done', () => {
    let state = reducer(undefined, { type: '' });
    for (let n = 0; n < 60; n++) state = reducer(state, stepDone(step(n)));
    for (let n = 0; n < 55; n++) state = reducer(state, stepUndone());
    expect([state.done.length, state.undone.length, state.undone.at(-1)!.id]).toEqual([5, 55, '5']);
    state = reducer(state, stepRedone());
    expect(state.done.at(-1)!.id).toBe('5');
    state = reducer(state, stepDone(step(99)));
    expect(state.undone).toEqual([]);
    expect(reducer(state, stepLost('99')).done.map((s) => s.id)).toEqual(['0', '1', '2', '3', '4', '5']);
  });
});
