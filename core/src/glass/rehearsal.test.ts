import { Budget } from '../work';
import { phonesIn } from './phones';
import { describe, expect, it } from 'vitest';
import type { Entry } from '../entries';
import { entry, rulesOf, source, zoned } from '../testing/samples';
import {
  NOTHING_WATCHED,
  exposuresOf,
  differenceOf,
  isQuiet,
  outwardView,
  rehearse,
  rehearsedWindow,
  type RehearsedWindow,
  type WindowRules,
} from '.';

const NOW = Date.UTC(2026, 5, 10);
const NOBODY = NOTHING_WATCHED;
const one = entry({ id: '1', start: zoned('2026-06-12T10:00'), title: 'Sounding', place: 'Berth 1' });
const two = entry({ id: '2', start: zoned('2026-06-13T10:00'), title: 'Towing', hold: 'keep-in' });
const series = entry({
  id: '3',
  start: zoned('2026-06-14T10:00'),
  recurrence: { rule: 'FREQ=DAILY;COUNT=4', dates: [], exceptDates: [] },
});

function window(rules: WindowRules, parts: Partial<RehearsedWindow> = {}): RehearsedWindow {
  const keys = [
    { id: 'k1', madeOutTo: 'Paper', audience: 'street' as const, cap: null },
    { id: 'k2', madeOutTo: 'Agents', audience: 'partners' as const, cap: null },
    { id: 'k3', madeOutTo: 'Club', audience: 'partners' as const, cap: null },
  ];
  return { id: 'w', rules, listed: false, publicUntil: null, closed: false, keys, ...parts };
}
const state = (w: RehearsedWindow | null, entries: Entry[]) => ({ window: w, entries: () => entries });

