import fc from 'fast-check';
import { HOLDS, STATUSES, fitKind, type Content, type Entry, type Override, type When } from '../entries';
import {
  AUDIENCES,
  CUT_FIELDS,
  DUE_FORMS,
  GLASSES,
  ROUNDINGS,
  SOURCE_GLASSES,
  goneFrom,
  type CeilingSet,
  type Filter,
  type WindowRules,
} from '../glass';
import { DAY, HOUR, MINUTE, dayFromText, dayToText, wallToText, type Wall } from '../zones';
import { HOST, rulesOf, source } from './samples';

/** The range of all generated windows: a year with both clock changes of the host zone. */
export const RANGE = { from: Date.UTC(2026, 1, 1, 4), to: Date.UTC(2026, 11, 1, 4) };
const FIRST = dayFromText('2026-01-20');

const zone = fc.constantFrom(HOST, HOST, 'Europe/London', 'UTC', 'Pacific/Apia', 'Asia/Kolkata');
const words = fc.constantFrom(
  'Gate',
  'Spring tide',
  'Dredging; week',
  'Schönwetter, kai',
  'a\\b',
  '漁港 visit',
  '',
);
const text = fc.oneof(words, fc.string({ maxLength: 90 }), fc.constant('line\nbreak\r\nX-EVIL:1'));

const planned: fc.Arbitrary<When> = fc.oneof(
  fc
    .integer({ min: -300, max: 320 })
    .map((day): When => whenAt({ kind: 'date', zone: '' }, (FIRST + day) * DAY)),
  fc
    .integer({ min: 0, max: 320 * 24 })
    .map((hour): When => whenAt({ kind: 'zoned', zone: HOST }, FIRST * DAY + hour * HOUR)),
);

export const content: fc.Arbitrary<Content> = fc.record({
  kind: fc.constantFrom<Content['kind']>('event', 'event', 'event', 'due', 'milestone'),
  planned: fc.option(planned),
  title: text,
  place: words,
  description: text,
  publicLink: fc.constantFrom('', 'https://ostrel.example/a?b=c,d;e', 'javascript:alert(1)'),
  joinLink: fc.constantFrom('', 'https://meet.ostrel.example/1?pin=2'),
  labels: fc.array(words.filter(Boolean), { maxLength: 2 }),
  people: fc.array(fc.record({ name: words, address: fc.constantFrom('', 'ida@ostrel.example') }), {
    maxLength: 2,
  }),
  contact: words,
  attachments: fc.array(fc.record({ name: words, href: fc.constant('https://ostrel.example/plan.pdf') }), {
    maxLength: 1,
  }),
  image: fc.option(
    fc.record({
      name: fc.constantFrom('0'.repeat(32), 'c0ffee'.padEnd(32, '7')),
      alt: text.map((alt) => alt || 'Quay'),
      width: fc.constantFrom(640, 1200),
      height: fc.constant(480),
    }),
    { freq: 2 },
  ),
  status: fc.constantFrom(...STATUSES),
  shows: fc.constantFrom('busy', 'busy', 'free'),
  hold: fc.constantFrom('none', 'none', 'none', ...HOLDS),
  properties: fc.array(
    fc.record({ name: fc.constantFrom('Berth', 'Crew; size'), value: words.filter(Boolean) }),
    {
      maxLength: 1,
    },
  ),
  kept: fc.constantFrom([], [['x-inside', {}, 'text', 'kept'] as const]),
});

interface Shape {
  kind: When['kind'];
  zone: string;
  start: Wall;
  length: number;
}

const shape: fc.Arbitrary<Shape> = fc
  .record({
    kind: fc.constantFrom<When['kind']>('zoned', 'zoned', 'zoned', 'floating', 'date'),
    zone,
    // Most begin in the range; some recur since long ago, or straddle its edges.
    day: fc.oneof(
      { weight: 6, arbitrary: fc.integer({ min: 0, max: 320 }) },
      { weight: 1, arbitrary: fc.integer({ min: -420, max: 0 }) },
    ),
    quarter: fc.integer({ min: 0, max: 95 }),
    quarters: fc.constantFrom(0, 1, 4, 4, 8, 32, 100, 4000),
  })
  .map(({ kind, zone: name, day, quarter, quarters }) => ({
    kind,
    zone: name,
    start: (FIRST + day) * DAY + (kind === 'date' ? 0 : quarter * 15 * MINUTE),
    length: kind === 'date' ? Math.max(1, Math.ceil(quarters / 96)) * DAY : quarters * 15 * MINUTE,
  }));

