import { describe, expect, it } from 'vitest';
import { Problem } from '../problems';
import { HOST, date, entry, zoned } from '../testing/samples';
import { checkedEntry } from './checkEntry';
import type { Entry } from './entry';
import { ENTRY_LIMITS } from './limits';
import { extentOf, occurrencesOf } from './occurrences';

const START = zoned('2026-03-02T09:00');

/** What becomes of an entry when it is written: `accepted`, or the code. */
function outcome(parts: Partial<Entry>): string {
  try {
    checkedEntry(entry({ start: START, ...parts }), HOST);
    return 'accepted';
  } catch (error) {
    if (!(error instanceof Problem)) throw error;
    expect(error.message).not.toContain('…');
    return error.code;
  }
}

const ruled = (rule: string, parts: Partial<Entry> = {}) =>
  outcome({ recurrence: { rule, dates: [], exceptDates: [] }, ...parts });

const all = (name: string, low: number, high: number) =>
  `${name}=${Array.from({ length: high - low + 1 }, (_, i) => i + low).join(',')}`;
const EVERY_SECOND = `${all('BYHOUR', 0, 23)};${all('BYMINUTE', 0, 59)};${all('BYSECOND', 0, 59)}`;

describe('an entry that is written', () => {
  it('has its times in order and of one kind', () => {
    expect(outcome({ end: zoned('2026-03-02T08:00') })).toBe('end-before-start');
    expect(outcome({ start: date('2026-01-01'), end: date('2026-01-01') })).toBe('end-before-start');
    expect(outcome({ end: date('2026-03-03') })).toBe('start-end-differ');
    expect(outcome({ end: zoned('2026-03-02T13:30', 'Europe/London') })).toBe('accepted');
  });

  it('lies in years that can be written, and lasts no longer than can be told', () => {
    for (const at of ['0000-05-01T10:00', '9999-12-29T11:00'])
      expect(outcome({ start: zoned(at), end: zoned(at) })).toBe('year-out-of-reach');
    expect(ruled('FREQ=DAILY', { end: zoned('9999-12-29T11:00') })).toBe('year-out-of-reach');
    expect(ruled('FREQ=DAILY', { end: zoned('9998-12-29T11:00') })).toBe('span-too-long');
    expect(outcome({ end: zoned('2036-12-01T11:00') })).toBe('span-too-long');
    expect(outcome({ end: zoned('2035-12-01T11:00') })).toBe('accepted');
    expect(ruled('FREQ=YEARLY', { end: zoned('2027-03-05T11:00') })).toBe('span-too-long');
  });

  it('names zones that clocks can be read in, in their one spelling, wherever a zone stands', () => {
    const odd = zoned('2026-03-03T09:00', 'PST');
    expect(outcome({ start: odd, end: odd })).toBe('zone-unknown');
    const recurrence = { rule: 'FREQ=DAILY', dates: [], exceptDates: [odd] };
    expect(outcome({ recurrence })).toBe('zone-unknown');
    expect(outcome({ recurrence: { rule: '', dates: [odd], exceptDates: [] } })).toBe('zone-unknown');
    expect(outcome({ kind: 'milestone', planned: odd })).toBe('zone-unknown');
    const [start, end] = [
      zoned('2026-03-03T09:00', 'america/halifax'),
      zoned('2026-03-03T10:00', 'Canada/Atlantic'),
    ];
    expect(checkedEntry(entry({ start, end }), HOST)).toMatchObject({
      start: { zone: HOST },
      end: { zone: HOST },
    });
  });

  it('holds no more than every reader can be given', () => {
    const dates = Array.from({ length: ENTRY_LIMITS.dates + 1 }, () => START);
    expect(outcome({ recurrence: { rule: 'FREQ=HOURLY', dates: [], exceptDates: dates } })).toBe(
      'entry-too-large',
    );
    expect(outcome({ recurrence: { rule: '', dates, exceptDates: [] } })).toBe('entry-too-large');
    const people = Array.from({ length: ENTRY_LIMITS.people + 1 }, () => ({ name: 'Ida', address: '' }));
    expect(outcome({ people })).toBe('entry-too-large');
    const content = { ...entry({ start: START }), people };
    expect(
      outcome({
        recurrence: { rule: 'FREQ=DAILY', dates: [], exceptDates: [] },
        overrides: [{ slot: START, start: START, end: START, content }],
      }),
    ).toBe('entry-too-large');
  });
});

