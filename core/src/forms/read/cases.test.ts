import ICAL from 'ical.js';
import { describe, expect, it } from 'vitest';
import { occurrencesOf, type Entry } from '../../entries';
import { Problem } from '../../problems';
import { HOUR, MINUTE, clockChanges, offsetAt, wallToText, utcWall } from '../../zones';
import { timeZoneLines } from '../icsTimeZone';
import { writeEntries } from '../insideCalendar';
import { mergePlan } from '../merge';
import { readCalendar } from './readCalendar';
import type { DraftEntry, ReadResult } from './report';

const NOW = Date.UTC(2026, 5, 1);
const HOME = 'America/Halifax';
const file = (...lines: string[]) =>
  ['BEGIN:VCALENDAR', 'VERSION:2.0', ...lines, 'END:VCALENDAR'].join('\r\n');
const event = (...lines: string[]) => ['BEGIN:VEVENT', 'UID:e1', 'SUMMARY:One', ...lines, 'END:VEVENT'];
const task = (...lines: string[]) => ['BEGIN:VTODO', 'UID:t1', 'SUMMARY:Task', ...lines, 'END:VTODO'];
const bytes = (text: string) => new TextEncoder().encode(text);
const read = (text: string, homes: string | string[] = HOME) =>
  readCalendar(bytes(text), homes, { now: NOW });
const only = (r: ReadResult): DraftEntry => {
  expect(r.entries).toHaveLength(1);
  return r.entries[0]!;
};
const notes = (r: ReadResult) => r.items.flatMap((i) => i.notes).join(' | ');
const asEntry = (d: DraftEntry): Entry => ({ ...d, id: d.uid, calendarId: 'c', version: 1 });
const times = (d: DraftEntry, from = Date.UTC(2026, 0, 1), to = Date.UTC(2028, 0, 1)) =>
  occurrencesOf(asEntry(d), { from, to }, HOME).map(
    (o) => `${wallToText(utcWall(o.from)).slice(0, 16)}/${wallToText(utcWall(o.to)).slice(0, 16)}`,
  );
/** A definition as other programs write it: two rules. */
const definition = (
  id: string,
  standard: number,
  daylight: number,
  toDaylight: string,
  toStandard: string,
) => {
  const offset = (hours: number) =>
    `${hours < 0 ? '-' : '+'}${String(Math.floor(Math.abs(hours))).padStart(2, '0')}${String((Math.abs(hours) % 1) * 60).padStart(2, '0')}`;
  const part = (kind: string, from: number, to: number, rule: string) => [
    `BEGIN:${kind}`,
    `DTSTART:${kind === 'DAYLIGHT' ? '20070311' : '20071104'}T020000`,
    `RRULE:FREQ=YEARLY;${rule}`,
    `TZOFFSETFROM:${offset(from)}`,
    `TZOFFSETTO:${offset(to)}`,
    `END:${kind}`,
  ];
  return [
    'BEGIN:VTIMEZONE',
    `TZID:${id}`,
    ...part('DAYLIGHT', standard, daylight, toDaylight),
    ...part('STANDARD', daylight, standard, toStandard),
    'END:VTIMEZONE',
  ];
};
const US = ['BYMONTH=3;BYDAY=2SU', 'BYMONTH=11;BYDAY=1SU'] as const;

