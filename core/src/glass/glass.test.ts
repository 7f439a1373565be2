import { describe, expect, it } from 'vitest';
import { date, entry, rulesOf, STREET, zoned } from '../testing/samples';
import { dayFromText } from '../zones';
import {
  emptyMemo,
  GLASSES,
  LIMITERS,
  effectiveGlass,
  fieldsThrough,
  inferRule,
  limitsFor,
  mergeSpans,
  outwardView,
  pseudonym,
  rangeOfHorizon,
  USUAL_SWITCHES,
  type Glass,
  type OutwardView,
} from './index';

const RANGE = { from: Date.UTC(2026, 0, 1), to: Date.UTC(2027, 0, 1) };
const NONE = USUAL_SWITCHES;

describe('the effective glass', () => {
  it('is the least of all limits, for every pair of limiters and glasses, and says which decided', () => {
    for (const by of LIMITERS) {
      for (const other of LIMITERS.filter((l) => l !== by)) {
        for (const a of GLASSES) {
          for (const b of GLASSES) {
            const { glass, reasons } = effectiveGlass([
              { by, glass: a },
              { by: other, glass: b },
            ]);
            const least = GLASSES.indexOf(a) < GLASSES.indexOf(b) ? a : b;
            expect(glass).toBe(least);
            expect(reasons.filter((r) => r.decides).map((r) => r.by)).toEqual(
              LIMITERS.filter((l) => (l === by && a === least) || (l === other && b === least)),
            );
          }
        }
      }
    }
  });

  it('is shut where nothing says otherwise', () => {
    expect(effectiveGlass([]).glass).toBe('shut');
    expect(
      effectiveGlass(limitsFor({ calendarId: 'unknown', hold: 'none', labels: [] }, rulesOf('clear'), STREET))
        .glass,
    ).toBe('shut');
  });

  it('takes window, key and hold into account', () => {
    const glassOf = (window: Glass, cap: Glass | null, hold: 'none' | 'frost' | 'keep-in') =>
      effectiveGlass(
        limitsFor({ calendarId: 'a', hold, labels: [] }, rulesOf(window), { audience: 'street', cap }),
      ).glass;
    expect(glassOf('clear', null, 'none')).toBe('clear');
    expect(glassOf('clear', 'tinted', 'none')).toBe('tinted');
    expect(glassOf('clear', null, 'frost')).toBe('frosted');
    expect(glassOf('tinted', 'clear', 'keep-in')).toBe('shut');
    expect(glassOf('shut', 'clear', 'frost')).toBe('shut');
  });
});

describe('fields', () => {
  it('go through as the table of disclosure says', () => {
    const tinted = ['title', 'place', 'status', 'shows', 'kind', 'planned'];
    const clear = [...tinted, 'description', 'publicLink', 'labels', 'attachments', 'image', 'properties'];
    expect(fieldsThrough('shut', NONE)).toEqual([]);
    expect(fieldsThrough('frosted', { ...NONE, joinLink: true, people: true, contact: true })).toEqual([]);
    expect(fieldsThrough('tinted', { ...NONE, joinLink: true, people: true, contact: true })).toEqual(tinted);
    expect(fieldsThrough('clear', NONE)).toEqual(clear);
    expect(fieldsThrough('clear', { ...NONE, people: true })).toEqual([...clear, 'people']);
  });
});

