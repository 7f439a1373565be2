import fc from 'fast-check';
import { EMPTY_CONTENT, type Entry, type When } from '@zonal/core/entries';
import { dayFromText } from '@zonal/core/zones';
import { expect, it } from 'vitest';
import { blankForm, type EntryForm } from './entryForm';
import { fieldErrors } from './fieldErrors';
import { changedFieldWords, disputeWords, mergeForms, withFields } from './mergeForms';

const BASE = blankForm('America/Halifax', dayFromText('2026-05-13'));
const form = (parts: object): EntryForm => ({ ...BASE, ...parts });

it('keeps what either of two people changed', () => {
  const merged = mergeForms(BASE, form({ title: 'Mine', labels: 'works' }), form({ place: 'Quay' }));
  expect(merged).toEqual({ form: form({ title: 'Mine', labels: 'works', place: 'Quay' }), disputes: [] });
});

it('asks only for what both changed differently, and takes what they changed alike', () => {
  const mine = form({ title: 'Mine', place: 'Quay', description: 'One' });
  const theirs = form({ title: 'Theirs', place: 'Quay' });
  const { form: merged, disputes } = mergeForms(BASE, mine, theirs);
  expect(disputes.map((d) => d.form)).toEqual([['title']]);
  expect(merged).toEqual(form({ title: 'Mine', place: 'Quay', description: 'One' }));
  expect(withFields(merged, theirs, disputes).title).toBe('Theirs');
});

it('takes start and end as one thing, and a rule with its parts', () => {
  const { form: merged, disputes } = mergeForms(
    BASE,
    form({ endTime: '12:00' }),
    form({ startTime: '08:00' }),
  );
  expect(disputes.map((d) => d.entry)).toEqual([['start', 'end']]);
  expect(merged).toMatchObject({ startTime: '09:00', endTime: '12:00' });
  const rules = mergeForms(BASE, form({ recurs: 'daily' }), form({ recurs: 'weekly', weekdays: [2] }));
  expect(rules.disputes.map((d) => d.entry)).toEqual([['recurrence']]);
});

it('loses nothing of either side, for generated changes', () => {
  const change = fc.record(
    {
      title: fc.constantFrom('A', 'B', ''),
      place: fc.constantFrom('A', 'B', ''),
      startTime: fc.constantFrom('08:00', '09:00'),
      endTime: fc.constantFrom('10:00', '11:00'),
      weekdays: fc.constantFrom<number[]>([], [1], [1, 2]),
      status: fc.constantFrom('confirmed' as const, 'tentative' as const),
    },
    { requiredKeys: [] },
  );
  fc.assert(
    fc.property(change, change, (mine, theirs) => {
      const [own, other] = [form(mine), form(theirs)];
      const { form: merged, disputes } = mergeForms(BASE, own, other);
      const disputed = disputes.flatMap((d) => d.form);
      // Each field is as in one of both, and where nothing is asked, as whoever changed it wants it.
      expect(mergeForms(BASE, own, BASE).form).toEqual(own);
      expect(mergeForms(BASE, BASE, other).form).toEqual(other);
      for (const field of ['title', 'place', 'status'] as const)
        if (!disputed.includes(field))
          expect(merged[field]).toBe(own[field] === BASE[field] ? other[field] : own[field]);
      expect(mergeForms(BASE, other, own).disputes).toEqual(disputes);
    }),
  );
});

it('says a dispute with both texts', () => {
  const at = (hour: string): When => ({
    kind: 'zoned',
    at: `2026-05-13T${hour}:00:00`,
    zone: 'America/Halifax',
  });
  const entry = (hour: string, place: string): Entry => ({
    ...{ ...EMPTY_CONTENT, title: 'Crane test', place, start: at(hour), end: at('12'), recurrence: null },
    ...{ overrides: [], id: 'e', calendarId: 'c', version: 1, uid: 'u' },
  });
  const [mine, theirs] = [entry('09', ''), entry('10', 'Quay')];
  expect(changedFieldWords(mine, theirs)).toEqual(['place', 'start']);
  const place = disputeWords({ form: ['place'], entry: ['place'] }, mine, theirs);
  expect(place).toEqual({ about: 'place', mine: 'nothing', theirs: 'Quay' });
  const times = disputeWords({ form: [], entry: ['start', 'end'] }, mine, theirs);
  expect(times.about).toBe('start and end');
  expect(times.mine).not.toBe(times.theirs);
});

it('marks the field that a refusal is about', () => {
  const problem = (code: string, details = {}) => ({ code, message: 'Why', details }) as never;
  expect(fieldErrors(null, BASE)).toEqual({});
  expect(fieldErrors(problem('end-before-start'), BASE)).toEqual({ endTime: 'Why' });
  expect(fieldErrors(problem('end-before-start'), form({ clock: 'date' }))).toEqual({ endDate: 'Why' });
  expect(fieldErrors(problem('rule-invalid'), BASE)).toEqual({ interval: 'Why' });
  const errors = [{ field: 'changes.0.entry.publicLink', say: 'is no address' }];
  expect(fieldErrors(problem('input-invalid', { errors }), BASE)).toEqual({ publicLink: 'is no address' });
  expect(fieldErrors(problem('storage-away'), BASE)).toEqual({});
});
