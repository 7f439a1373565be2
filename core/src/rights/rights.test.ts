import { describe, expect, it } from 'vitest';
import { NO_CEILINGS, type Ceilings, type Glass } from '../glass';
import { entry, zoned } from '../testing/samples';
import { HouseRights, type Made } from './houseRights';
import { entriesInside, rangeInside } from './insideView';
import { DEEDS, may, whoMay, type Deed, type Who } from './rights';

const A = 'a';
const rightsOf = (
  made: Made | null,
  parts: { steward?: boolean; known?: boolean; houseGlass?: Glass; ceilings?: Ceilings } = {},
) =>
  new HouseRights(
    parts.steward ?? false,
    new Map([
      [A, { zone: 'America/Halifax', houseGlass: parts.houseGlass ?? 'shut', known: parts.known ?? false }],
    ]),
    new Map(made ? [[A, made]] : []),
    parts.ceilings ?? NO_CEILINGS,
  );

describe('the table of rights', () => {
  it('is that of the house, deed by deed', () => {
    const all: readonly Who[] = ['steward', 'publisher', 'editor', 'reader', 'house'];
    const said = Object.fromEntries(
      (Object.keys(DEEDS) as Deed[]).map((deed) => [deed, all.filter((who) => may(deed, who)).join(' ')]),
    );
    expect(said).toEqual({
      'see-all': 'steward publisher editor',
      see: 'steward publisher editor reader house',
      write: 'steward publisher editor',
      manage: 'steward publisher',
      people: 'steward publisher',
      publish: 'steward publisher',
      'see-windows': 'steward publisher',
      'know-windows': 'steward publisher editor',
      'ask-ceiling': 'steward publisher editor',
      'ask-to-see': 'reader house',
      'run-house': 'steward',
    });
  });

  it('tells who could do something', () => {
    expect(whoMay('write')).toBe(
      'an editor of the calendar, a publisher of the calendar or a steward of the house',
    );
    expect(whoMay('run-house')).toBe('a steward of the house');
  });
});

describe('what somebody sees of a calendar', () => {
  it('is everything, or what the clearer of their own glass and the house’s lets through', () => {
    expect(rightsOf({ standing: 'editor', glass: null }).sight(A)).toBe('all');
    expect(rightsOf(null, { steward: true }).sight(A)).toBe('all');
    expect(rightsOf(null).sight(A)).toBe('shut');
    expect(rightsOf(null, { houseGlass: 'tinted' }).sight(A)).toBe('tinted');
    expect(rightsOf({ standing: 'reader', glass: 'clear' }).sight(A)).toBe('clear');
    expect(rightsOf({ standing: 'reader', glass: 'frosted' }, { houseGlass: 'tinted' }).sight(A)).toBe(
      'tinted',
    );
    expect(rightsOf({ standing: 'publisher', glass: null }).sight('none such')).toBe('shut');
  });

  it('is never clearer than the ceiling of their ring', () => {
    const ceilings: Ceilings = { house: { crew: 'tinted' }, calendars: { [A]: { house: 'frosted' } } };
    expect(rightsOf({ standing: 'reader', glass: 'clear' }, { ceilings }).sight(A)).toBe('tinted');
    expect(rightsOf(null, { houseGlass: 'clear', ceilings }).sight(A)).toBe('frosted');
    const both = { houseGlass: 'clear', ceilings: { house: { crew: 'frosted' }, calendars: {} } } as const;
    expect(rightsOf({ standing: 'reader', glass: 'clear' }, both).sight(A)).toBe('clear');
    // What keeps readers away does not keep away those who write it.
    const shut: Ceilings = { house: { crew: 'shut', house: 'shut' }, calendars: {} };
    expect(rightsOf({ standing: 'publisher', glass: null }, { ceilings: shut }).sight(A)).toBe('all');
    expect(rightsOf(null, { houseGlass: 'clear', ceilings: shut }).inSight()).toEqual([]);
  });
});

describe('entries through a glass from inside', () => {
  const setting = {
    calendar: { id: A, zone: 'America/Halifax', labelHolds: [] },
    ceilings: NO_CEILINGS,
    secret: 's',
    range: rangeInside('America/Halifax', Date.UTC(2026, 5, 1)),
  };
  const at = (from: string, to: string, parts: object = {}) =>
    entry({ calendarId: A, start: zoned(`2026-06-0${from}`), end: zoned(`2026-06-0${to}`), ...parts });
  const day = { title: 'Talks', place: 'Office', description: 'About money', labels: ['board'] };
  const see = (entries: ReturnType<typeof entry>[], glass: Glass) =>
    entriesInside(entries, { audience: 'crew', glass }, setting);

  it('are entries with what it lets through, and identifiers of their own', () => {
    const own = at('2T10:00', '2T11:00', day);
    const [seen] = see([own], 'tinted');
    expect(seen).toMatchObject({ title: 'Talks', place: 'Office', description: '', labels: [], version: 0 });
    expect(seen!.start).toEqual(own.start);
    expect([seen!.id, seen!.uid]).not.toContain(own.id);
    expect(see([own], 'clear')[0]).toMatchObject({ description: 'About money', labels: ['board'] });
    expect(see([own], 'shut')).toEqual([]);
  });

  it('are held back by labels as by holds of their own', () => {
    const own = at('2T10:00', '2T11:00', day);
    const through = { audience: 'crew', glass: 'clear' } as const;
    const held = (hold: 'frost' | 'keep-in') =>
      entriesInside([own], through, {
        ...setting,
        calendar: { ...setting.calendar, labelHolds: [{ label: 'board', hold }] },
      });
    expect(held('frost').map((e) => e.title)).toEqual(['Busy']);
    expect(held('keep-in')).toEqual([]);
  });

  it('are spans of busy time behind frosted glass, and nothing of what is kept in', () => {
    const entries = [
      at('2T10:00', '2T11:00', day),
      at('2T11:00', '2T12:00', { ...day, title: 'More' }),
      at('3T10:00', '3T11:00', { ...day, hold: 'keep-in' }),
    ];
    const seen = see(entries, 'frosted');
    expect(seen.map((e) => [e.title, e.start, e.end])).toEqual([
      ['Busy', expect.objectContaining({ kind: 'zoned' }), expect.anything()],
    ]);
    expect(JSON.stringify(seen)).not.toMatch(/Talks|More|Office|money/);
  });

  it('recur as they do, with dates that were changed', () => {
    const recurrence = { rule: 'FREQ=DAILY;COUNT=5', dates: [], exceptDates: [zoned('2026-06-03T10:00')] };
    const slot = zoned('2026-06-04T10:00');
    const moved = { slot, start: zoned('2026-06-04T15:00'), end: zoned('2026-06-04T16:00') };
    const own = at('2T10:00', '2T11:00', { ...day, recurrence });
    const override = { ...moved, content: { ...own, title: 'Later talks', hold: 'none' as const } };
    const [seen] = see([{ ...own, overrides: [override] }], 'tinted');
    expect(seen!.recurrence!.rule).toContain('FREQ=');
    expect(seen!.overrides.map((o) => [o.content.title, o.content.description])).toEqual([
      ['Later talks', ''],
    ]);
  });
});