describe('the outward view', () => {
  const view = (glass: Glass, entries: Parameters<typeof outwardView>[0], parts = {}) =>
    outwardView(entries, rulesOf(glass, parts), RANGE, STREET);
  const spans = (v: OutwardView) =>
    v.items.map((i) => [
      new Date(i.from).toISOString().slice(11, 16),
      new Date(i.to).toISOString().slice(11, 16),
    ]);

  it('merges busy spans that overlap or touch, and leaves out free, cancelled and empty ones', () => {
    const at = (id: string, from: string, to: string, parts = {}) =>
      entry({
        id,
        start: zoned(`2026-06-01T${from}`, 'UTC'),
        end: zoned(`2026-06-01T${to}`, 'UTC'),
        ...parts,
      });
    const entries = [
      at('a', '10:00', '11:00'),
      at('b', '11:00', '11:30'),
      at('c', '10:30', '10:45'),
      at('d', '12:00', '13:00', { shows: 'free' }),
      at('e', '14:00', '15:00', { status: 'cancelled' }),
      at('f', '16:00', '16:00'),
      at('g', '17:10', '17:20'),
    ];
    expect(spans(view('frosted', entries))).toEqual([
      ['10:00', '11:30'],
      ['17:10', '17:20'],
    ]);
    expect(spans(view('frosted', entries, { rounding: 60 }))).toEqual([
      ['10:00', '12:00'],
      ['17:00', '18:00'],
    ]);
    expect(view('tinted', entries).items).toHaveLength(7);
  });

  it('widens busy spans on the clocks of the host zone, never inward', () => {
    // Half an hour off UTC: steps are those that people there see.
    const one = entry({
      start: zoned('2026-06-01T10:10', 'Asia/Kolkata'),
      end: zoned('2026-06-01T10:20', 'Asia/Kolkata'),
    });
    expect(spans(view('frosted', [one], { rounding: 60, hostZone: 'Asia/Kolkata' }))).toEqual([
      ['04:30', '05:30'],
    ]);
    const twice = entry({ start: zoned('2026-11-01T05:10', 'UTC'), end: zoned('2026-11-01T05:20', 'UTC') });
    expect(spans(view('frosted', [twice], { rounding: 30 }))).toEqual([['05:00', '05:30']]);
  });

  it('marks tentative spans only where asked, and a firm one over it wins', () => {
    const tentative = entry({
      id: 't',
      start: zoned('2026-06-01T10:00'),
      end: zoned('2026-06-01T12:00'),
      status: 'tentative',
    });
    const firm = entry({ id: 'f', start: zoned('2026-06-01T11:00'), end: zoned('2026-06-01T11:30') });
    const marks = (tellTentative: boolean) =>
      view('frosted', [tentative, firm], { tellTentative }).items.map(
        (i) => i.kind === 'busy' && i.tentative,
      );
    expect(marks(false)).toEqual([false]);
    expect(marks(true)).toEqual([true, false, true]);
  });

  it('cuts busy spans at the ends of the range', () => {
    const long = entry({ start: zoned('2025-06-01T00:00'), end: zoned('2028-06-01T00:00') });
    expect(view('frosted', [long]).items[0]).toMatchObject({ from: RANGE.from, to: RANGE.to });
  });

  it('tells a series as one item whose rule ends with the last date in range', () => {
    const series = entry({
      start: zoned('2025-11-03T09:00'),
      end: zoned('2025-11-03T10:00'),
      recurrence: { rule: 'FREQ=WEEKLY;BYDAY=MO', dates: [], exceptDates: [zoned('2026-02-02T09:00')] },
    });
    const [item, ...more] = view('tinted', [series]).items;
    expect(more).toEqual([]);
    expect(item).toMatchObject({
      kind: 'series',
      start: zoned('2026-01-05T09:00'),
      rule: 'FREQ=WEEKLY;BYDAY=MO;UNTIL=20261228T130000Z',
      exceptDates: [zoned('2026-02-02T09:00')],
      overrides: [],
    });
  });

  it('gives an entry unrelated identifiers in two windows, and the same one again in each', () => {
    const one = entry({ start: date('2026-05-01') });
    const uid = (secret: string) => view('tinted', [one], { secret }).items[0]!.uid;
    expect(uid('x')).toBe(uid('x'));
    expect(uid('x')).not.toBe(uid('y'));
    expect(uid('x')).toMatch(/^[0-9a-f]{8}-[0-9a-f]{4}-8[0-9a-f]{3}-a[0-9a-f]{3}-[0-9a-f]{12}$/);
    expect(pseudonym('x', one.id)).toBe(uid('x'));
  });

  it('works entries out once as long as they stay the same objects', () => {
    const entries = [entry({ start: date('2026-05-01') }), entry({ id: 'two', start: date('2026-05-02') })];
    const memo = emptyMemo();
    const rules = rulesOf('tinted');
    const first = outwardView(entries, rules, RANGE, STREET, memo);
    const changed = [entries[0]!, { ...entries[1]!, title: 'Other' }];
    const second = outwardView(changed, rules, RANGE, STREET, memo);
    expect(second.items[0]).toBe(first.items[0]);
    expect(second).toEqual(outwardView(changed, rules, RANGE, STREET));
  });
});

