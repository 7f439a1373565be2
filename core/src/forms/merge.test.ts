import { describe, expect, it } from 'vitest';
import { printOfEntry, sequenceOf, type Entry } from '../entries';
import { HOST, entry, zoned } from '../testing/samples';
import { writeEntries } from './insideCalendar';
import { mergePlan } from './merge';
import { readCalendar } from './read/readCalendar';

const NOW = Date.UTC(2026, 5, 1);
const SETTING = { name: 'Quay', zone: HOST, now: Date.UTC(2026, 5, 1) };
const fileOf = (...entries: Entry[]) =>
  readCalendar(new TextEncoder().encode(writeEntries(entries, SETTING)), HOST, { now: NOW });

const tour = entry({ id: 'tour', uid: 'tour@x', title: 'Tour', start: zoned('2026-05-01T10:00') });
/** The entry as it stands here after it was brought in from a file, and perhaps changed since. */
const here = (from: Entry, changed: Partial<Entry> = {}): Entry => ({
  ...from,
  ...changed,
  imported: { print: printOfEntry(from), sequence: sequenceOf(from) },
});
const sequence = (n: number): Partial<Entry> => ({ kept: [['sequence', {}, 'integer', n]] });
const kinds = (file: Entry[], existing: Entry[]) =>
  mergePlan(fileOf(...file), existing, HOST).map((i) => i.kind);

describe('the preview of an import', () => {
  it('knows what is new, the same and changed', () => {
    expect(kinds([tour], [])).toEqual(['new']);
    expect(kinds([tour], [here(tour)])).toEqual(['same']);
    const [item] = mergePlan(
      fileOf({ ...tour, place: 'Quay', end: zoned('2026-05-01T12:00') }),
      [here(tour)],
      HOST,
    );
    expect(item).toMatchObject({ kind: 'changed', fields: ['place', 'end'], existing: { id: 'tour' } });
  });

  it('brings the same file in twice without a change, whatever marks the program sets anew', () => {
    expect(kinds([{ ...tour, ...sequence(3) }], [here({ ...tour, ...sequence(2) })])).toEqual(['same']);
  });

  it('keeps what was changed here while the file stayed', () => {
    const [item] = mergePlan(fileOf(tour), [here(tour, { title: 'Tour, sold out' })], HOST);
    expect(item).toMatchObject({ kind: 'same', draft: null, fields: ['title'] });
    expect(item!.reason).toContain('changed here since');
  });

  it('names a conflict where both were changed, or nothing is known of the past', () => {
    const file = { ...tour, title: 'Walk' };
    expect(kinds([file], [here(tour, { place: 'Mole' })])).toEqual(['conflict']);
    expect(kinds([file], [tour])).toEqual(['conflict']);
    expect(kinds([file], [here(tour, { title: 'Walk' })])).toEqual(['same']);
  });

  it('leaves out what the file holds in an older version', () => {
    const [item] = mergePlan(
      fileOf({ ...tour, title: 'Old', ...sequence(1) }),
      [here({ ...tour, ...sequence(4) })],
      HOST,
    );
    expect(item).toMatchObject({ kind: 'left-out', draft: null });
    expect(item!.reason).toContain('version 4 is here already');
  });

  it('fits a single changed date into the series that is here', () => {
    const series = entry({
      id: 'walk',
      uid: 'walk@x',
      start: zoned('2026-05-01T10:00'),
      recurrence: { rule: 'FREQ=WEEKLY', dates: [], exceptDates: [] },
    });
    const text = [
      'BEGIN:VCALENDAR',
      'BEGIN:VEVENT',
      'UID:walk@x',
      'RECURRENCE-ID;TZID=America/Halifax:20260508T100000',
      'DTSTART;TZID=America/Halifax:20260508T110000',
      'DTEND;TZID=America/Halifax:20260508T120000',
      'SUMMARY:Later that day',
      'END:VEVENT',
      'END:VCALENDAR',
    ].join('\r\n');
    const read = readCalendar(new TextEncoder().encode(text), HOST, { now: NOW });
    const [item] = mergePlan(read, [series], HOST);
    expect(item).toMatchObject({ kind: 'changed', existing: { id: 'walk' } });
    expect(item!.draft!.overrides).toMatchObject([
      {
        slot: zoned('2026-05-08T10:00'),
        start: zoned('2026-05-08T11:00'),
        content: { title: 'Later that day' },
      },
    ]);
    // A date that the series does not have is an entry of its own.
    const other = mergePlan(
      read,
      [{ ...series, start: zoned('2026-05-02T10:00'), end: zoned('2026-05-02T11:00') }],
      HOST,
    );
    expect(other[0]!.kind).toBe('new');
  });

  it('lists what the file holds and cannot be brought in, with the reason', () => {
    const text = 'BEGIN:VCALENDAR\r\nBEGIN:VJOURNAL\r\nSUMMARY:Note\r\nEND:VJOURNAL\r\nEND:VCALENDAR';
    const plan = mergePlan(readCalendar(new TextEncoder().encode(text), HOST, { now: NOW }), [], HOST);
    expect(plan).toMatchObject([{ kind: 'left-out', title: 'Note', start: null }]);
    expect(plan[0]!.reason).toContain('Line 2: It is a journal note');
  });
});
