import { describe, expect, it } from 'vitest';
import { lintCalendar } from './lintCalendar';

const HEAD = ['BEGIN:VCALENDAR', 'VERSION:2.0', 'PRODID:-//Test//EN'];
const STAMP = 'DTSTAMP:20260601T000000Z';
const ZONE = [
  ...['BEGIN:VTIMEZONE', 'TZID:Harbour', 'BEGIN:STANDARD', 'DTSTART:19700101T000000'],
  ...['TZOFFSETFROM:-0400', 'TZOFFSETTO:-0400', 'END:STANDARD', 'END:VTIMEZONE'],
];
const wrap = (name: string, lines: readonly string[]) => [`BEGIN:${name}`, ...lines, `END:${name}`];
const EVENT = ['UID:a', STAMP, 'DTSTART:20260612T100000Z'];
const TASK = ['UID:a', STAMP, 'DTSTART:20260612T100000Z', 'SUMMARY:Paint'];
const BUSY = ['UID:a', STAMP, 'DTSTART:20260612T000000Z', 'DTEND:20260613T000000Z'];
const ALARM = ['ACTION:DISPLAY', 'DESCRIPTION:Soon', 'TRIGGER:-PT15M'];
const PARTY = ['ORGANIZER:mailto:o@x.example', 'SUMMARY:Talk'];

/** A calendar without fault, into which faults are put. */
const documentOf = (...lines: readonly string[]) => [...HEAD, ...lines, 'END:VCALENDAR', ''].join('\r\n');
const event = (...lines: string[]) => wrap('VEVENT', [...EVENT, ...lines]);
const task = (...lines: string[]) => wrap('VTODO', [...TASK, ...lines]);
const busy = (...lines: string[]) => wrap('VFREEBUSY', [...BUSY, ...lines]);
const alarm = (...lines: string[]) => event(...wrap('VALARM', lines));
const zoned = ['UID:a', STAMP, 'DTSTART;TZID=Harbour:20260612T100000'];
const inZone = (...lines: string[]) => [...ZONE, ...wrap('VEVENT', [...zoned, ...lines])];
const without = (lines: readonly string[], name: string) => lines.filter((line) => !line.startsWith(name));
const zoneWith = (old: string, next: string[]) => [
  ...ZONE.flatMap((line) => (line === old ? next : [line])),
  ...wrap('VEVENT', zoned),
];
const method = (name: string, ...lines: string[]) => [`METHOD:${name}`, ...lines];