describe('the limit of a view', () => {
  it('counts what readers see: not how many hidden entries a busy time is made of', () => {
    const daily = { rule: 'FREQ=DAILY;COUNT=3', dates: [], exceptDates: [] };
    const many = Array.from({ length: 10 }, (_, n) =>
      entry({ id: `e${n}`, start: zoned('2026-02-01T10:00'), recurrence: daily }),
    );
    const view = (glass: Glass, times: number, spans: number) =>
      outwardView(many, rulesOf(glass), RANGE, STREET, emptyMemo(), { times, spans });
    expect(view('frosted', 3, 30).items).toHaveLength(3);
    expect(() => view('frosted', 2, 30)).toThrow('everything that this window shows');
    expect(() => view('frosted', 3, 29)).toThrow('the busy time of this window');
    expect(view('tinted', 30, 0).items).toHaveLength(10);
    expect(() => view('tinted', 29, 0)).toThrow('everything that this window shows');
  });
});

describe('merging', () => {
  it('keeps order and joins what touches', () => {
    const span = (from: number, to: number, tentative = false) => ({ from, to, tentative });
    expect(mergeSpans([span(5, 7), span(1, 3), span(3, 4), span(6, 9, true)])).toEqual([
      span(1, 4),
      span(5, 7),
      span(7, 9, true),
    ]);
  });
});

describe('the inferred rule', () => {
  const days = (...texts: string[]) => texts.map((t) => dayFromText(t) * 86_400_000);

  it('is the plainest that gives the dates', () => {
    expect(inferRule(days('2026-01-05', '2026-01-06', '2026-01-07'))!.rule).toBe('FREQ=DAILY');
    expect(inferRule(days('2026-01-05', '2026-01-12', '2026-01-19'))!.rule).toBe('FREQ=WEEKLY;BYDAY=MO');
    expect(inferRule(days('2026-01-05', '2026-01-19', '2026-02-02'))!.rule).toBe(
      'FREQ=WEEKLY;INTERVAL=2;BYDAY=MO',
    );
    expect(inferRule(days('2026-01-30', '2026-02-27', '2026-03-27', '2026-04-24', '2026-05-29'))!.rule).toBe(
      'FREQ=MONTHLY;BYDAY=-1FR',
    );
    expect(inferRule(days('2026-01-15', '2026-02-15', '2026-03-15'))!.rule).toBe(
      'FREQ=MONTHLY;BYMONTHDAY=15',
    );
    expect(inferRule(days('2026-01-31', '2026-02-28', '2026-03-31'))!.rule).toBe(
      'FREQ=MONTHLY;BYMONTHDAY=-1',
    );
  });

  it('names the dates that it gives too many and too few', () => {
    const found = inferRule(
      days('2026-01-05', '2026-01-12', '2026-01-26', '2026-02-02', '2026-02-05', '2026-02-09'),
    )!;
    expect(found.rule).toBe('FREQ=WEEKLY;BYDAY=MO');
    expect(found.except).toEqual(days('2026-01-19'));
    expect(found.extra).toEqual(days('2026-02-05'));
  });

  it('is none where dates follow no rule', () => {
    expect(inferRule(days('2026-01-05', '2026-01-17', '2026-03-02', '2026-03-29', '2026-07-01'))).toBeNull();
    expect(inferRule([...days('2026-01-05'), days('2026-01-06')[0]! + 3_600_000])).toBeNull();
  });
});

describe('the horizon', () => {
  it('goes from a midnight to a midnight of the host zone, over clock changes', () => {
    const range = rangeOfHorizon(
      { kind: 'rolling', pastDays: 2, nextDays: 1 },
      'America/Halifax',
      Date.UTC(2026, 10, 2, 2),
    );
    // It is still 1 November there, the day with 25 hours.
    expect(new Date(range.from).toISOString()).toBe('2026-10-30T03:00:00.000Z');
    expect(new Date(range.to).toISOString()).toBe('2026-11-03T04:00:00.000Z');
  });

  it('holds both of its days where it is fixed, whatever day it is', () => {
    const fixed = { kind: 'fixed', from: '2026-10-31', to: '2026-11-02' } as const;
    expect(rangeOfHorizon(fixed, 'America/Halifax', 0)).toEqual({
      from: Date.UTC(2026, 9, 31, 3),
      to: Date.UTC(2026, 10, 3, 4),
    });
  });
});