export function whenAt({ kind, zone: name }: Pick<Shape, 'kind' | 'zone'>, wall: Wall): When {
  if (kind === 'date') return { kind, date: dayToText(Math.floor(wall / DAY)) };
  return kind === 'zoned' ? { kind, at: wallToText(wall), zone: name } : { kind, at: wallToText(wall) };
}

const ruleText = fc.constantFrom(
  'FREQ=DAILY;COUNT=12',
  'FREQ=DAILY',
  'FREQ=DAILY;INTERVAL=3',
  'FREQ=WEEKLY',
  'FREQ=WEEKLY;INTERVAL=2;COUNT=8',
  'FREQ=WEEKLY;BYDAY=MO,WE,FR',
  'FREQ=MONTHLY',
  'FREQ=MONTHLY;BYDAY=-1FR',
  'FREQ=MONTHLY;BYDAY=MO,TU,WE,TH,FR;BYSETPOS=-1',
  'FREQ=YEARLY;BYMONTH=3,11;BYDAY=1SU',
);

/** Entries of every kind in and around {@link RANGE}, of calendars a (as the window's glass says), b and c. */
export const entryArbitrary: fc.Arbitrary<Entry> = fc
  .record({
    id: fc.uuid(),
    calendarId: fc.constantFrom('a', 'a', 'b', 'c'),
    shape,
    own: content,
    rule: fc.option(ruleText, { nil: '', freq: 2 }),
    except: fc.array(fc.integer({ min: 0, max: 12 }), { maxLength: 2 }),
    changed: fc.array(
      fc.record({
        day: fc.oneof(fc.integer({ min: 0, max: 12 }), fc.integer({ min: 0, max: 500 })),
        hours: fc.integer({ min: -30, max: 30 }),
        // Some dates come from far away.
        from: fc.constantFrom(0, 0, 0, -500, 500),
        content,
      }),
      { maxLength: 2 },
    ),
  })
  .map(({ id, calendarId, shape: s, own, rule, except, changed }) => {
    const slot = (day: number) => whenAt(s, s.start + day * DAY);
    const overrides: Override[] = changed.map((c) => {
      const start =
        s.start + c.day * DAY + (s.kind === 'date' ? Math.trunc(c.hours / 10) * DAY : c.hours * HOUR);
      return {
        slot: slot(c.day + c.from),
        start: whenAt(s, start),
        end: whenAt(s, start + s.length),
        content: c.content,
      };
    });
    const recurrence = rule ? { rule, dates: [], exceptDates: except.map(slot) } : null;
    return fitKind({
      ...own,
      kind: rule && own.kind === 'milestone' ? 'event' : own.kind,
      id,
      calendarId,
      version: 1,
      uid: `${id}@inside`,
      start: whenAt(s, s.start),
      end: whenAt(s, s.start + s.length),
      recurrence,
      overrides: rule ? [...new Map(overrides.map((o) => [JSON.stringify(o.slot), o])).values()] : [],
    });
  });

export const LABELS = ['Gate', 'Spring tide', '漁港 visit'];

const condition: fc.Arbitrary<Filter> = fc.oneof(
  fc.record({
    field: fc.constant('label' as const),
    value: fc.constantFrom(...LABELS, ...LABELS, 'forgotten'),
  }),
  fc.record({ field: fc.constant('calendar' as const), value: fc.constantFrom('a', 'a', 'a', 'b', 'left') }),
  fc.record({
    field: fc.constant('kind' as const),
    value: fc.constantFrom('event' as const, 'event' as const, 'due' as const),
  }),
  fc.record({ field: fc.constant('status' as const), value: fc.constantFrom(...STATUSES) }),
  fc.record({ field: fc.constant('text' as const), value: fc.constantFrom('gate', 'tide') }),
  fc.record({ field: fc.constant('person' as const), value: fc.constantFrom('Gate', 'ida@ostrel.example') }),
  fc.record({
    field: fc.constant('property' as const),
    name: fc.constantFrom('Berth', 'gone'),
    test: fc.constantFrom('is' as const, 'contains' as const, 'at-most' as const),
    value: fc.constantFrom('Gate', 'tide'),
  }),
);