describe('time zones of files', () => {
  it('are matched by their names as text, however these are escaped or quoted', () => {
    const zone = [
      'BEGIN:VTIMEZONE',
      'TZID:(UTC+07:00) Bangkok\\, Hanoi\\, Jakarta',
      'BEGIN:STANDARD',
      'DTSTART:16010101T000000',
      'TZOFFSETFROM:+0700',
      'TZOFFSETTO:+0700',
      'END:STANDARD',
      'END:VTIMEZONE',
    ];
    for (const name of [
      '"(UTC+07:00) Bangkok, Hanoi, Jakarta"',
      '(UTC+07:00) Bangkok\\, Hanoi\\, Jakarta',
      '"(UTC+07:00) Bangkok\\, Hanoi\\, Jakarta"',
    ]) {
      const r = read(file(...zone, ...event(`DTSTART;TZID=${name}:20260710T090000`)));
      expect(only(r).start).toEqual({ kind: 'zoned', at: '2026-07-10T09:00:00', zone: 'Asia/Bangkok' });
      expect(notes(r)).toContain('read as Asia/Bangkok');
    }
  });

  it.each([
    ['Pacific', -8, -7, US, 'America/Los_Angeles'],
    ['Eastern', -5, -4, US, 'America/New_York'],
    ['Atlantic', -4, -3, US, 'America/Halifax'],
  ] as const)(
    'of several alike, the one that people mean counts: %s',
    (id, standard, daylight, rules, zone) => {
      const text = file(
        ...definition(`Own ${id}`, standard, daylight, ...rules),
        ...event(`DTSTART;TZID=Own ${id}:20260710T090000`),
      );
      const r = read(text, 'Europe/Lisbon');
      expect(only(r).start).toMatchObject({ zone });
      expect(notes(r)).toMatch(/as in \d+ other zones; check that it is this one/);
    },
  );

  it('of several alike, one that the calendar, the house or the file makes likely comes first', () => {
    const eastern = definition('Custom', 2, 3, 'BYMONTH=3;BYDAY=-1SU', 'BYMONTH=10;BYDAY=-1SU').map((l) =>
      l.startsWith('DTSTART') ? l.replace('T020000', l.includes('0311') ? 'T030000' : 'T040000') : l,
    );
    const one = (homes: string[], ...more: string[]) =>
      only(read(file(...more, ...eastern, ...event('DTSTART;TZID=Custom:20260710T090000')), homes)).start;
    expect(one([HOME, 'Europe/Athens'])).toMatchObject({ zone: 'Europe/Athens' });
    expect(one(['Europe/Helsinki', 'Europe/Athens'])).toMatchObject({ zone: 'Europe/Helsinki' });
    expect(one([HOME], 'X-WR-TIMEZONE:Europe/Riga')).toMatchObject({ zone: 'Europe/Riga' });
    expect(one([HOME])).not.toMatchObject({ zone: 'Asia/Amman' });
    const named = eastern.map((l) => (l === 'TZID:Custom' ? 'TZID:GMT+2 Athens' : l));
    expect(
      only(read(file(...named, ...event('DTSTART;TZID=GMT+2 Athens:20260710T090000')))).start,
    ).toMatchObject({
      zone: 'Europe/Athens',
    });
  });

  it('are compared over all of the time of the file, not in single years', () => {
    // Alike in summer and winter of 2026, but a day apart in the weeks of the change.
    const odd = definition('Odd', -4, -3, 'BYMONTH=3;BYDAY=3SU', 'BYMONTH=11;BYDAY=1SU');
    const summer = event('DTSTART;TZID=Odd:20260710T090000');
    expect(only(read(file(...odd, ...summer))).start).toMatchObject({ zone: HOME });
    const all = ['BEGIN:VEVENT', 'UID:e2', 'SUMMARY:Two', 'DTSTART;TZID=Odd:20260312T090000', 'END:VEVENT'];
    const r = read(
      file(
        ...odd,
        ...summer,
        ...event('DTSTART;TZID=Odd:20260101T090000').map((l) => l.replace('e1', 'e3')),
        ...all,
      ),
    );
    expect(notes(r)).toContain('like no known zone');
    // In the week that counts the definition's own clocks are still behind.
    expect(r.entries.find((e) => e.uid === 'e2')!.start).toEqual({
      kind: 'zoned',
      at: '2026-03-12T13:00:00',
      zone: 'UTC',
    });
  });

  it('that agree with none are used with their own changes, and weekdays stay right', () => {
    const ship = definition('Ship', 5.5, 11, 'BYMONTH=4;BYDAY=1SU', 'BYMONTH=9;BYDAY=1SU');
    const r = read(
      file(
        ...ship,
        ...event(
          'DTSTART;TZID=Ship:20260105T010000',
          'DURATION:PT1H',
          'RRULE:FREQ=WEEKLY;BYDAY=MO;COUNT=30',
          'EXDATE;TZID=Ship:20260112T010000',
        ),
      ),
    );
    const all = times(only(r));
    expect(all).toHaveLength(29);
    expect(all[0]).toBe('2026-01-04T19:30/2026-01-04T20:30');
    // Mondays at 01:00 by the ship's clocks, before and after they change.
    for (const t of all) {
      const summer = t >= '2026-04-05' && t < '2026-09-06';
      const local = new Date(`${t.slice(0, 16)}Z`).getTime() + (summer ? 11 : 5.5) * HOUR;
      expect(wallToText(local).slice(11, 16)).toBe('01:00');
      expect(new Date(local).getUTCDay()).toBe(1);
    }
    expect(notes(r)).toContain('written out as single dates');
  });

  it('may list their onsets, as RDATE too', () => {
    for (const zone of ['Africa/Casablanca', 'America/Santiago', 'Australia/Lord_Howe']) {
      const [from, to] = [Date.UTC(2024, 0, 1), Date.UTC(2030, 0, 1)];
      const groups = new Map<string, string[]>();
      for (const c of clockChanges(zone, from, to)) {
        const key = `${c.before}|${c.offset}`;
        groups.set(key, [...(groups.get(key) ?? []), wallToText(c.at + c.before).replace(/[-:]/g, '')]);
      }
      const offset = (ms: number) =>
        `${ms < 0 ? '-' : '+'}${String(Math.floor(Math.abs(ms) / HOUR)).padStart(2, '0')}${String((Math.abs(ms) % HOUR) / MINUTE).padStart(2, '0')}`;
      const lines = [...groups].flatMap(([key, [first, ...more]]) => {
        const [before, after] = key.split('|').map(Number) as [number, number];
        return [
          'BEGIN:STANDARD',
          `DTSTART:${first}`,
          ...(more.length ? [`RDATE:${more.join(',')}`] : []),
          `TZOFFSETFROM:${offset(before)}`,
          `TZOFFSETTO:${offset(after)}`,
          'END:STANDARD',
        ];
      });
      const r = read(
        file(
          'BEGIN:VTIMEZONE',
          'TZID:Listed',
          ...lines,
          'END:VTIMEZONE',
          ...event('DTSTART;TZID=Listed:20240301T090000', 'RRULE:FREQ=DAILY;UNTIL=20291130T000000Z'),
        ),
      );
      expect(only(r).start).toMatchObject({ zone });
      const own = timeZoneLines(zone, from, to).map((l) => (l.startsWith('TZID') ? 'TZID:Ours' : l));
      expect(only(read(file(...own, ...event('DTSTART;TZID=Ours:20240301T090000')))).start).toMatchObject({
        zone,
      });
      expect(offsetAt(zone, from)).toBeTypeOf('number');
    }
  });

  it('that are badly defined cost their own entries only, and name the line', () => {
    const bad = [
      'BEGIN:VTIMEZONE',
      'TZID:Bad',
      'BEGIN:STANDARD',
      'DTSTART:20260101T000000',
      'TZOFFSETFROM:+0100',
      'TZOFFSETTO:one',
      'END:STANDARD',
      'END:VTIMEZONE',
    ];
    const r = read(
      file(...bad, ...event('DTSTART;TZID=Bad:20260710T090000'), ...task('DUE:20260710T090000Z')),
    );
    expect(only(r).uid).toBe('t1');
    expect(notes(r)).toContain('line 5: “one” is not an offset');
    expect(notes(r)).not.toContain('Nothing was imported');
  });
});

