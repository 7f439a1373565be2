import { readFileSync, readdirSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { occurrencesOf, type Entry } from '../../entries';
import { Problem } from '../../problems';
import { readCalendar } from './readCalendar';
import type { DraftEntry, ReadResult } from './report';

const NOW = Date.UTC(2026, 5, 1);
const FOLDER = new URL('../../../corpus/', import.meta.url);
const HOME = 'America/Halifax';
const read = (file: string) =>
  readCalendar(new Uint8Array(readFileSync(new URL(file, FOLDER))), HOME, { now: NOW });

const asEntry = (draft: DraftEntry): Entry => ({ ...draft, id: draft.uid, calendarId: 'c', version: 1 });
/** Starts of all occurrences in 2026 as UTC texts. */
const startsOf = (draft: DraftEntry) =>
  occurrencesOf(asEntry(draft), { from: Date.UTC(2026, 0, 1), to: Date.UTC(2027, 0, 1) }, HOME).map((o) =>
    new Date(o.from).toISOString().slice(0, 16),
  );
const only = (result: ReadResult) => {
  expect(result.entries).toHaveLength(1);
  return result.entries[0]!;
};
const notes = (result: ReadResult) => result.items.flatMap((i) => i.notes).join(' | ');
const zonedStart = (at: string, zone: string) => ({ kind: 'zoned', at, zone });

type Check = (result: ReadResult) => void;

/** One file a difficulty, and what must come of it. */
const FILES: Record<string, Check> = {
  '01-folded-lines.ics': (r) => {
    expect(only(r).title).toBe('A title that is long enough to be folded in the middle of a word');
    expect(only(r).description).toBe('First line\nsecond line, with a comma');
    expect(r.items[0]!.outcome).toBe('read');
  },
  '02-fold-inside-character.ics': (r) => {
    expect(only(r).title).toBe('Møns kai é tower');
    expect(r.notes).toEqual([]);
  },
  '03-windows-zone-name.ics': (r) => {
    expect(only(r).start).toEqual(zonedStart('2026-07-10T09:00:00', HOME));
    expect(notes(r)).toContain('Windows name');
    expect(r.items[0]!.outcome).toBe('changed');
  },
  '04-own-zone-definition.ics': (r) => {
    expect(only(r).start).toEqual(zonedStart('2026-07-10T09:00:00', HOME));
    expect(notes(r)).toContain('its clocks go alike');
  },
  '05-zone-definition-like-none.ics': (r) => {
    expect(only(r).start).toEqual(zonedStart('2026-07-10T07:40:00', 'UTC'));
    expect(notes(r)).toContain('computed by its definition');
  },
  '06-zone-hint-in-definition.ics': (r) =>
    expect(only(r).start).toEqual(zonedStart('2026-07-10T09:00:00', HOME)),
  '07-zone-in-path.ics': (r) =>
    expect(only(r).start).toEqual(zonedStart('2026-07-10T09:00:00', 'Europe/London')),
  '08-unknown-zone.ics': (r) => {
    expect(only(r).start).toEqual({ kind: 'floating', at: '2026-07-10T09:00:00' });
    expect(notes(r)).toContain('“Nowhere/Never” is not known');
  },
  '09-floating.ics': (r) => {
    expect(only(r).start).toEqual({ kind: 'floating', at: '2026-07-10T09:00:00' });
    expect(r.items[0]!.outcome).toBe('read');
  },
  '10-duration.ics': (r) => expect(only(r).end).toEqual(zonedStart('2026-07-11T11:30:00', HOME)),
  '11-override-without-master.ics': (r) => {
    expect(only(r).recurrence).toBeNull();
    expect(startsOf(only(r))).toEqual(['2026-07-11T12:00']);
    expect(notes(r)).toContain('not in the file');
  },
  '12-exdate-as-date.ics': (r) =>
    expect(startsOf(only(r)).map((s) => s.slice(8, 10))).toEqual(['06', '07', '09', '10']),
  '13-exdate-in-utc.ics': (r) =>
    expect(startsOf(only(r)).map((s) => s.slice(8, 10))).toEqual(['06', '07', '09', '10']),
  '14-several-calendars.ics': (r) => {
    expect(r.names).toEqual(['Quay', 'Lock']);
    expect(r.entries.map((e) => e.title)).toEqual(['First', 'Second']);
    expect(r.notes.join()).toContain('2 calendars');
  },
  '15-unknown-properties.ics': (r) => {
    expect(only(r).kept).toEqual([
      ['x-draft-metres', { 'x-unit': 'm' }, 'unknown', '7.4'],
      ['priority', {}, 'integer', 3],
      ['geo', {}, 'float', [44.65, -63.57]],
    ]);
  },
  '16-lf-line-ends.ics': (r) => expect(only(r).title).toBe('Line feed'),
  '17-cr-line-ends.ics': (r) => expect(only(r).title).toBe('Carriage return'),
  '18-byte-order-mark.ics': (r) => expect(only(r).title).toBe('Marked ü'),
  '19-latin-1.ics': (r) => {
    expect(only(r).title).toBe('Fête du quai à l’écluse');
    expect(r.notes.join()).toContain('Latin-1');
  },
  '20-utf-16.ics': (r) => expect(only(r).title).toBe('Wide ø'),
  '21-all-day-without-end.ics': (r) => expect(only(r).end).toEqual({ kind: 'date', date: '2026-07-02' }),
  '22-all-day-end-same-day.ics': (r) => expect(only(r).end).toEqual({ kind: 'date', date: '2026-07-02' }),
  '23-override-as-date.ics': (r) => {
    expect(startsOf(only(r)).slice(0, 3)).toEqual([
      '2026-07-06T12:00',
      '2026-07-07T14:00',
      '2026-07-08T12:00',
    ]);
  },
  '24-override-in-utc.ics': (r) => {
    expect(startsOf(only(r)).slice(0, 3)).toEqual([
      '2026-07-06T12:00',
      '2026-07-07T14:00',
      '2026-07-08T12:00',
    ]);
    expect(notes(r)).toContain('fitted to the clock');
  },
  '25-private-entries.ics': (r) => expect(r.entries.map((e) => e.hold)).toEqual(['frost', 'keep-in']),
  '26-broken-rule.ics': (r) => {
    expect(startsOf(only(r))).toEqual(['2026-03-10T14:00']);
    expect(notes(r)).toContain('FREQ is missing or not a known frequency');
  },
  '27-tasks-and-reminders.ics': (r) => {
    expect(r.items.map((i) => i.outcome)).toEqual(['left-out', 'changed']);
    expect(notes(r)).toContain('It is a task');
    expect(notes(r)).toContain('reminders were left out');
  },
  '28-end-before-start.ics': (r) => {
    expect(only(r).end).toEqual(only(r).start);
    expect(notes(r)).toContain('end is before its start');
  },
  '29-no-uid.ics': (r) => {
    expect(new Set(r.entries.map((e) => e.uid)).size).toBe(2);
    expect(r.items.every((i) => i.outcome === 'changed')).toBe(true);
  },
  '30-no-start.ics': (r) => {
    expect(only(r).title).toBe('Good');
    expect(r.items[0]).toMatchObject({ outcome: 'left-out', line: 4, title: 'When?' });
  },
  '31-people-and-links.ics': (r) => {
    expect(only(r)).toMatchObject({
      labels: ['lock', 'works', 'night'],
      publicLink: 'https://ostrel.example/briefing',
      joinLink: 'https://meet.ostrel.example/b?pin=77',
      contact: 'Ida Maren <ida@ostrel.example>',
      people: [
        { name: 'Wick, Jon', address: 'jon@ostrel.example' },
        { name: '', address: '' },
      ],
      attachments: [{ name: 'plan.pdf', href: 'https://ostrel.example/plan.pdf' }],
    });
    expect(notes(r)).toContain('A file inside the entry was left out');
  },
  '32-newer-and-older.ics': (r) => {
    expect(only(r).title).toBe('New');
    expect(notes(r)).toContain('a newer version');
  },
  '33-rdate-and-hour-24.ics': (r) =>
    expect(startsOf(only(r))).toEqual(['2026-03-11T00:00', '2026-03-15T00:00', '2026-03-18T00:00']),
  '35-bad-line.ics': (r) => {
    expect(notes(r)).toContain('Line 9 was left out');
    expect(r.entries).toHaveLength(r.items.length);
  },
  '38-quoted-parameters.ics': (r) => {
    expect(only(r)).toMatchObject({ place: 'North gate; by the lamp', title: 'Gate' });
    expect(only(r).start).toEqual(zonedStart('2026-07-10T09:00:00', HOME));
  },
};

const REFUSED: Record<string, { code: string; line?: number }> = {
  '34-bad-no-end.ics': { code: 'file-malformed', line: 8 },
  '36-bad-not-a-calendar.ics': { code: 'file-not-calendar', line: 1 },
  '37-bad-empty.ics': { code: 'file-empty' },
};

describe('the corpus of files', () => {
  it('has a check for every file', () => {
    const files = readdirSync(FOLDER).filter((f) => f.endsWith('.ics'));
    expect(files.sort()).toEqual([...Object.keys(FILES), ...Object.keys(REFUSED)].sort());
  });

  for (const [file, check] of Object.entries(FILES)) {
    it(`reads ${file}`, () => {
      const result = read(file);
      // Nothing is lost silently: every component but time zones has its line in the report.
      const source = new TextDecoder('latin1').decode(readFileSync(new URL(file, FOLDER))).replace(/\0/g, '');
      expect(result.items).toHaveLength(source.match(/BEGIN:V(EVENT|TODO)/g)!.length);
      check(result);
    });
  }

  for (const [file, { code, line }] of Object.entries(REFUSED)) {
    it(`refuses ${file}`, () => {
      try {
        read(file);
        expect.unreachable();
      } catch (error) {
        expect(error).toBeInstanceOf(Problem);
        expect((error as Problem).code).toBe(code);
        expect((error as Problem).details['line']).toBe(line);
      }
    });
  }
});