describe('a rehearsal', () => {
  it('tells what appears, vanishes and changes, for every audience and cap', () => {
    const w = window(rulesOf('tinted'));
    const after = [
      { ...one, title: 'Sounding, north' },
      { ...two, hold: 'none' as const },
    ];
    const { views, demands } = rehearse(state(w, [one, two, series]), state(w, after), NOW, NOBODY);
    expect(views.map((v) => v.keys.map((k) => k.madeOutTo))).toEqual([['Paper'], ['Agents', 'Club']]);
    const { difference } = views[0]!;
    expect(difference.items.map((c) => [c.kind, c.kind === 'changes' ? c.fields : null])).toEqual([
      ['changes', ['title']],
      ['appears', null],
      ['vanishes', null],
    ]);
    expect(difference.times).toEqual({ before: 5, after: 2, appear: 1, vanish: 4, change: 1 });
    expect(demands).toEqual(['most-vanishes']);
  });

  it('counts a public address as one that is lost, also if another key shows the same', () => {
    const rules = rulesOf('tinted');
    const keys = [{ id: 'k1', madeOutTo: 'Paper', audience: 'street', cap: null, expiresAt: null }] as const;
    const at = (listed: boolean, publicUntil: number | null) =>
      rehearsedWindow({ id: 'w', listed, publicUntil, closedAt: null, keys }, rules, NOW);
    const names = (w: RehearsedWindow) => w.keys.map((k) => k.madeOutTo);
    const demands = (before: RehearsedWindow, after: RehearsedWindow) =>
      rehearse(state(before, [one]), state(after, [one]), NOW, NOBODY).demands;
    const everybody = 'Anybody, by the public address';
    // It goes to a worker as JSON.
    for (const w of [at(true, null), at(false, NOW), at(false, null)])
      expect(JSON.parse(JSON.stringify(w))).toEqual(w);
    expect(names(at(true, null))).toEqual(['Paper', everybody]);
    expect(names(at(false, NOW + 1))).toEqual(['Paper', everybody]);
    expect(names(at(false, NOW))).toEqual(['Paper']);
    expect(demands(at(true, null), at(false, NOW + 1))).toEqual(['public-address-ends']);
    expect(demands(at(true, null), at(false, NOW))).toEqual(['public-address-ends']);
    expect(demands(at(false, NOW + 2), at(false, NOW + 1))).toEqual(['public-address-ends']);
    expect(demands(at(false, NOW + 1), at(false, NOW))).toEqual(['public-address-ends']);
    expect(demands(at(false, NOW + 1), at(false, NOW + 2))).toEqual([]);
    expect(demands(at(false, NOW - 1), at(false, NOW - 2))).toEqual([]);
    expect(demands(at(false, NOW - 2), at(true, null))).toEqual(['first-listed']);
    expect(demands(at(true, null), at(true, null))).toEqual([]);
  });

  it('is quiet where readers notice nothing', () => {
    const w = window(rulesOf('tinted'));
    const hidden = [
      { ...one, description: 'Only inside' },
      { ...two, title: 'Another' },
    ];
    expect(isQuiet(rehearse(state(w, [one, two]), state(w, hidden), NOW, NOBODY))).toBe(true);
    const renamed = window({ ...rulesOf('tinted'), wording: { ...rulesOf('tinted').wording, name: 'New' } });
    const told = rehearse(state(w, [one]), state(renamed, [one]), NOW, NOBODY);
    expect(isQuiet(told)).toBe(false);
    expect(told.views[0]!.difference.wording).toEqual(['name']);
  });

  it('demands to be confirmed where it is listed first, or shows sensitive matter to the street', () => {
    const w = window(rulesOf('frosted'));
    const told = (after: RehearsedWindow, entries = [one]) =>
      rehearse(state(w, entries), state(after, entries), NOW, { ...NOTHING_WATCHED, words: ['sounding'] })
        .demands;
    expect(told(window(rulesOf('frosted'), { listed: true }))).toEqual(['first-listed']);
    expect(told(window(rulesOf('tinted')))).toEqual(['sensitive-on-street']);
    const inner = { keys: w.keys.filter((k) => k.audience !== 'street') };
    expect(told(window(rulesOf('tinted'), inner))).not.toContain('sensitive-on-street');
  });

  it('asks where titles vanish behind busy time, and where busy time vanishes, but not where it gets clearer', () => {
    const at = (hour: number, id: string): Entry => ({
      ...one,
      id,
      start: zoned(`2026-06-12T${hour}:00`),
      end: zoned(`2026-06-12T${hour + 1}:00`),
    });
    const entries = [at(10, 'a'), at(11, 'b'), at(14, 'c'), at(17, 'd')];
    const demands = (before: Entry[], a: 'frosted' | 'tinted', after: Entry[], b: 'frosted' | 'tinted') =>
      rehearse(state(window(rulesOf(a)), before), state(window(rulesOf(b)), after), NOW, NOBODY).demands;
    expect(demands(entries, 'tinted', entries, 'frosted')).toEqual(['most-vanishes']);
    expect(demands(entries, 'frosted', entries, 'tinted')).toEqual([]);
    expect(demands(entries, 'frosted', entries.slice(0, 2), 'frosted')).toEqual(['most-vanishes']);
    expect(demands(entries, 'frosted', entries.slice(0, 2), 'tinted')).toEqual(['most-vanishes']);
    expect(demands(entries, 'frosted', entries.slice(0, 3), 'frosted')).toEqual([]);
  });

  it('shows a closed window, or one that is not there, as nothing', () => {
    const w = window(rulesOf('tinted'));
    const closed = rehearse(state(w, [one]), state({ ...w, closed: true }, [one]), NOW, NOBODY);
    expect(closed.views[0]!.difference.items.map((i) => i.kind)).toEqual(['vanishes']);
    const opened = rehearse(state(null, []), state(w, [one]), NOW, NOBODY);
    expect(opened.views[0]!.difference.items.map((i) => i.kind)).toEqual(['appears']);
    expect(opened.demands).toEqual([]);
  });

  it('names changes of time, recurrence and of single dates', () => {
    const rules = rulesOf('tinted');
    const view = (e: Entry) =>
      outwardView([e], rules, { from: NOW, to: NOW + 40 * 86_400_000 }, { audience: 'street', cap: null });
    const fields = (after: Entry) => {
      const [only] = differenceOf(view(series), view(after)).items;
      return only?.kind === 'changes' ? only.fields : null;
    };
    expect(fields({ ...series, end: zoned('2026-06-14T12:00') })).toEqual(['time']);
    expect(fields({ ...series, recurrence: { ...series.recurrence!, rule: 'FREQ=DAILY;COUNT=5' } })).toEqual([
      'recurrence',
    ]);
    const moved = {
      slot: zoned('2026-06-15T10:00'),
      start: zoned('2026-06-15T12:00'),
      end: zoned('2026-06-15T13:00'),
    };
    expect(fields({ ...series, overrides: [{ ...moved, content: series }] })).toEqual(['dates']);
  });
});