describe('times of files', () => {
  it('last exactly as long as a PT duration says, and as many days by the clock as PnD (RFC 5545 3.3.6)', () => {
    const end = (...lines: string[]) => only(read(file(...event(...lines)))).end;
    const eve = `DTSTART;TZID=${HOME}:20260307T220000`;
    expect(end(eve, 'DURATION:PT8H')).toMatchObject({ at: '2026-03-08T07:00:00' });
    expect(end(eve, 'DURATION:P1D')).toMatchObject({ at: '2026-03-08T22:00:00' });
    expect(end(eve, 'DURATION:PT24H')).toMatchObject({ at: '2026-03-08T23:00:00' });
    expect(end(eve, 'DURATION:P1DT2H')).toMatchObject({ at: '2026-03-09T00:00:00' });
    expect(end(eve, 'DURATION:P1W')).toMatchObject({ at: '2026-03-14T22:00:00' });
    expect(end(`DTSTART;TZID=${HOME}:20261031T220000`, 'DURATION:PT8H')).toMatchObject({
      at: '2026-11-01T05:00:00',
    });
    expect(end('DTSTART;VALUE=DATE:20260307', 'DURATION:PT36H')).toEqual({
      kind: 'date',
      date: '2026-03-09',
    });
  });

  it('last exactly so long on every date, also in the nights in which clocks change', () => {
    const r = read(
      file(...event(`DTSTART;TZID=${HOME}:20260301T220000`, 'DURATION:PT8H', 'RRULE:FREQ=DAILY;COUNT=300')),
    );
    const ends = occurrencesOf(asEntry(only(r)), { from: 0, to: Date.UTC(2028, 0, 1) }, HOME);
    expect(ends).toHaveLength(300);
    for (const o of ends) expect(o.to - o.from).toBe(8 * HOUR);
    expect(notes(r)).toContain('2 of its dates say their end');
  });

  it('of tasks are due as RFC 5545 says: by DUE, by a start and a duration, or by a rule of starts', () => {
    const due = (...lines: string[]) => only(read(file(...task(...lines))));
    expect(due('DTSTART:20260710T090000Z', 'DURATION:P1DT3H').start).toMatchObject({
      at: '2026-07-11T12:00:00',
    });
    expect(due('DTSTART:20260710T090000Z').start).toMatchObject({ at: '2026-07-10T09:00:00' });
    const daily = due(
      'DTSTART:20260706T090000Z',
      'DUE:20260706T170000Z',
      'RRULE:FREQ=WEEKLY;BYDAY=MO;COUNT=3',
      'EXDATE:20260713T090000Z',
    );
    expect(times(daily)).toEqual(['2026-07-06T17:00/2026-07-06T17:00', '2026-07-20T17:00/2026-07-20T17:00']);
    expect(daily.recurrence!.rule).not.toBe('');
    const days = read(
      file(
        ...task('DTSTART:20260706T090000Z', 'DUE:20260708T170000Z', 'RRULE:FREQ=WEEKLY;BYDAY=MO,TU;COUNT=4'),
      ),
    );
    expect(times(only(days)).map((t) => t.slice(5, 16))).toEqual([
      '07-08T17:00',
      '07-09T17:00',
      '07-15T17:00',
      '07-16T17:00',
    ]);
    expect(notes(days)).toContain('dates were written one by one');
    const moved = read(
      file(
        ...task('DTSTART:20260706T090000Z', 'DUE:20260706T170000Z', 'RRULE:FREQ=DAILY;COUNT=3'),
        ...task('RECURRENCE-ID:20260707T090000Z', 'DTSTART:20260707T090000Z', 'DUE:20260707T190000Z'),
      ),
    );
    expect(times(only(moved)).map((t) => t.slice(8, 16))).toEqual(['06T17:00', '07T19:00', '08T17:00']);
  });

  it('fit further and excepted dates to the kind of their series', () => {
    const days = read(
      file(
        ...event(
          'DTSTART;VALUE=DATE:20260706',
          'RRULE:FREQ=DAILY;COUNT=2',
          'RDATE:20260720T100000Z',
          'EXDATE:20260707T000000',
        ),
      ),
    );
    expect(only(days).recurrence).toMatchObject({
      dates: [{ kind: 'date', date: '2026-07-20' }],
      exceptDates: [{ kind: 'date', date: '2026-07-07' }],
    });
    expect(notes(days)).toContain('fitted to its start');
    const timed = read(file(...event('DTSTART:20260706T093000Z', 'RDATE;VALUE=DATE:20260720')));
    expect(times(only(timed)).map((t) => t.slice(5, 16))).toEqual(['07-06T09:30', '07-20T09:30']);
  });

  it('of a single date have no rule of their own', () => {
    const r = read(
      file(
        ...event('DTSTART:20260706T090000Z', 'RRULE:FREQ=DAILY;COUNT=3'),
        ...event('RECURRENCE-ID:20260707T090000Z', 'DTSTART:20260707T120000Z', 'RRULE:FREQ=DAILY;COUNT=9'),
      ),
    );
    expect(times(only(r)).map((t) => t.slice(8, 16))).toEqual(['06T09:00', '07T12:00', '08T09:00']);
    expect(notes(r)).toContain('the rule was left out');
  });
});

