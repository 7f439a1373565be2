import { describe, expect, it } from 'vitest';
import { outwardView, safeUri, type Glass } from '../glass';
import { nextRevision } from '../reach';
import { STREET, date, entry, rulesOf, zoned } from '../testing/samples';
import { busyTimes } from './freeBusy';
import { FORMS, FORM_NAMES, fileNameOf, writeForm, type FormName } from './formTable';
import { escapeText, foldLine, quoteParameter } from './icsText';
import { lintCalendar } from './lint/lintCalendar';
import { timeZoneLines } from './icsTimeZone';

const RANGE = { from: Date.UTC(2026, 0, 1), to: Date.UTC(2027, 0, 1) };
const NOW = Date.UTC(2026, 5, 10, 15);
const ADDRESSES = { see: 'https://w.example/see/k', feed: 'https://w.example/feed/k.ics' };
const viewOf = (entries: Parameters<typeof outwardView>[0], glass: Glass) =>
  outwardView(entries, rulesOf(glass), RANGE, STREET);
const write = (form: FormName, entries: Parameters<typeof outwardView>[0], glass: Glass = 'clear') => {
  const view = viewOf(entries, glass);
  return writeForm(form, view, nextRevision(null, view, NOW), { addresses: ADDRESSES, now: NOW }).replace(
    /\r\n /g,
    '',
  );
};

describe('texts in iCalendar', () => {
  it('are escaped so that no line can be added', () => {
    expect(escapeText('a,b;c\\d\r\ne\rf\ng\u0000')).toBe('a\\,b\\;c\\\\d\\ne\\nf\\ng');
    expect(quoteParameter('say "hi"^\n')).toBe(`"say ^'hi^'^^^n"`);
  });

  it('are addresses only with a known scheme', () => {
    expect(safeUri(' https://a.example/x y?z="q" ')).toBe('https://a.example/x%20y?z=%22q%22');
    for (const bad of [
      'javascript:alert(1)',
      'data:text/html,x',
      '//a.example',
      'https',
      '',
      'JaVaScRiPt:1',
    ]) {
      expect(safeUri(bad)).toBeNull();
    }
    expect(safeUri('https://a.example/\r\nX-EVIL:1')).toBe('https://a.example/%0D%0AX-EVIL:1');
  });

  it('are folded into lines that give the text back', () => {
    for (const text of [
      'short',
      'x'.repeat(75),
      'x'.repeat(76),
      'é'.repeat(60),
      '🚢'.repeat(40),
      `${'x'.repeat(74)}é`,
    ]) {
      const folded = foldLine(text);
      expect(folded.replace(/\r\n( |$)/g, '')).toBe(text);
      for (const line of folded.split('\r\n'))
        expect(new TextEncoder().encode(line).length).toBeLessThanOrEqual(75);
    }
  });
});

describe('busy times', () => {
  it('join entries of all glass, and leave out what is free or cancelled', () => {
    const hour = (id: string, from: string, parts = {}) =>
      entry({ id, start: zoned(`2026-06-01T${from}`, 'UTC'), ...parts });
    const all = [
      hour('a', '10:00'),
      hour('b', '10:30', { status: 'tentative' }),
      hour('c', '11:00', { shows: 'free' }),
      hour('d', '14:00', { status: 'cancelled' }),
    ];
    const told = busyTimes(viewOf(all, 'tinted')).map((s) => [
      new Date(s.from).toISOString().slice(11, 16),
      s.tentative,
    ]);
    expect(told).toEqual([
      ['10:00', false],
      ['11:00', true],
    ]);
  });

  it('are written in UTC for the whole range', () => {
    const text = write('freeBusy', [
      entry({ start: zoned('2026-06-01T10:00') }),
      entry({ id: 'd', start: date('2026-07-01') }),
    ]);
    expect(text).toContain('FREEBUSY;FBTYPE=BUSY:20260601T130000Z/20260601T140000Z');
    // A whole day is taken from midnight to midnight of the host.
    expect(text).toContain('FREEBUSY;FBTYPE=BUSY:20260701T030000Z/20260702T030000Z');
    expect(text).toContain('DTSTART:20260101T000000Z\r\nDTEND:20270101T000000Z');
    expect(text).not.toMatch(/SUMMARY|Lock/);
  });
});