describe('a rule that is written', () => {
  it.each([
    ['FREQ=SECONDLY;BYSECOND=60;COUNT=1'],
    ['FREQ=SECONDLY;BYSECOND=60'],
    [`FREQ=YEARLY;INTERVAL=3;BYMONTH=1;${EVERY_SECOND};BYDAY=MO,TU,WE,TH,FR,SA,SU`],
    [`FREQ=DAILY;${EVERY_SECOND}`],
    [`FREQ=MONTHLY;${all('BYMONTHDAY', 1, 31)};${EVERY_SECOND};BYSETPOS=1`],
    ['FREQ=MINUTELY;INTERVAL=2;BYMINUTE=1'],
    ['FREQ=HOURLY;INTERVAL=24;BYHOUR=10'],
    ['FREQ=SECONDLY;INTERVAL=60;BYSECOND=30'],
    ['FREQ=YEARLY;BYMONTH=2;BYMONTHDAY=30'],
    ['FREQ=DAILY;BYMONTH=2;BYMONTHDAY=30;COUNT=1'],
    ['FREQ=YEARLY;BYWEEKNO=53;BYMONTH=6'],
    ['FREQ=MINUTELY'],
    ['FREQ=DAILY;COUNT=900000'],
    ['FREQ=YEARLY;INTERVAL=1000000;BYMONTH=3;BYDAY=1MO,2MO;BYSETPOS=300'],
    [`FREQ=YEARLY;${all('BYWEEKNO', 1, 53)};${all('BYYEARDAY', 1, 366)};${EVERY_SECOND}`],
    ['FREQ=DAILY;X-A=1\r\nATTENDEE:mailto:x@evil.example'],
    ['FREQ=DAILY\n'],
    ['FREQ=DAILY;X-A=ü'],
  ])('is refused when it takes too long, too often, or never takes place: %s', (rule) => {
    expect(ruled(rule, { start: zoned('2026-03-02T08:00'), end: zoned('2026-03-02T09:00') })).toBe(
      'rule-invalid',
    );
  });

  it.each([
    ['FREQ=DAILY;UNTIL=99991231T235959Z'],
    ['FREQ=WEEKLY;UNTIL=99981231'],
    ['FREQ=HOURLY'],
    ['FREQ=HOURLY;COUNT=9000'],
    ['FREQ=YEARLY;BYMONTH=2;BYMONTHDAY=29'],
    ['FREQ=MONTHLY;BYMONTHDAY=13;BYDAY=FR'],
    ['FREQ=MINUTELY;INTERVAL=90'],
    ['FREQ=DAILY;BYHOUR=9,12,15,18;BYMINUTE=0,30'],
    ['FREQ=YEARLY;BYDAY=20MO;COUNT=50'],
  ])('is taken, with an end however far away: %s', (rule) => {
    expect(ruled(rule)).toBe('accepted');
    const recurring = entry({ start: START, recurrence: { rule, dates: [], exceptDates: [] } });
    expect(extentOf(recurring, HOST).to).toBeGreaterThan(Date.UTC(2026, 5, 1));
    const range = { from: Date.UTC(9990, 0, 1), to: Date.UTC(9999, 11, 31) };
    expect(() => occurrencesOf(recurring, range, HOST)).not.toThrow();
  });

  it('with many exceptions is worked out in one pass', () => {
    const exceptDates = Array.from({ length: 5000 }, (_, i) =>
      date(new Date(Date.UTC(2026, 0, 1) + i * 86_400_000).toISOString().slice(0, 10)),
    );
    const recurring = entry({ start: START, recurrence: { rule: 'FREQ=HOURLY', dates: [], exceptDates } });
    expect(occurrencesOf(recurring, { from: Date.UTC(2026, 0, 1), to: Date.UTC(2036, 0, 1) }, HOST)).toEqual(
      [],
    );
  });
});