describe('lengths and dates that other programs write', () => {
  it('lasts exactly as long as a duration says where an hour is shown twice', () => {
    const night = only(
      read(
        file(...event('DTSTART;TZID=America/New_York:20260601T013000', 'DURATION:PT30M', 'RRULE:FREQ=DAILY')),
      ),
    );
    const change = [Date.UTC(2026, 9, 31, 12), Date.UTC(2026, 10, 2, 12)] as const;
    expect(times(night, ...change)).toEqual([
      '2026-11-01T05:30/2026-11-01T06:00',
      '2026-11-02T06:30/2026-11-02T07:00',
    ]);
    const once = only(read(file(...event('DTSTART;TZID=Europe/Berlin:20261025T013000', 'DURATION:PT1H30M'))));
    expect(times(once)).toEqual(['2026-10-24T23:30/2026-10-25T01:00']);
    // A series that begins on the very night is as long as it says on all others.
    const begins = only(
      read(
        file(...event('DTSTART;TZID=Europe/Berlin:20261025T013000', 'DURATION:PT1H30M', 'RRULE:FREQ=DAILY')),
      ),
    );
    expect(times(begins).slice(0, 2)).toEqual([
      '2026-10-24T23:30/2026-10-25T01:00',
      '2026-10-26T00:30/2026-10-26T02:00',
    ]);
  });

  it('keeps the lengths that further dates have', () => {
    const periods =
      'RDATE;VALUE=PERIOD:20260707T100000Z/20260707T140000Z,20260708T100000Z/PT30M,20260709T100000Z/PT1H';
    const r = read(file(...event('DTSTART:20260706T100000Z', 'DTEND:20260706T110000Z', periods)));
    expect(times(only(r)).map((t) => t.replaceAll(/2026-|:00/g, ''))).toEqual([
      '07-06T10/07-06T11',
      '07-07T10/07-07T14',
      '07-08T10/07-08T10:30',
      '07-09T10/07-09T11',
    ]);
    // Only those of another length have to be said by themselves.
    expect(only(r).overrides).toHaveLength(2);
    const wrong = read(
      file(...event('DTSTART:20260706T100000Z', 'RDATE;VALUE=PERIOD:20260707T100000Z/-PT1H')),
    );
    expect(notes(wrong)).toContain('ends before it starts');
  });

  it('takes a series that is marked as one of its own dates for the series', () => {
    const r = read(
      file(
        ...event('DTSTART:20260706T100000Z', 'RECURRENCE-ID:20260706T100000Z', 'RRULE:FREQ=DAILY;COUNT=3'),
        ...event('DTSTART:20260707T130000Z', 'RECURRENCE-ID:20260707T100000Z'),
      ),
    );
    expect(times(only(r)).map((t) => t.slice(8, 16))).toEqual(['06T10:00', '07T13:00', '08T10:00']);
    expect(notes(r)).toContain('it was read as the series');
  });

  it('leaves out what a rule of exceptions names', () => {
    const r = read(
      file(
        ...event(
          'DTSTART:20260706T100000Z',
          'RRULE:FREQ=DAILY;COUNT=4',
          'EXRULE:FREQ=DAILY;INTERVAL=2;COUNT=9',
        ),
      ),
    );
    expect(times(only(r)).map((t) => t.slice(8, 10))).toEqual(['07', '09']);
    expect(only(r).kept).toEqual([]);
    // Its first date, which no rule names, stays.
    const monday = ['DTSTART:20260706T100000Z', 'RRULE:FREQ=WEEKLY;BYDAY=MO,TU;COUNT=4'];
    const tuesdays = read(file(...event(...monday, 'EXRULE:FREQ=WEEKLY;BYDAY=TU')));
    expect(times(only(tuesdays)).map((t) => t.slice(8, 10))).toEqual(['06', '13']);
  });

  it('costs no other entry of the file where a milestone is marked so', () => {
    const milestone = event(
      ...['DTSTART;VALUE=DATE:20260706', 'RECURRENCE-ID;VALUE=DATE:20260706', 'RRULE:FREQ=DAILY;COUNT=3'],
      'X-ZONAL-KIND:MILESTONE',
    );
    const r = read(
      file(...milestone, ...event('DTSTART:20260706T090000Z').map((l) => l.replace('e1', 'e2'))),
    );
    expect(r.entries.map((e) => [e.kind, e.recurrence !== null])).toEqual([
      ['event', true],
      ['event', false],
    ]);
  });

  it('writes rules out until ten years after today, however long ago they began', () => {
    const strange = definition('Harbour clock', 5.25, 6.25, ...US);
    const begins = (year: number, rule: string) =>
      only(
        read(file(...strange, ...event(`DTSTART;TZID=Harbour clock:${year}0105T100000`, `RRULE:${rule}`))),
      );
    const years = times(begins(2009, 'FREQ=YEARLY'), 0, Date.UTC(2060, 0, 1)).map((t) => t.slice(0, 4));
    expect([years[0], years.at(-1)]).toEqual(['2009', '2036']);
    // Of too many those long past are left out, not those that are still to come.
    const weekly = begins(2009, 'FREQ=WEEKLY');
    expect(times(weekly, Date.UTC(2034, 0, 1), Date.UTC(2035, 0, 1)).length).toBeGreaterThan(50);
  });

  it('does not take a part of a word for a city', () => {
    const eastern = definition('US Eastern standard clock', -5, -4, ...US);
    const r = read(file(...eastern, ...event('DTSTART;TZID=US Eastern standard clock:20260706T100000')));
    expect(only(r).start).toMatchObject({ zone: 'America/New_York' });
    const winter = [
      'BEGIN:VTIMEZONE',
      'TZID:Eastern crews',
      'BEGIN:STANDARD',
      'DTSTART:19700101T000000',
      'TZOFFSETFROM:-0500',
      'TZOFFSETTO:-0500',
      'END:STANDARD',
      'END:VTIMEZONE',
    ];
    const january = read(file(...winter, ...event('DTSTART;TZID=Eastern crews:20260112T100000')));
    expect(only(january).start).not.toMatchObject({ zone: 'Pacific/Easter' });
  });
});