/** Filters of every condition, joined and denied; some of them name what is gone. */
export const filterArbitrary: fc.Arbitrary<Filter> = fc.letrec<{ node: Filter }>((tie) => ({
  node: fc.oneof(
    { depthSize: 'small', maxDepth: 4, withCrossShrink: true },
    condition,
    fc.array(tie('node'), { minLength: 1, maxLength: 3 }).map((all) => ({ all })),
    fc.array(tie('node'), { minLength: 1, maxLength: 3 }).map((any) => ({ any })),
    tie('node').map((not) => ({ not })),
  ),
})).node;

const PATTERNS = [
  '{title}',
  '{title}',
  '{calendar}: {title}',
  '{title}[ ({label})]',
  '{person|label|"Somebody"}: {title|place}',
  '{property:Berth|calendar}[, {status}][, {kind}]',
];

const mostly = fc.constantFrom(true, true, true, false);

const ceilingSet: fc.Arbitrary<CeilingSet> = fc
  .array(
    fc.tuple(
      fc.constantFrom(...AUDIENCES),
      fc.constantFrom(...GLASSES, 'clear', 'clear', 'tinted', 'tinted'),
    ),
    {
      maxLength: 2,
    },
  )
  .map((pairs) => Object.fromEntries(pairs));

const sourceArbitrary = (id: string) =>
  fc
    .record({
      glass: fc.constantFrom(...SOURCE_GLASSES, 'tinted', 'clear', 'clear', 'cut', 'cut'),
      fields: fc.uniqueArray(fc.constantFrom(...CUT_FIELDS), { minLength: 1 }),
    })
    .map(({ glass, fields }) => source(id, glass, fields));

const FRENCH = { language: 'fr', name: 'Quai', description: 'Ce qui se passe', topic: 'Port' };

/** Rules of a window on calendars a and b; c is never a source. Filters, ceilings and the like come often, not always. */
export const rulesArbitrary: fc.Arbitrary<WindowRules> = fc
  .record({
    a: sourceArbitrary('a'),
    b: sourceArbitrary('b'),
    rounding: fc.constantFrom(...ROUNDINGS),
    tellTentative: fc.boolean(),
    namesCalendars: fc.boolean(),
    dueAs: fc.constantFrom(...DUE_FORMS),
    remind: fc.constantFrom({}, {}, { remind: 30 }, { place: 'Ostrel' }, { notices: false as const }),
    translations: fc.constantFrom([], [FRENCH]),
    switches: fc.record({
      joinLink: fc.boolean(),
      people: fc.boolean(),
      contact: fc.boolean(),
      planned: fc.boolean(),
    }),
    titlePattern: fc.constantFrom(...PATTERNS),
    // Most windows show something, or the property would hold for nothing.
    filter: fc.option(filterArbitrary, { freq: 1 }),
    include: fc.record({ free: mostly, cancelled: mostly, tentative: mostly }),
    labelHolds: fc.array(
      fc.record({
        label: fc.constantFrom(...LABELS),
        hold: fc.constantFrom('frost' as const, 'keep-in' as const),
      }),
      { maxLength: 1 },
    ),
    house: fc.oneof(fc.constant({}), ceilingSet),
    own: fc.oneof(fc.constant({}), ceilingSet),
  })
  .map(({ a, b, dueAs, remind, translations, house, own, filter, ...rest }) => {
    const known = { calendars: ['a', 'b', 'c'], labels: LABELS, properties: ['Berth'] };
    return rulesOf('shut', {
      ...rest,
      wording: { ...rulesOf('shut').wording, dueAs, ...remind, translations },
      sources: [a, b],
      filter,
      gone: goneFrom(filter, known),
      ceilings: { house, calendars: { a: own } },
    });
  });
