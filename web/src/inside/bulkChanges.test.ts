import { EMPTY_CONTENT, occurrencesOf, type Entry } from '@zonal/core/entries';
import { DAY } from '@zonal/core/zones';
import { describe, expect, it } from 'vitest';
import { bulkChanges, type BulkAction, type BulkScope } from './bulkChanges';
import { itemsOf } from './deskDays';

const HOME = 'America/Halifax';
const RANGE = { from: Date.UTC(2026, 5, 1) / DAY, to: Date.UTC(2026, 6, 1) / DAY };
const date = (text: string) => ({ kind: 'date' as const, date: text });

function entryOn(id: string, first: string, parts: Partial<Entry> = {}): Entry {
  const [start, end] = [
    date(first),
    date(first.replace(/\d+$/, (day) => String(Number(day) + 1).padStart(2, '0'))),
  ];
  const own = {
    id,
    uid: `${id}@x`,
    calendarId: 'a',
    version: 3,
    start,
    end,
    recurrence: null,
    overrides: [],
  };
  return { ...EMPTY_CONTENT, title: id, ...own, ...parts } as Entry;
}

const single = entryOn('single', '2026-06-02', { labels: ['quay'] });
const weekly = entryOn('weekly', '2026-06-03', {
  recurrence: { rule: 'FREQ=WEEKLY;COUNT=3', dates: [], exceptDates: [] },
} as Partial<Entry>);
const ITEMS = itemsOf([single, weekly], RANGE, HOME);

/** Returns the changes for all dates of June, or for the first ones. */
const changed = (action: BulkAction, scope: BulkScope = 'dates', items = ITEMS) =>
  bulkChanges(items, action, scope, () => HOME);
const ofId = (changes: ReturnType<typeof changed>, id: string) => changes.find((c) => c.id === id)!.entry!;
/** Returns the days of an entry as it would be stored. */
const daysOf = (entry: object, to = 4e12) =>
  occurrencesOf({ ...weekly, ...entry } as Entry, { from: 0, to }, HOME).map((o) =>
    o.start.kind === 'date' ? o.start.date.slice(5) : '',
  );

describe('several entries', () => {
  it('are shifted by days, each entry in one change, with its version', () => {
    const changes = changed({ kind: 'shift', days: 7 });
    expect(changes.map((c) => [c.id, c.version])).toEqual([
      ['single', 3],
      ['weekly', 3],
    ]);
    expect(ofId(changes, 'single').start).toEqual(date('2026-06-09'));
    expect(daysOf(ofId(changes, 'weekly'))).toEqual(['06-10', '06-17', '06-24']);
  });

  it('are changed at the chosen dates alone, or as whole series', () => {
    const firstTwo = ITEMS.filter((i) => i.entry.id === 'weekly').slice(0, 2);
    const dates = changed({ kind: 'label', label: 'late' }, 'dates', firstTwo);
    expect(ofId(dates, 'weekly').labels).toEqual([]);
    expect(ofId(dates, 'weekly').overrides.map((o) => o.content.labels)).toEqual([['late'], ['late']]);
    const series = changed({ kind: 'label', label: 'late' }, 'series', firstTwo);
    expect(series).toHaveLength(1);
    expect(ofId(series, 'weekly')).toMatchObject({ labels: ['late'], overrides: [] });
  });

  it('get and lose labels and holds without losing others', () => {
    expect(ofId(changed({ kind: 'label', label: 'quay' }), 'single').labels).toEqual(['quay']);
    expect(ofId(changed({ kind: 'label', label: 'works' }), 'single').labels).toEqual(['quay', 'works']);
    expect(ofId(changed({ kind: 'unlabel', label: 'quay' }), 'single').labels).toEqual([]);
    const held = changed({ kind: 'hold', hold: 'keep-in' }, 'series');
    expect(held.map((c) => c.entry!.hold)).toEqual(['keep-in', 'keep-in']);
  });

  it('move to another calendar; a date leaves its series and goes on from it', () => {
    const first = ITEMS.filter((i) => i.entry.id === 'weekly').slice(0, 1);
    const changes = changed({ kind: 'move', calendarId: 'b' }, 'dates', first);
    expect(daysOf(ofId(changes, 'weekly'))).toEqual(['06-10', '06-17']);
    const [moved] = changes.filter((c) => c.calendarId === 'b');
    expect(moved).toMatchObject({ version: 0, continues: 'weekly' });
    expect(moved!.entry).toMatchObject({ start: date('2026-06-03'), recurrence: null });
    expect(changed({ kind: 'move', calendarId: 'a' })).toEqual([]);
  });

  it('are deleted; a series without dates goes with its last one', () => {
    const changes = changed({ kind: 'delete' });
    expect(changes.map((c) => [c.id, c.entry])).toEqual([
      ['single', null],
      ['weekly', null],
    ]);
    const most = ITEMS.filter((i) => i.entry.id === 'weekly').slice(0, 2);
    expect(daysOf(ofId(changed({ kind: 'delete' }, 'dates', most), 'weekly'))).toEqual(['06-17']);
  });

  it('are many dates of a series without end', () => {
    const daily = { ...weekly, recurrence: { ...weekly.recurrence!, rule: 'FREQ=DAILY' } };
    const items = itemsOf([daily], { from: RANGE.from, to: RANGE.from + 91 }, HOME);
    const left = ofId(changed({ kind: 'delete' }, 'dates', items), 'weekly');
    expect(left.recurrence!.exceptDates).toHaveLength(items.length);
    expect(daysOf(left, Date.UTC(2027, 0, 1))[0]).toBe('08-31');
  });

  it('are duplicated as entries of their own, whole series with all their dates', () => {
    const dates = changed({ kind: 'duplicate', days: 1 });
    expect(dates).toHaveLength(4);
    expect(dates.every((c) => c.version === 0 && c.id === undefined)).toBe(true);
    const series = changed({ kind: 'duplicate', days: 1 }, 'series');
    expect(series).toHaveLength(2);
    expect(daysOf(series[1]!.entry!)).toEqual(['06-04', '06-11', '06-18']);
  });
});