describe('a dated copy', () => {
  it('says that it is one, of when, and where the live calendar is', () => {
    const text = write('copy', [entry({ start: zoned('2026-06-12T10:00'), description: 'Bring a lamp' })]);
    expect(text).toContain('X-WR-CALNAME:Bridge times (copy of Wed\\, 10 Jun 2026)');
    expect(text).toContain('DESCRIPTION:Bring a lamp\\n\\nCopy as of Wed\\, 10 Jun 2026 at 12:00');
    expect(text).toContain('the live calendar is at https://w.example/see/k');
    expect(text).not.toMatch(/REFRESH-INTERVAL|SOURCE/);
    expect(write('feed', [entry({ start: zoned('2026-06-12T10:00') })])).not.toContain('Copy as of');
  });

  it('and feeds have file names in plain letters', () => {
    const view = viewOf([], 'clear');
    expect(fileNameOf('copy', view, NOW)).toBe('bridge-times-copy-2026-06-10.ics');
    const odd = { ...view, wording: { ...view.wording, name: '"Über"\r\n../../Fête' } };
    expect(fileNameOf('feed', odd, NOW)).toBe('uber-fete.ics');
    expect(fileNameOf('freeBusy', { ...view, wording: { ...view.wording, name: '漁港' } }, NOW)).toBe(
      'calendar.ifb',
    );
  });
});

describe('a time zone in a feed', () => {
  it('lists every clock change of its time by date', () => {
    const text = timeZoneLines('America/Halifax', Date.UTC(2026, 0, 1), Date.UTC(2028, 0, 1)).join('\n');
    expect(text).toContain('BEGIN:DAYLIGHT\nDTSTART:20260308T020000\nTZOFFSETFROM:-0400\nTZOFFSETTO:-0300');
    expect(text).toContain('BEGIN:STANDARD\nDTSTART:20261101T020000\nTZOFFSETFROM:-0300\nTZOFFSETTO:-0400');
  });

  it('has one observance where clocks never change', () => {
    expect(
      timeZoneLines('Asia/Tokyo', 0, Date.UTC(2026, 0, 1)).filter((l) => l.startsWith('BEGIN:')),
    ).toEqual(['BEGIN:VTIMEZONE', 'BEGIN:STANDARD']);
  });
});

describe('every form', () => {
  it('tells what differs from key to key in its head alone', () => {
    const view = viewOf([entry({ start: zoned('2026-06-12T10:00') })], 'clear');
    const revision = nextRevision(null, view, NOW);
    const other = { see: 'https://w.example/see/other', feed: 'https://w.example/feed/other.ics' };
    for (const name of FORM_NAMES) {
      const [one, two] = [ADDRESSES, other].map((addresses) =>
        FORMS[name].parts(view, revision, { addresses, now: NOW }),
      );
      expect(one!.blocks, name).toEqual(two!.blocks);
      // A table names no address.
      expect(one!.head !== two!.head, name).toBe(name !== 'table');
    }
  });
});

