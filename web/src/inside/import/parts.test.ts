import { EMPTY_CONTENT, type Entry } from '@zonal/core/entries';
import { fieldText, type DraftEntry, type MergeItem } from '@zonal/core/forms';
import { expect, it } from 'vitest';
import { requestsOf } from './parts';
import { planLine } from './planLine';

const date = (text: string) => ({ kind: 'date', date: text }) as const;
const draft = (n: number, parts: Partial<DraftEntry> = {}): DraftEntry => ({
  ...EMPTY_CONTENT,
  uid: `u${n}`,
  title: `Entry ${n}`,
  start: date('2026-05-01'),
  end: date('2026-05-02'),
  recurrence: null,
  overrides: [],
  ...parts,
});
const item = (n: number, parts: Partial<MergeItem> = {}): MergeItem => ({
  kind: 'new',
  title: `Entry ${n}`,
  start: date('2026-05-01'),
  reason: '',
  fields: [],
  existing: null,
  draft: draft(n),
  imported: { print: 'p', sequence: 0 },
  ...parts,
});

it('sends changes in parts that the server takes, and nothing for what is left out', () => {
  const items = Array.from({ length: 450 }, (_, n) => item(n));
  expect(requestsOf([...items, item(450, { draft: null })], 'c').map((p) => p.length)).toEqual([
    200, 200, 50,
  ]);
  const long = draft(0, { description: 'x'.repeat(400_000) });
  expect(
    requestsOf([item(0, { draft: long }), item(1, { draft: long }), item(2, { draft: long })], 'c'),
  ).toHaveLength(2);
  expect(requestsOf([], 'c')).toEqual([]);
});

it('changes what is there with its identifiers and the version that was seen', () => {
  const existing: Entry = { ...draft(1), id: 'e', calendarId: 'c', version: 4, uid: 'mine' };
  const [[change]] = requestsOf([item(1, { existing })], 'c') as [[unknown]];
  expect(change).toMatchObject({ id: 'e', uid: 'mine', version: 4, imported: { print: 'p' } });
});

it('tells a changed entry field by field, in words', () => {
  const existing: Entry = { ...draft(1), id: 'e', calendarId: 'c', version: 4 };
  const line = planLine(
    item(1, {
      existing,
      kind: 'changed',
      fields: ['start', 'labels', 'recurrence'],
      draft: draft(1, {
        start: { kind: 'zoned', at: '2026-05-03T09:30:00', zone: 'UTC' },
        labels: ['a', 'b'],
        recurrence: { rule: 'FREQ=WEEKLY', dates: [], exceptDates: [date('2026-05-10')] },
      }),
    }),
    7,
  );
  expect(line).toMatchObject({ at: 7, when: 'Fri 1 May 2026' });
  expect(line.apart).toEqual([
    { field: 'start', here: 'Fri 1 May 2026', file: 'Sun 3 May 2026, 09:30 UTC' },
    { field: 'labels', here: '', file: 'a; b' },
    { field: 'recurrence', here: '', file: 'every week, not on Sun 10 May 2026' },
  ]);
});

it('tells people, links and changed dates in a list', () => {
  expect(
    fieldText('people', [
      { name: 'Ida', address: 'ida@x.example' },
      { name: 'Crew', address: '' },
    ]),
  ).toBe('Ida (ida@x.example); Crew');
  expect(
    fieldText('overrides', [
      { slot: date('2026-05-01'), start: date('2026-05-02'), content: { title: 'Late' } },
    ]),
  ).toBe('Fri 1 May 2026 → Sat 2 May 2026 Late');
});