describe('files as a whole', () => {
  it('of two calendars with one entry count the higher SEQUENCE, whichever stands first', () => {
    const calendar = (sequence: number, title: string) =>
      file(
        ...event('DTSTART:20260706T090000Z', `SEQUENCE:${sequence}`, `SUMMARY:${title}`).filter(
          (l) => l !== 'SUMMARY:One',
        ),
      );
    for (const text of [
      calendar(3, 'New') + '\r\n' + calendar(1, 'Old'),
      calendar(1, 'Old') + '\r\n' + calendar(3, 'New'),
    ])
      expect(only(read(text)).title).toBe('New');
  });

  it('take back with METHOD:CANCEL, in the file itself and in the calendar that is here', () => {
    const series = event('DTSTART:20260706T090000Z', 'DTEND:20260706T100000Z', 'RRULE:FREQ=DAILY;COUNT=3');
    const cancel = (...lines: string[]) =>
      file('METHOD:CANCEL', ...event('DTSTART:20260706T090000Z', 'STATUS:CANCELLED', ...lines));
    const whole = read(`${file(...series)}\r\n${cancel()}`);
    expect(only(whole).status).toBe('cancelled');
    const dateOf = read(`${file(...series)}\r\n${cancel('RECURRENCE-ID:20260707T090000Z')}`);
    expect(only(dateOf).overrides).toMatchObject([{ content: { status: 'cancelled', title: 'One' } }]);
    const here = asEntry(only(read(file(...series))));
    const plan = mergePlan(read(cancel()), [here], HOME);
    expect(plan).toMatchObject([
      { kind: 'changed', fields: ['status'], draft: { status: 'cancelled', title: 'One' } },
    ]);
    const single = mergePlan(read(cancel('RECURRENCE-ID:20260707T090000Z')), [here], HOME);
    expect(single[0]!.draft!.overrides).toMatchObject([{ content: { status: 'cancelled' } }]);
    expect(mergePlan(read(cancel()), [], HOME)).toMatchObject([{ kind: 'left-out' }]);
    expect(mergePlan(read(cancel()), [{ ...here, status: 'cancelled' }], HOME)).toMatchObject([
      { kind: 'same' },
    ]);
  });

  it('lose an odd line only, told with its number', () => {
    const r = read(
      file(
        ...event(
          'DTSTART:20260706T090000Z',
          'X_VENDOR_FLAG:yes',
          'DESCRIPTION:First line',
          'and a second one that nobody folded',
          'GEO:north;south',
          'LOCATION:Quay',
        ),
        ...task('DUE:20260710T090000Z'),
      ),
    );
    expect(r.entries.map((e) => e.uid)).toEqual(['e1', 't1']);
    expect(r.entries[0]).toMatchObject({ place: 'Quay', description: 'First line' });
    expect(r.items[0]!.notes).toEqual([
      'Line 9 was left out: “and a second one that nobody folded” is not a property (NAME:value).',
    ]);
    expect(r.entries[0]!.kept.map(([name]) => name)).toContain('x_vendor_flag');
  });

  it('of the older form are refused plainly', () => {
    const text = [
      'BEGIN:VCALENDAR',
      'VERSION:1.0',
      'BEGIN:VEVENT',
      'SUMMARY;ENCODING=QUOTED-PRINTABLE:Caf=C3=A9',
      'DTSTART:20260706T090000Z',
      'END:VEVENT',
      'END:VCALENDAR',
    ].join('\r\n');
    try {
      read(text);
      expect.unreachable();
    } catch (error) {
      expect(error).toBeInstanceOf(Problem);
      expect((error as Problem).code).toBe('file-version-old');
      expect((error as Problem).message).toContain('vCalendar 1.0');
    }
  });

  it('leave out what cannot be computed, entry by entry, and never say that nothing was imported', () => {
    const r = read(
      file(
        ...event('DTSTART:20260706T090000Z', 'DTEND:20460706T090000Z'),
        ...task('DUE:00000710T090000Z'),
        ...event('SUMMARY:No start').map((l) => l.replace('e1', 'e5')),
        ...event('DTSTART:20260230T090000Z').map((l) => l.replace('e1', 'e6')),
        ...event('DTSTART:20260706T090000Z').map((l) => l.replace('e1', 'good')),
      ),
    );
    expect(r.entries.map((e) => e.uid)).toEqual(['good']);
    expect(r.items.filter((i) => i.outcome === 'left-out')).toHaveLength(4);
    expect(notes(r)).not.toContain('Nothing was imported');
  });
});

