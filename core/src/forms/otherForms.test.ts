import fc from 'fast-check';
import ICAL from 'ical.js';
import Papa from 'papaparse';
import { describe, expect, it } from 'vitest';
import { occurrencesOfView, outwardView } from '../glass';
import { nextRevision } from '../reach';
import { RANGE, entryArbitrary, rulesArbitrary } from '../testing/arbitraries';
import { STREET, date, entry, rulesOf, zoned } from '../testing/samples';
import { FORMS, FORM_NAMES, formAt, writeForm } from './formTable';
import type { Notice } from './notice';

const NOW = Date.UTC(2026, 5, 10, 15);
const ADDRESSES = { see: 'https://w.example/see/k', feed: 'https://w.example/feed/k.ics' };
const NOTICE: Notice = {
  to: { see: 'https://w.example/see/new', feed: 'https://w.example/feed/new.ics' },
  at: NOW,
  until: NOW + 14 * 86_400_000,
};
const rows = (text: string) => Papa.parse<string[]>(text.trimEnd()).data;

describe('the forms beside the feed', () => {
  it('tell the same: jCal every property of it, the table every single time, for generated windows', () => {
    fc.assert(
      fc.property(
        fc.array(entryArbitrary, { maxLength: 4 }),
        rulesArbitrary,
        fc.constantFrom(null, NOTICE),
        (entries, rules, notice) => {
          const view = outwardView(entries, rules, RANGE, STREET);
          const revision = nextRevision(null, view, NOW);
          const setting = { addresses: ADDRESSES, now: NOW, notice };
          const feed = writeForm('feed', view, revision, setting);
          expect(JSON.parse(writeForm('jCal', view, revision, setting))).toEqual(
            JSON.parse(JSON.stringify(ICAL.parse(feed))),
          );
          const [head, ...all] = rows(writeForm('table', view, revision, setting));
          const told = notice ? all.slice(1) : all;
          const times = occurrencesOfView(view);
          expect(told).toHaveLength(times.length);
          expect(all.every((row) => row.length === head!.length)).toBe(true);
          told.forEach((row, i) => {
            const { start, end, from, to, content } = times[i]!;
            const [startDate, startTime, endDate, endTime, zone] = row;
            const offsets = row.slice(head!.indexOf('Start offset')).slice(0, 2);
            const calendar = head!.indexOf('Calendar');
            if (calendar >= 0) expect(row[calendar]!.replace(/^'/, '')).toBe(content?.calendar ?? '');
            if (start.kind === 'date') return expect([startDate, startTime]).toEqual([start.date, '']);
            if (start.kind === 'floating' && end.kind === 'floating') {
              expect(`${startDate}T${startTime}`).toBe(start.at.slice(0, 16));
              expect(`${endDate}T${endTime}`).toBe(end.at.slice(0, 16));
              expect([zone, ...offsets]).toEqual(['', '', '']);
            } else {
              expect(zone).toBe(view.hostZone);
              // Also of a time that clocks show twice; tables tell minutes.
              const at = (day: string, time: string, offset: string) =>
                Date.parse(`${day}T${time}:00${offset.slice(3)}`);
              const minute = (instant: number) => Math.floor(instant / 60_000) * 60_000;
              expect(at(startDate!, startTime!, offsets[0]!)).toBe(minute(from));
              expect(at(endDate!, endTime!, offsets[1]!)).toBe(minute(to));
            }
            const title = content ? content.title : view.wording.busyWord;
            const own = row[head!.indexOf('Title')]!;
            expect(own.replace(/^'(?=[=+\-@\t\r])/, '')).toBe(title);
          });
        },
      ),
      { numRuns: 300, seed: 11 },
    );
  });

  it('have the same columns whatever the glass, and nothing in those that it keeps back', () => {
    const one = entry({
      start: zoned('2026-06-12T10:00'),
      title: '=cmd()',
      description: 'Depth',
      people: [{ name: 'Ida', address: '' }],
    });
    const table = (glass: 'clear' | 'tinted' | 'frosted') => {
      const view = outwardView([one], rulesOf(glass), RANGE, STREET);
      return rows(
        writeForm('table', view, nextRevision(null, view, NOW), { addresses: ADDRESSES, now: NOW }),
      );
    };
    const [head, row] = table('clear');
    expect([table('tinted')[0], table('frosted')[0]]).toEqual([head, head]);
    expect(row![head!.indexOf('Title')]).toBe("'=cmd()");
    expect(row![head!.indexOf('Description')]).toBe('Depth');
    expect(row![head!.indexOf('People')]).toBe('');
    expect(table('tinted')[1]![head!.indexOf('Description')]).toBe('');
    expect(table('frosted')[1]!.filter(Boolean)).toEqual([
      '2026-06-12',
      '10:00',
      '2026-06-12',
      '11:00',
      'America/Halifax',
      'Taken',
      'UTC-03:00',
      'UTC-03:00',
    ]);
    expect(head!.slice(-2)).toEqual(['Start offset', 'End offset']);
    const days = entry({ start: date('2026-06-12'), end: date('2026-06-14') });
    const view = outwardView([days], rulesOf('clear'), RANGE, STREET);
    const whole = rows(
      writeForm('table', view, nextRevision(null, view, NOW), { addresses: ADDRESSES, now: NOW }),
    );
    expect(whole[1]!.slice(0, 5)).toEqual(['2026-06-12', '', '2026-06-13', '', '']);
  });

  it('tell of a new address in their head alone, where another key has the old one', () => {
    const view = outwardView([entry({ start: zoned('2026-06-12T10:00') })], rulesOf('clear'), RANGE, STREET);
    const revision = nextRevision(null, view, NOW);
    for (const name of FORM_NAMES.filter((n) => n !== 'copy')) {
      const plain = FORMS[name].parts(view, revision, { addresses: ADDRESSES, now: NOW });
      const moved = FORMS[name].parts(view, revision, { addresses: ADDRESSES, now: NOW, notice: NOTICE });
      expect(moved.blocks, name).toEqual(plain.blocks);
      expect(moved.head.replace(/\r\n /g, ''), name).toContain('https://w.example/feed/new.ics');
      expect(plain.head, name).not.toContain('/new');
    }
  });

  it('have an address each', () => {
    const places = FORM_NAMES.map((name) => `${FORMS[name].folder}.${FORMS[name].ending}`);
    expect(new Set(places).size).toBe(FORM_NAMES.length);
    for (const name of FORM_NAMES) expect(formAt(FORMS[name].folder, FORMS[name].ending)).toBe(name);
    expect(formAt('feed', 'exe')).toBeNull();
  });
});