/** Faults by the section that they are against; each is the only one of its document. */
const FAULTS: Readonly<Record<string, readonly (readonly string[])[]>> = {
  'RFC 5545 section 3.1': [
    event('no property'),
    event(`SUMMARY:${'é'.repeat(40)}`),
    busy('FREEBUSY:20260612T100000Z'),
  ],
  'RFC 5545 section 3.6': [
    [],
    wrap('VALARM', ALARM),
    event(...wrap('VEVENT', ['UID:b', STAMP, 'DTSTART:20260612T100000Z'])),
    wrap('VTIMEZONE', ['TZID:UTC', ...ZONE.slice(2, -1), ...wrap('VALARM', ALARM)]),
  ],
  'RFC 5545 section 3.7.1': [['CALSCALE:JULIAN', ...event()]],
  'RFC 7986 section 4': [
    ['CALSCALE:GREGORIAN', 'CALSCALE:GREGORIAN', ...event()],
    ['UID:x', 'UID:y', ...event()],
  ],
  'RFC 7986 section 5.1': [['NAME:Quay', 'NAME:Dock', ...event()]],
  'RFC 7986 section 5.7': [
    ['REFRESH-INTERVAL;VALUE=DURATION:PT0S', ...event()],
    ['REFRESH-INTERVAL;VALUE=DURATION:-PT1H', ...event()],
    ['REFRESH-INTERVAL:PT1H', ...event()],
  ],
  'RFC 7986 section 5.8': [
    ['SOURCE:https://w.example/k', ...event()],
    ['SOURCE;VALUE=URI:not an address', ...event()],
  ],
  'RFC 7986 section 5.9': [['COLOR:quaygrey', ...event()], event('COLOR:#ff0000')],
  'RFC 7986 section 5.11': [event('CONFERENCE:https://w.example/room')],
  'RFC 5545 section 3.8.4.7': [
    wrap('VEVENT', without(EVENT, 'UID')),
    event('UID:b'),
    wrap('VEVENT', ['UID:', ...without(EVENT, 'UID')]),
    [...event(), ...event()],
  ],
  'RFC 5545 section 3.8.7.2': [
    wrap('VEVENT', without(EVENT, 'DTSTAMP')),
    event(STAMP),
    wrap('VEVENT', ['DTSTAMP:20260601T000000', ...without(EVENT, 'DTSTAMP')]),
  ],
  'RFC 5545 section 3.6.1': [
    wrap('VEVENT', without(EVENT, 'DTSTART')),
    event('DTEND:20260612T110000Z', 'DURATION:PT1H'),
    event('SUMMARY:a', 'SUMMARY:b'),
    event('CLASS:PUBLIC', 'CLASS:PRIVATE'),
    event('COLOR:teal', 'COLOR:navy'),
  ],
  'RFC 5545 section 3.6.2': [
    task('DUE:20260613T100000Z', 'DURATION:PT1H'),
    wrap('VTODO', [...without(TASK, 'DTSTART'), 'DURATION:PT1H']),
  ],
  'RFC 5545 section 3.6.4': [
    busy('CONTACT:a', 'CONTACT:b'),
    wrap('VFREEBUSY', [...without(BUSY, 'DTSTART'), 'DTSTART:20260612T000000']),
  ],
  'RFC 5545 section 3.8': [
    event('DUE:20260613T100000Z'),
    task('TRANSP:OPAQUE'),
    event('COMPLETED:20260613T100000Z'),
  ],
  'RFC 5545 section 3.8.1.1': [
    event('ATTACH;VALUE=BINARY:AAAA'),
    event('ATTACH:just a name'),
    event('ATTACH;ENCODING=BASE64;VALUE=BINARY:A$A'),
  ],
  'RFC 5545 section 3.8.1.2': [event('CATEGORIES:quay;dock')],
  'RFC 5545 section 3.8.1.5': [event('DESCRIPTION:one; two')],
  'RFC 5545 section 3.8.1.6': [event('GEO:44.6'), event('GEO:144.6;10'), event('GEO:north;east')],
  'RFC 5545 section 3.8.1.7': [event('LOCATION:Quay, north')],
  'RFC 5545 section 3.8.1.8': [task('PERCENT-COMPLETE:101')],
  'RFC 5545 section 3.8.1.9': [event('PRIORITY:10'), event('PRIORITY:high')],
  'RFC 5545 section 3.8.1.11': [event('STATUS:COMPLETED'), task('STATUS:TENTATIVE')],
  'RFC 5545 section 3.8.1.12': [event('SUMMARY:back\\slash')],
  'RFC 5545 section 3.8.2.1': [task('COMPLETED:20260612T100000')],
  'RFC 5545 section 3.8.2.2': [
    event('DTEND:20260612T090000Z'),
    event('DTEND:20260612T100000Z'),
    event('DTEND;VALUE=DATE:20260613'),
    event('DTEND:20260612T120000'),
    event('DTEND:20260613T250000Z'),
    event('DTEND:tomorrow'),
  ],
  'RFC 5545 section 3.8.2.3': [task('DUE:20260631T100000Z')],
  'RFC 5545 section 3.8.2.4': [
    wrap('VEVENT', ['UID:a', STAMP, 'DTSTART;VALUE=DATE:20260229']),
    wrap('VEVENT', ['UID:a', STAMP, 'DTSTART:20261301T100000Z']),
    wrap('VEVENT', ['UID:a', STAMP, 'DTSTART:20260612']),
    wrap('VEVENT', ['UID:a', STAMP, 'DTSTART;VALUE=PERIOD:20260612T100000Z']),
  ],
  'RFC 5545 section 3.8.2.5': [
    event('DURATION:-PT1H'),
    event('DURATION:1 hour'),
    event('DURATION:PT1H30S'),
    event('DURATION:P1W2D'),
    wrap('VEVENT', ['UID:a', STAMP, 'DTSTART;VALUE=DATE:20260612', 'DURATION:PT24H']),
  ],
  'RFC 5545 section 3.8.2.6': [
    busy('FREEBUSY:20260612T100000Z/20260612T090000Z'),
    busy('FREEBUSY:20260612T100000/20260612T110000'),
  ],
  'RFC 5545 section 3.8.2.7': [event('TRANSP:GLASS')],
  'RFC 5545 section 3.8.3.3': [zoneWith('TZOFFSETFROM:-0400', ['TZOFFSETFROM:-4'])],
  'RFC 5545 section 3.8.3.4': [zoneWith('TZOFFSETTO:-0400', ['TZOFFSETTO:-0000'])],
  'RFC 5545 section 3.8.4.1': [event('ATTENDEE:somebody')],
  'RFC 5545 section 3.8.4.3': [event('ORGANIZER:o@x.example')],
  'RFC 5545 section 3.8.4.4': [
    [...event('RRULE:FREQ=DAILY'), ...event('RECURRENCE-ID;VALUE=DATE:20260613')],
    [...event(), ...event('RECURRENCE-ID:20260613T100000Z')],
    [
      ...event('RRULE:FREQ=DAILY'),
      ...event('RECURRENCE-ID:20260613T100000Z'),
      ...event('RECURRENCE-ID:20260613T100000Z'),
    ],
    event('RECURRENCE-ID:20260631T100000Z'),
  ],
  'RFC 5545 section 3.8.4.6': [event('URL:see the page')],
  'RFC 5545 section 3.8.5.1': [
    event('RRULE:FREQ=DAILY', 'EXDATE;VALUE=DATE:20260613'),
    event('RRULE:FREQ=DAILY', 'EXDATE:20260613T990000Z'),
    event('EXDATE:20260613T100000Z'),
  ],
  'RFC 5545 section 3.8.5.2': [event('RDATE;VALUE=PERIOD:20260613T100000Z/20260613T090000Z')],
  'RFC 5545 section 3.8.5.3': [event('RECURRENCE-ID:20260613T100000Z', 'RRULE:FREQ=DAILY')],
  'RFC 5545 section 3.8.6.2': [alarm(...ALARM, 'DURATION:PT5M', 'REPEAT:twice')],
  'RFC 5545 section 3.8.6.3': [
    alarm(...without(ALARM, 'TRIGGER'), 'TRIGGER:15 minutes'),
    alarm(...without(ALARM, 'TRIGGER'), 'TRIGGER;VALUE=DATE-TIME:20260612T093000'),
    alarm(...without(ALARM, 'TRIGGER'), 'TRIGGER;RELATED=END:-PT5M'),
  ],
  'RFC 5545 section 3.6.6': [
    alarm(...without(ALARM, 'ACTION')),
    alarm(...without(ALARM, 'TRIGGER')),
    alarm(...without(ALARM, 'DESCRIPTION')),
    alarm(...ALARM, 'REPEAT:2'),
    alarm(...ALARM, 'DURATION:PT5M'),
    alarm('ACTION:EMAIL', 'DESCRIPTION:Soon', 'SUMMARY:Soon', 'TRIGGER:-PT15M'),
    alarm('ACTION:AUDIO', 'ATTACH:https://w.example/a', 'ATTACH:https://w.example/b', 'TRIGGER:-PT15M'),
  ],
  'RFC 5545 section 3.8.7.1': [event('CREATED:20260601T000000')],
  'RFC 5545 section 3.8.7.3': [
    event('LAST-MODIFIED:20260601T000000'),
    event('CREATED:20260602T000000Z', 'LAST-MODIFIED:20260601T000000Z'),
  ],
  'RFC 5545 section 3.8.7.4': [event('SEQUENCE:one'), event('SEQUENCE:-1')],
  'RFC 5545 section 3.2.7': [event('ATTACH;ENCODING=BASE32:https://w.example/a')],
  'RFC 5545 section 3.2.13': [event('RECURRENCE-ID;RANGE=THISANDPRIOR:20260613T100000Z')],
  'RFC 5545 section 3.2.14': [alarm(...without(ALARM, 'TRIGGER'), 'TRIGGER;RELATED=MIDDLE:-PT5M')],
  'RFC 5545 section 3.2.17': [event('ATTENDEE;RSVP=PERHAPS:mailto:a@x.example')],
  'RFC 5545 section 3.2.19': [
    wrap('VEVENT', zoned),
    inZone('DTEND;TZID=Harbour:20260612T110000Z'),
    [...ZONE, ...wrap('VEVENT', ['UID:a', STAMP, 'DTSTART;TZID=Harbour;VALUE=DATE:20260612'])],
  ],
  'RFC 5545 section 3.6.5': [
    zoneWith('TZID:Harbour', ['TZID:Harbour', 'TZID:Harbour']),
    [...ZONE, ...zoneWith('', [])],
    zoneWith('DTSTART:19700101T000000', []),
    zoneWith('DTSTART:19700101T000000', ['DTSTART:19700101T000000Z']),
    zoneWith('TZOFFSETTO:-0400', []),
    zoneWith('TZOFFSETTO:-0400', ['TZOFFSETTO:-0400', 'RRULE:FREQ=YEARLY;UNTIL=20300101T000000']),
    [...ZONE, ...event()],
    [...wrap('VTIMEZONE', ['TZID:Harbour']), ...wrap('VEVENT', zoned)],
  ],
  'RFC 5545 section 3.3.10': [
    event('RRULE:FREQ=SOMETIMES'),
    event('RRULE:COUNT=3'),
    event('RRULE:FREQ=DAILY;UNTIL=20270101'),
    inZone('RRULE:FREQ=DAILY;UNTIL=20270101T000000'),
    event('RRULE:FREQ=DAILY', 'RRULE:FREQ=WEEKLY'),
    event('RRULE:FREQ=DAILY;INTERVAL=0'),
    event('RRULE:FREQ=WEEKLY;BYMONTHDAY=3'),
    event('RRULE:FREQ=MONTHLY;BYWEEKNO=3'),
    event('RRULE:FREQ=WEEKLY;BYDAY=2MO'),
    event('RRULE:FREQ=MONTHLY;BYSETPOS=1'),
    event('RRULE:FREQ=YEARLY;BYMONTH=13'),
    wrap('VTODO', ['UID:a', STAMP, 'DUE:20260612T100000Z', 'RRULE:FREQ=DAILY']),
  ],
  'RFC 5546 section 1.4': [
    method('ANNOUNCE', ...event()),
    method('REPLY', ...wrap('VJOURNAL', ['UID:a', STAMP])),
  ],
  'RFC 5546 section 3.1': [
    method('PUBLISH', ...event(...PARTY), ...wrap('VJOURNAL', ['UID:b', STAMP, PARTY[0]!, EVENT[2]!])),
  ],
  'RFC 5546 section 3.2.1': [
    method('PUBLISH', ...event('SUMMARY:Talk')),
    method('PUBLISH', ...event('ORGANIZER:mailto:o@x.example')),
    method('PUBLISH', ...event(...PARTY, 'ATTENDEE:mailto:a@x.example')),
  ],
  'RFC 5546 section 3.2.2': [method('REQUEST', ...event(...PARTY))],
  'RFC 5546 section 3.2.3': [
    method('REPLY', ...event(...PARTY)),
    method('REPLY', ...event(...PARTY, 'ATTENDEE:mailto:a@x.example', ...wrap('VALARM', ALARM))),
  ],
  'RFC 5546 section 3.2.4': [method('ADD', ...event(...PARTY, 'ATTENDEE:mailto:a@x.example'))],
  'RFC 5546 section 3.2.5': [
    method('CANCEL', ...event(...PARTY)),
    method('CANCEL', ...event(...PARTY, 'SEQUENCE:1', 'STATUS:CONFIRMED')),
  ],
  'RFC 5546 section 3.2.6': [method('REFRESH', ...event(...PARTY))],
  'RFC 5546 section 3.2.7': [method('COUNTER', ...event(...PARTY))],
  'RFC 5546 section 3.3.1': [method('PUBLISH', ...busy())],
  'RFC 5546 section 3.4.1': [method('PUBLISH', ...task('ORGANIZER:mailto:o@x.example'))],
};

