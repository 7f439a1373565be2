import fc from 'fast-check';
import ICAL from 'ical.js';
import { describe, expect, it } from 'vitest';
import { canonical, contentOf, type Content, type Entry } from '../entries';
import { entryArbitrary } from '../testing/arbitraries';
import { HOST, date, entry, zoned } from '../testing/samples';
import { writeEntries, writeJCal } from './insideCalendar';
import { readCalendar } from './read/readCalendar';

const NOW = Date.UTC(2026, 5, 1);
const SETTING = { name: 'Quay; and lock', zone: HOST, now: Date.UTC(2026, 5, 1) };
const readAgain = (entries: readonly Entry[]) =>
  readCalendar(new TextEncoder().encode(writeEntries(entries, SETTING)), HOST, { now: NOW }).entries;

/** What the application lets in: one-line titles and places without blanks around them, no control characters. */
const typed = (text: string) =>
  text.replace(/\r\n?/g, '\n').replace(/[\u0000-\u0008\u000b-\u001f\u007f]/g, '');
const oneLine = (text: string) => typed(text).replace(/\s+/g, ' ').trim();
const tidy = (c: Content): Content => ({
  ...contentOf(c),
  title: oneLine(c.title),
  place: oneLine(c.place),
  description: typed(c.description),
  contact: oneLine(c.contact),
  image: c.image && { ...c.image, alt: oneLine(c.image.alt) || 'Quay' },
  labels: [...new Set(c.labels)],
});
const saying = ({
  id: _id,
  calendarId: _calendar,
  version: _version,
  imported: _imported,
  ...rest
}: Entry) => ({
  ...rest,
  overrides: [...rest.overrides].sort((a, b) => (canonical(a.slot) < canonical(b.slot) ? -1 : 1)),
});

describe('an exported file', () => {
  it('gives the same entries when it is read again, for generated calendars', () => {
    fc.assert(
      fc.property(fc.uniqueArray(entryArbitrary, { maxLength: 5, selector: (e) => e.uid }), (generated) => {
        const entries = generated.map((e) => ({
          ...e,
          ...tidy(e),
          overrides: e.overrides.map((o) => ({ ...o, content: tidy(o.content) })),
        }));
        const read = readAgain(entries).map((d) => ({ ...d, id: '', calendarId: '', version: 1 }));
        expect(read.map(saying)).toEqual(entries.map(saying));
      }),
      { numRuns: 500, seed: 99 },
    );
  });

  it('keeps properties that have no field here', () => {
    const one = entry({
      start: zoned('2026-05-01T10:00'),
      kept: [
        ['x-vendor', { 'x-mode': 'a;b' }, 'unknown', 'v,1'],
        ['priority', {}, 'integer', 5],
        ['geo', {}, 'float', [44.5, -63.25]],
      ],
    });
    expect(readAgain([one])[0]!.kept).toEqual(one.kept);
  });

  it('writes due items as tasks that other programs understand', () => {
    const text = writeEntries(
      [
        entry({
          kind: 'due',
          start: date('2026-05-01'),
          end: date('2026-05-02'),
          status: 'done',
          shows: 'free',
        }),
        entry({ id: 'm', kind: 'milestone', start: date('2026-05-04'), planned: date('2026-05-01') }),
      ],
      SETTING,
    );
    const calendar = new ICAL.Component(ICAL.parse(text) as never);
    const task = calendar.getFirstSubcomponent('vtodo')!;
    expect(String(task.getFirstPropertyValue('due'))).toBe('2026-05-01');
    expect(task.getFirstPropertyValue('status')).toBe('COMPLETED');
    expect(text).toContain('X-ZONAL-PLANNED;VALUE=DATE:20260501');
  });

  it('is valid jCal in its other form', () => {
    const jcal = JSON.parse(writeJCal([entry({ start: zoned('2026-05-01T10:00') })], SETTING)) as unknown[];
    expect(jcal[0]).toBe('vcalendar');
    const calendar = new ICAL.Component(jcal as never);
    expect(calendar.getFirstSubcomponent('vevent')!.getFirstPropertyValue('summary')).toBe('Lock inspection');
    expect(calendar.getFirstSubcomponent('vtimezone')!.getFirstPropertyValue('tzid')).toBe(HOST);
  });
});