describe('a published calendar', () => {
  const switches = { joinLink: true, people: true, contact: true, planned: true };
  const feedOf = (entries: Parameters<typeof outwardView>[0]) => {
    const view = outwardView(entries, rulesOf('clear', { switches }), RANGE, STREET);
    return writeForm('feed', view, nextRevision(null, view, NOW), { addresses: ADDRESSES, now: NOW }).replace(
      /\r\n /g,
      '',
    );
  };

  it('says how it is published, what it is called by programs, and where its page is (RFC 7986)', () => {
    const feed = feedOf([]);
    expect(feed).not.toContain('METHOD:');
    expect(feed).toMatch(/\r\nUID:[0-9a-f-]{36}\r\n/);
    expect(feed).toContain('\r\nURL:https://w.example/see/k\r\n');
    expect(feed).toContain('\r\nLAST-MODIFIED:20260610T150000Z\r\n');
    // Nothing is in it, and yet it has a component, as RFC 5545 section 3.6 asks.
    expect(feed).toContain('BEGIN:VTIMEZONE\r\nTZID:UTC\r\n');
  });

  it('names people in the notes and never as attendees, and tells what a joining link is for', () => {
    const feed = feedOf([
      entry({
        start: zoned('2026-06-12T10:00'),
        people: [
          { name: 'Ida', address: 'ida@ostrel.example' },
          { name: 'Deck crew', address: '', group: true },
        ],
        joinLink: 'https://meet.ostrel.example/1',
        publicLink: 'https://ostrel.example/fête?q=quai',
      }),
    ]);
    expect(feed).not.toContain('ATTENDEE');
    expect(feed).toContain('DESCRIPTION:With: Ida <ida@ostrel.example>\\, Deck crew');
    expect(feed).toContain(
      'CONFERENCE;VALUE=URI;FEATURE=AUDIO,VIDEO;LABEL="Join":https://meet.ostrel.example/1',
    );
    expect(feed).toContain('ATTACH;FMTTYPE=text/html:https://ostrel.example/f%C3%AAte?q=quai');
    expect(feed).toContain('CLASS:PUBLIC');
  });

  it('suggests reminders where the window does, for timed entries that take place, and else none', () => {
    const timed = entry({ id: 't', title: 'Talk, long', start: zoned('2026-06-12T10:00') });
    const others = [
      entry({ id: 'd', start: date('2026-06-12') }),
      entry({ id: 'c', start: zoned('2026-06-12T11:00'), status: 'cancelled' }),
    ];
    const rules = rulesOf('clear');
    const told = (remind: object) => {
      const view = outwardView(
        [timed, ...others],
        { ...rules, wording: { ...rules.wording, ...remind } },
        RANGE,
        STREET,
      );
      return writeForm('feed', view, nextRevision(null, view, NOW), { addresses: ADDRESSES, now: NOW });
    };
    expect(told({})).not.toContain('VALARM');
    const alarms = told({ remind: 30 }).split('BEGIN:VALARM').slice(1);
    expect(alarms).toHaveLength(1);
    expect(alarms[0]).toMatch(
      /^\r\nACTION:DISPLAY\r\nDESCRIPTION:Talk\\, long\r\nTRIGGER:-PT30M\r\nEND:VALARM\r\nEND:VEVENT/,
    );
    expect(lintCalendar(told({ remind: 30 }))).toEqual([]);
  });

  it('tells a due item with a date of its own as tasks, each with its state and the day that it stands for', () => {
    const task = { kind: 'due', shows: 'free' } as const;
    const series = entry({
      ...task,
      title: 'Report due',
      start: date('2026-06-10'),
      end: date('2026-06-11'),
      recurrence: { rule: 'FREQ=WEEKLY;COUNT=3', dates: [], exceptDates: [] },
      overrides: [
        {
          slot: date('2026-06-17'),
          start: date('2026-06-19'),
          end: date('2026-06-20'),
          content: { ...entry({ start: date('2026-06-19') }), ...task, title: 'Report late', status: 'done' },
        },
      ],
    });
    const rules = rulesOf('clear');
    const asTasks = { ...rules, wording: { ...rules.wording, dueAs: 'task' as const } };
    const view = outwardView([series], asTasks, RANGE, STREET);
    const feed = writeForm('feed', view, nextRevision(null, view, NOW), { addresses: ADDRESSES, now: NOW });
    const tasks = feed.replace(/\r\n /g, '').match(/BEGIN:VTODO[^]*?END:VTODO/g)!;
    expect(feed).not.toContain('BEGIN:VEVENT');
    expect(tasks).toHaveLength(2);
    expect(tasks[0]).toContain('DTSTART;VALUE=DATE:20260610\r\nDURATION:P1D');
    expect(tasks[0]).toContain('SUMMARY:Report due');
    expect(tasks[0]).toContain('STATUS:NEEDS-ACTION');
    expect(tasks[1]).toContain('RECURRENCE-ID;VALUE=DATE:20260617\r\nDTSTART;VALUE=DATE:20260619');
    expect(tasks[1]).toContain('SUMMARY:Report late');
    expect(tasks[1]).toContain('STATUS:COMPLETED');
    expect(tasks[0]!.match(/UID:.*/)![0]).toBe(tasks[1]!.match(/UID:.*/)![0]);
    const once = outwardView([{ ...series, recurrence: null, overrides: [] }], asTasks, RANGE, STREET);
    const alone = writeForm('feed', once, nextRevision(null, once, NOW), { addresses: ADDRESSES, now: NOW });
    expect(alone).toMatch(/SEQUENCE:0\r\nDUE;VALUE=DATE:20260610\r\n/);
  });

  it('tells an hour that clocks skip by moments that every program reads alike', () => {
    // On 8 March 2026 clocks in Halifax go from 02:00 to 03:00.
    const feed = feedOf([entry({ start: zoned('2026-03-08T02:30'), end: zoned('2026-03-08T03:30') })]);
    // By the clocks both ends would be one moment: it keeps its length.
    expect(feed).toContain('DTSTART:20260308T063000Z\r\nDTEND:20260308T073000Z\r\n');
    const next = feedOf([entry({ start: zoned('2026-03-08T02:30'), end: zoned('2026-03-08T04:00') })]);
    expect(next).toContain('DTSTART:20260308T063000Z\r\nDTEND:20260308T070000Z\r\n');
  });

  it('has nothing that some programs take for the end of a line', () => {
    const feed = feedOf([entry({ start: zoned('2026-06-12T10:00'), title: 'a\u2028b\u0085c\u2029d\ud800' })]);
    expect(feed).toContain('SUMMARY:a b c d\ufffd\r\n');
  });

  it('gives its free/busy time an identifier that only its secret leads to', () => {
    const uid = (secret: string) => {
      const view = outwardView([], rulesOf('clear', { secret }), RANGE, STREET);
      return writeForm('freeBusy', view, nextRevision(null, view, NOW), {
        addresses: ADDRESSES,
        now: NOW,
      }).match(/UID:(.+)\r/)![1];
    };
    expect(uid('one')).toBe(uid('one'));
    expect(uid('one')).not.toBe(uid('other'));
  });
});
