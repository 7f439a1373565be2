import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { outwardView } from '../../glass';
import { nextRevision } from '../../reach';
import { RANGE, entryArbitrary, rulesArbitrary } from '../../testing/arbitraries';
import { STREET } from '../../testing/samples';
import { writeForm } from '../formTable';
import type { Notice } from '../notice';
import { lintCalendar } from './lintCalendar';

const NOW = Date.UTC(2026, 5, 10, 15);
const SETTING = {
  addresses: { see: 'https://w.example/see/k', feed: 'https://w.example/feed/k.ics' },
  now: NOW,
};
const NOTICE: Notice = { to: SETTING.addresses, at: NOW, until: NOW + 86_400_000 };

const EVENT = ['UID:a', 'DTSTAMP:20260601T000000Z', 'DTSTART:20260612T100000Z', 'DTEND:20260612T110000Z'];
const calendar = (...lines: string[]) =>
  ['BEGIN:VCALENDAR', 'VERSION:2.0', 'PRODID:-//Test//EN', ...lines, 'END:VCALENDAR', ''].join('\r\n');
const event = (...lines: string[]) => ['BEGIN:VEVENT', ...lines, 'END:VEVENT'];
const without = (name: string) => EVENT.filter((l) => !l.startsWith(name));
const found = (text: string) => lintCalendar(text).map(({ line, section }) => `${line} ${section}`);
const said = (text: string) => lintCalendar(text).map((f) => f.say);

describe('the check of a feed', () => {
  it('finds nothing in what this program writes, for generated windows in every form that is iCalendar', () => {
    fc.assert(
      fc.property(
        fc.array(entryArbitrary, { maxLength: 4 }),
        rulesArbitrary,
        fc.constantFrom(null, NOTICE),
        (entries, rules, notice) => {
          const view = outwardView(entries, rules, RANGE, STREET);
          const revision = nextRevision(null, view, NOW);
          for (const form of ['feed', 'freeBusy', 'copy'] as const)
            expect(lintCalendar(writeForm(form, view, revision, { ...SETTING, notice })), form).toEqual([]);
        },
      ),
      { numRuns: 300, seed: 12 },
    );
  });

  it('tells each fault with its line and the section that it is against', () => {
    expect(found(calendar(...event(...EVENT)))).toEqual([]);
    expect(found(calendar(...event(...EVENT)).replaceAll('\r\n', '\n'))[0]).toBe('1 RFC 5545 section 3.1');
    expect(found(calendar(...event(...EVENT, `SUMMARY:${'é'.repeat(40)}`)))).toEqual([
      '9 RFC 5545 section 3.1',
    ]);
    expect(found(calendar(...event(...EVENT, 'SUMMARY:a\u0007b')))).toEqual(['9 RFC 5545 section 3.3.11']);
    expect(found(calendar())).toEqual(['1 RFC 5545 section 3.6']);
    expect(found(calendar(...event(...without('UID'))))).toEqual(['4 RFC 5545 section 3.8.4.7']);
    expect(found(calendar(...event(...without('DTSTAMP'))))).toEqual(['4 RFC 5545 section 3.8.7.2']);
    expect(found(calendar(...event(...without('DTSTART'))))).toEqual(['4 RFC 5545 section 3.6.1']);
    expect(found(calendar(...event(...EVENT, 'DURATION:PT1H')))).toEqual(['4 RFC 5545 section 3.6.1']);
    expect(found(calendar(...event(...EVENT, 'STATUS:COMPLETED')))).toEqual(['9 RFC 5545 section 3.8.1.11']);
    expect(found(calendar(...event(...EVENT, 'SEQUENCE:one')))).toEqual(['9 RFC 5545 section 3.8.7.4']);
    expect(found(calendar('REFRESH-INTERVAL:PT1H', ...event(...EVENT)))).toEqual(['4 RFC 7986 section 5.7']);
    expect(found(calendar('VERSION:2.0', ...event(...EVENT)))).toEqual(['4 RFC 5545 section 3.7.4']);
    const backwards = [...without('DTEND'), 'DTEND:20260612T090000Z'];
    expect(found(calendar(...event(...backwards)))).toEqual(['8 RFC 5545 section 3.8.2.2']);
    const twice = [...event(...EVENT), ...event(...EVENT)];
    expect(found(calendar(...twice))).toEqual(['10 RFC 5545 section 3.8.4.7']);
    const odd = [...without('DTEND'), 'DTEND:tomorrow'];
    expect(said(calendar(...event(...odd)))).toContain('DTEND “tomorrow” is no date-time.');
  });

  it('looks at zones and recurrence', () => {
    const zoned = [...without('DT'), 'DTSTAMP:20260601T000000Z', 'DTSTART;TZID=Harbour:20260612T100000'];
    expect(said(calendar(...event(...zoned)))).toEqual(['The time zone Harbour is not defined.']);
    const zone = (...parts: string[]) => ['BEGIN:VTIMEZONE', 'TZID:Harbour', ...parts, 'END:VTIMEZONE'];
    const standard = [
      'BEGIN:STANDARD',
      'DTSTART:19700101T000000',
      'TZOFFSETFROM:-0400',
      'TZOFFSETTO:-0400',
      'END:STANDARD',
    ];
    expect(said(calendar(...zone(...standard), ...event(...zoned)))).toEqual([]);
    expect(said(calendar(...zone(), ...event(...zoned)))).toEqual([
      'VTIMEZONE has neither STANDARD nor DAYLIGHT.',
    ]);
    expect(lintCalendar(calendar(...zone(...standard), ...event(...EVENT)))).toMatchObject([
      { weight: 'should', say: 'The time zone Harbour is defined and not used.' },
    ]);
    const rule = (text: string) => said(calendar(...event(...EVENT, `RRULE:${text}`)));
    expect(rule('FREQ=DAILY;COUNT=3')).toEqual([]);
    expect(rule('FREQ=DAILY;COUNT=3;UNTIL=20270101T000000Z')).toContain('RRULE has both COUNT and UNTIL.');
    expect(rule('FREQ=DAILY;UNTIL=20270101')).toEqual(['UNTIL is of another type than DTSTART asks for.']);
    expect(rule('FREQ=SOMETIMES')).toHaveLength(1);
    const series = event(...EVENT, 'RRULE:FREQ=DAILY');
    const date = (id: string) => event(...EVENT, `RECURRENCE-ID${id}`);
    expect(said(calendar(...series, ...date(':20260613T100000Z')))).toEqual([]);
    expect(said(calendar(...series, ...date(';VALUE=DATE:20260613')))).toEqual([
      'RECURRENCE-ID is of another type than DTSTART of its series.',
    ]);
    const same = [...date(':20260613T100000Z'), ...date(':20260613T100000Z')];
    expect(said(calendar(...series, ...same))).toEqual([
      'Two components stand for the same date of a series.',
    ]);
  });

  it('says of what is no calendar that it is none', () => {
    expect(() => lintCalendar('hello')).toThrow();
    expect(() => lintCalendar('BEGIN:VCALENDAR\r\nBEGIN:VEVENT\r\nEND:VCALENDAR\r\n')).toThrow();
  });
});