describe('exposure', () => {
  const found = (parts: Partial<Entry>, glass: 'tinted' | 'clear' = 'clear', words: string[] = []) => {
    const rules = rulesOf('shut', {
      sources: [source('a', glass)],
      switches: { joinLink: true, people: true, contact: true, planned: true },
    });
    const view = outwardView(
      [{ ...one, ...parts }],
      rules,
      { from: 0, to: 4e12 },
      { audience: 'street', cap: null },
    );
    return exposuresOf(view, { ...NOTHING_WATCHED, people: ['Ann Lee'], words }).map(
      (e) => `${e.kind} ${e.field} ${e.text}`,
    );
  };

  it('finds mail addresses, phone numbers, passcodes, people and the house’s words, and says where', () => {
    expect(found({ description: 'Ask ann@ostrel.example or +1 902 555 0134.' })).toEqual([
      'mail-address description ann@ostrel.example',
      'phone-number description +1 902 555 0134',
    ]);
    expect(found({ joinLink: 'https://meet.ostrel.example/team?pin=9020' })).toEqual([
      'passcode joinLink https://meet.ostrel.example/team?pin=9020',
    ]);
    expect(found({ title: 'Lunch with ANN LEE' })).toEqual(['person title Ann Lee']);
    expect(found({ people: [{ name: 'Bo', address: 'bo@x.example' }] })).toEqual([
      'person people Bo',
      'mail-address people bo@x.example',
    ]);
    expect(found({ place: 'Vault door' }, 'tinted', ['vault'])).toEqual(['watch-word place vault']);
  });

  it('reads telephone numbers by the house’s country, and takes no number of a permit or a berth for one', () => {
    const budget = () => new Budget(1e6, 'this');
    const phones = (text: string, country = 'CA') => phonesIn(text, country, budget());
    expect(phones('Call 902 555 0134 or (902) 555-0135, abroad +44 20 7946 0958 or 0241 80 90 12.')).toEqual([
      '902 555 0134',
      '(902) 555-0135',
      '+44 20 7946 0958',
      '0241 80 90 12',
    ]);
    expect(phones('Permit 2024-113-77, berth 12 345 678 9, +999 12 34 56 78.')).toEqual([]);
    expect(phones('Berth 12 345 678 9', '')).toEqual(['12 345 678 9']);
    expect(() => phonesIn('902 555 0134, '.repeat(100), 'CA', new Budget(100, 'this'))).toThrow('steps');
  });

  it('looks through hostile texts in a bounded number of steps, and still finds what is in them', () => {
    const ends = ' ann@ostrel.example';
    for (const piece of ['a', 'a.', '1 ', '1.', '(1', '@', 'a@a.', 'http://', 'https://x?', '+1-', '%._'])
      expect(found({ description: piece.repeat(50_000 / piece.length - 20) + ends })).toContain(
        'mail-address description ann@ostrel.example',
      );
  });

  it('knows thousands of people, and refuses what is too much with a sentence', () => {
    const people = Array.from(
      { length: 12_000 },
      (_, i) => `Ann ${i} of the ${'very '.repeat(i % 9)}long name`,
    );
    const view = outwardView(
      [
        {
          ...one,
          title: 'Lunch with ann 11999 of the VERY very long name',
          description: 'Ann '.repeat(10_000),
        },
      ],
      rulesOf('clear'),
      { from: 0, to: 4e12 },
      { audience: 'street', cap: null },
    );
    const names = exposuresOf(view, { ...NOTHING_WATCHED, people }).filter((e) => e.kind === 'person');
    expect(names.map((e) => e.text)).toContain('Ann 11999 of the very very long name');
    const entries = Array.from({ length: 1700 }, (_, i) => ({
      ...one,
      id: `e${i}`,
      description: `${i}`.padEnd(50_000, 'x'),
    }));
    const huge = outwardView(
      entries,
      rulesOf('clear'),
      { from: 0, to: 4e12 },
      { audience: 'street', cap: null },
    );
    expect(() => exposuresOf(huge, NOTHING_WATCHED)).toThrow('more steps than allowed');
  });

  it('knows the people whom the view itself names, and nobody whom only hidden entries or fields name', () => {
    const bo = [{ name: 'Bo Lind', address: '' }];
    expect(found({ title: 'Lunch with Bo Lind', people: bo })).toContain('person title Bo Lind');
    expect(found({ title: 'Lunch with Bo Lind', people: bo }, 'tinted')).toEqual([]);
  });

  it('finds nothing in what does not go out, nor in dates, times, links and halves of words', () => {
    expect(found({ description: 'ann@ostrel.example' }, 'tinted')).toEqual([]);
    expect(found({ description: 'From 2026-06-12 10:00-12:30 to 12.06.2026, berth 3, 2026-2027.' })).toEqual(
      [],
    );
    expect(found({ publicLink: 'https://ostrel.example/plan/20260612/1234567' })).toEqual([]);
    expect(found({ title: 'Vaulted hall' }, 'tinted', ['vault'])).toEqual([]);
  });
});