/** What looks odd and is allowed. */
const ALLOWED: Readonly<Record<string, readonly string[]>> = {
  'words in small letters': event(
    'STATUS:confirmed',
    'TRANSP:transparent',
    'CLASS:public',
    'COLOR:SteelBlue',
  ),
  'a zone that is known everywhere': wrap('VEVENT', [
    'UID:a',
    STAMP,
    'DTSTART;TZID=/x.example/Quay:20260612T100000',
  ]),
  'dates that are periods': event(
    'RDATE;VALUE=PERIOD:20260613T100000Z/PT2H,20260614T100000Z/20260614T110000Z',
  ),
  'a leap second': event('DTEND:20261231T235960Z'),
  'a start that a method leaves out': method(
    'CANCEL',
    ...wrap('VEVENT', ['UID:a', STAMP, 'SEQUENCE:1', 'ORGANIZER:mailto:o@x.example']),
  ),
  'an alarm that counts from when something is due': wrap('VTODO', [
    ...['UID:a', STAMP, 'DUE:20260612T100000Z'],
    ...wrap('VALARM', [...without(ALARM, 'TRIGGER'), 'TRIGGER;RELATED=END:-PT15M']),
  ]),
  'a mail as an alarm': alarm(
    ...['ACTION:EMAIL', 'DESCRIPTION:Soon', 'SUMMARY:Soon', 'ATTENDEE:mailto:a@x.example', 'TRIGGER:-P1D'],
  ),
  'properties and kinds of others': event('X-QUAY;X-SIDE=north:a;b,c', 'STRUCTURED-DATA;VALUE=TEXT:{}'),
  'an invitation': method('REQUEST', ...event(...PARTY, 'ATTENDEE;RSVP=TRUE:mailto:a@x.example')),
  'escaped texts': event('SUMMARY:a\\, b\\; c\\\\ d\\n', 'CATEGORIES:one,two\\,three'),
  'several names by language': ['NAME:Quay', 'NAME;LANGUAGE=fr:Quai', ...event()],
};

describe('a fault', () => {
  const cases = Object.entries(FAULTS).flatMap(([section, all]) =>
    all.map((lines) => [section, lines] as const),
  );

  it.each(cases)('against %s is found: %j', (section, lines) => {
    const findings = lintCalendar(documentOf(...lines));
    expect(findings.map((f) => f.section)).toContain(section);
    for (const { line } of findings)
      expect(line).toBeLessThanOrEqual(documentOf(...lines).split('\r\n').length);
    // The findings are about this fault: most documents have one finding, and none has many.
    expect(findings.length).toBeLessThanOrEqual(2);
  });

  it('is planted in a document that has none', () => {
    expect(cases.length).toBeGreaterThan(100);
    for (const lines of [event(), task(), busy(), alarm(...ALARM), inZone()])
      expect(lintCalendar(documentOf(...lines))).toEqual([]);
  });

  it.each(Object.entries(ALLOWED))('is not raised by %s', (_what, lines) => {
    expect(lintCalendar(documentOf(...lines))).toEqual([]);
  });
});