describe('what a field cannot hold', () => {
  const rich = [
    'DTSTART:20260706T090000Z',
    'ATTENDEE;CN=Ida;ROLE=CHAIR;PARTSTAT=ACCEPTED;RSVP=TRUE:mailto:ida@ostrel.example',
    'ATTENDEE;CN=Jon:mailto:jon@ostrel.example',
    'CONFERENCE;VALUE=URI;FEATURE=VIDEO;LABEL=Main:https://meet.ostrel.example/1',
    'CONFERENCE;VALUE=URI;FEATURE=PHONE:tel:+1-902-555-0134',
    'ATTACH;FMTTYPE=application/pdf;FILENAME=plan.pdf:https://ostrel.example/plan.pdf',
    'LOCATION;LANGUAGE=en:Quay',
    'LOCATION;LANGUAGE=fr:Quai',
    'STATUS:TENTATIVE',
    'ORGANIZER;CN=Wick:mailto:wick@ostrel.example',
  ];

  it('is kept, so that out-and-in loses nothing: roles, answers, further links, types, languages', () => {
    const first = only(read(file(...event(...rich))));
    const text = writeEntries([asEntry(first)], { name: 'Quay', zone: HOME, now: 0 }).replace(/\r\n /g, '');
    const properties = new ICAL.Component(ICAL.parse(text) as never).getFirstSubcomponent('vevent')!;
    for (const [name, count] of [
      ['attendee', 2],
      ['conference', 2],
      ['location', 2],
      ['attach', 1],
    ] as const)
      expect(properties.getAllProperties(name)).toHaveLength(count);
    for (const piece of [
      'ROLE=CHAIR',
      'PARTSTAT=ACCEPTED',
      'FEATURE=VIDEO',
      'FEATURE=PHONE',
      'FMTTYPE=application/pdf',
      'LANGUAGE=fr:Quai',
    ])
      expect(text).toContain(piece);
    expect(only(read(text))).toEqual(first);
  });

  it('goes with what it said when that is changed here', () => {
    const first = asEntry(only(read(file(...event(...rich)))));
    const changed = { ...first, people: first.people.slice(1), place: 'Mole', joinLink: '' };
    const text = writeEntries([changed], { name: 'Quay', zone: HOME, now: 0 }).replace(/\r\n /g, '');
    expect(text).not.toContain('ROLE=CHAIR');
    expect(text).not.toContain('LANGUAGE=en:Quay');
    expect(text).toContain('LOCATION:Mole');
    expect(text).not.toContain('FEATURE=VIDEO');
  });

  it('can never begin a line of its own in what is written', () => {
    const evil = asEntry({
      ...only(read(file(...event('DTSTART:20260706T090000Z')))),
      kept: [
        [
          'x-a',
          { 'x-p': 'v\r\nATTENDEE:mailto:x@evil.example' },
          'text',
          'a\r\nATTENDEE:mailto:y@evil.example',
        ],
        ['x-b', {}, 'unknown', 'raw\r\nATTENDEE:mailto:z@evil.example'],
      ],
      recurrence: {
        rule: 'FREQ=DAILY;COUNT=2\r\nATTENDEE:mailto:r@evil.example',
        dates: [],
        exceptDates: [],
      },
      uid: 'u\r\nATTENDEE:mailto:u@evil.example',
      description: 'a\u2028ATTENDEE:mailto:d@evil.example\u0085x',
    });
    const text = writeEntries([{ ...evil, recurrence: null }], { name: 'Quay', zone: HOME, now: 0 });
    const lines = text.replace(/\r\n /g, '').split(/\r\n|\r|\n|\u2028|\u0085/);
    expect(lines.filter((l) => l.startsWith('ATTENDEE'))).toEqual([]);
    expect(() => writeEntries([evil], { name: 'Quay', zone: HOME, now: 0 })).toThrow(Problem);
  });
});
