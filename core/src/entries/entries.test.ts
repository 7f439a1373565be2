import { describe, expect, it } from 'vitest';
import { HOST, date, entry, zoned } from '../testing/samples';
import { wallAt, wallToText } from '../zones';
import {
  extentOf,
  moveSeries,
  occurrencesOf,
  ruleFromText,
  ruleWords,
  simpleRuleOf,
  textOfSimpleRule,
  type Entry,
} from './index';

const YEAR = { from: Date.UTC(2026, 0, 1), to: Date.UTC(2027, 0, 1) };
const recurring = (rule: string, parts: Partial<Entry> = {}) =>
  entry({ start: zoned('2026-01-05T09:00'), recurrence: { rule, dates: [], exceptDates: [] }, ...parts });
const localStarts = (e: Entry) => occurrencesOf(e, YEAR, HOST).map((o) => wallToText(wallAt(HOST, o.from)));

describe('occurrences', () => {
  it('of a weekly 09:00 stay at 09:00 across both clock changes', () => {
    const starts = localStarts(recurring('FREQ=WEEKLY'));
    expect(starts).toHaveLength(52);
    expect(starts.every((s) => s.endsWith('T09:00:00'))).toBe(true);
  });

  it('of a night watch end at their clock time in the night of a change', () => {
    const watch = recurring('FREQ=DAILY;COUNT=3', {
      start: zoned('2026-10-30T22:00'),
      end: zoned('2026-10-31T06:00'),
    });
    const hours = occurrencesOf(watch, YEAR, HOST).map((o) => (o.to - o.from) / 3_600_000);
    expect(hours).toEqual([8, 9, 8]);
  });

  it('keep their length where the clocks jump over their start', () => {
    const nightly = recurring('FREQ=DAILY;COUNT=3', {
      start: zoned('2026-03-07T02:30'),
      end: zoned('2026-03-07T03:15'),
    });
    const minutes = occurrencesOf(nightly, YEAR, HOST).map((o) => (o.to - o.from) / 60_000);
    expect(minutes).toEqual([45, 45, 45]);
    expect(localStarts(nightly)[1]).toBe('2026-03-08T03:30:00');
  });

  it('take in dates, leave out excepted ones, and put overrides in their places', () => {
    const series: Entry = {
      ...recurring('FREQ=DAILY;COUNT=4'),
      recurrence: {
        rule: 'FREQ=DAILY;COUNT=4',
        dates: [zoned('2026-02-01T13:00', 'UTC')],
        exceptDates: [zoned('2026-01-06T09:00'), date('2026-01-08')],
      },
      overrides: [
        {
          slot: zoned('2026-01-07T09:00'),
          start: zoned('2026-01-09T15:00'),
          end: zoned('2026-01-09T16:00'),
          content: { ...entry({ start: date('2026-01-01') }), title: 'Moved' },
        },
      ],
    };
    expect(localStarts(series)).toEqual([
      '2026-01-05T09:00:00',
      '2026-01-09T15:00:00',
      '2026-02-01T09:00:00',
    ]);
  });

  it('of whole days stay on their days, whatever the host zone', () => {
    const days = entry({ start: date('2026-05-01'), end: date('2026-05-03') });
    for (const zone of [HOST, 'Pacific/Kiritimati', 'UTC']) {
      expect(occurrencesOf(days, YEAR, zone)[0]).toMatchObject({
        start: date('2026-05-01'),
        end: date('2026-05-03'),
      });
    }
  });

  it('of an endless rule are found far from its start', () => {
    const old = recurring('FREQ=WEEKLY;INTERVAL=2;BYDAY=MO', {
      start: zoned('1990-01-01T09:00'),
      end: zoned('1990-01-01T10:00'),
    });
    expect(localStarts(old).slice(0, 2)).toEqual(['2026-01-12T09:00:00', '2026-01-26T09:00:00']);
    expect(extentOf(old, HOST).to).toBe(Infinity);
  });
});

describe('checks', () => {
  it('name what is wrong with a rule', () => {
    const wrong: Record<string, string> = {
      '': 'FREQ is missing',
      'FREQ=DAILY;COUNT=0': 'COUNT=0',
      'FREQ=DAILY;COUNT=3;UNTIL=20260101': 'exclude each other',
      'FREQ=DAILY;BYDAY=XX': 'BYDAY=XX',
      'FREQ=WEEKLY;BYDAY=1MO': 'numbered weekday',
      'FREQ=DAILY;BYSETPOS=1': 'BYSETPOS needs',
      'FREQ=DAILY;BYMONTH=13': 'BYMONTH=13',
      'FREQ=DAILY;UNTIL=20260230': 'UNTIL=20260230',
      'FREQ=DAILY;SPEED=3': 'SPEED is not a part',
    };
    for (const [rule, reason] of Object.entries(wrong))
      expect(() => ruleFromText(rule), rule).toThrowError(reason);
  });
});

describe('rules as people see them', () => {
  it('are told in words, every part of them', () => {
    expect(ruleWords('FREQ=DAILY')).toBe('every day');
    expect(ruleWords('FREQ=WEEKLY;INTERVAL=2;BYDAY=MO,FR;COUNT=10')).toBe(
      'every 2 weeks on Monday and Friday, 10 times',
    );
    expect(ruleWords('FREQ=MONTHLY;BYDAY=-1FR;UNTIL=20261231')).toBe(
      'every month on the last Friday, until 2026-12-31',
    );
    expect(ruleWords('FREQ=MONTHLY;BYDAY=MO,TU;BYSETPOS=-2')).toBe(
      'every month on Monday and Tuesday only the 2nd last of these in each month',
    );
    expect(ruleWords('FREQ=YEARLY;BYMONTH=3,11;BYMONTHDAY=-1')).toBe(
      'every year in March and November on day 1 from the end of the month',
    );
  });

  it('of the common shapes go through the editor and come out the same', () => {
    const start = zoned('2026-05-13T10:00');
    for (const rule of [
      'FREQ=DAILY;INTERVAL=3',
      'FREQ=WEEKLY;BYDAY=MO,WE',
      'FREQ=MONTHLY',
      'FREQ=MONTHLY;BYDAY=2WE;COUNT=4',
      'FREQ=YEARLY',
      'FREQ=WEEKLY;BYDAY=WE;UNTIL=20260702T025959Z',
    ]) {
      expect(textOfSimpleRule(simpleRuleOf(rule, start)!, start)).toBe(rule);
    }
    expect(simpleRuleOf('FREQ=WEEKLY;BYDAY=WE;UNTIL=20260702T025959Z', start)!.end).toEqual({
      kind: 'until',
      last: '2026-07-01',
    });
  });

  it('of any other shape are left alone', () => {
    const start = zoned('2026-05-13T10:00');
    for (const rule of [
      'FREQ=MONTHLY;BYDAY=-1FR',
      'FREQ=DAILY;BYHOUR=9,15',
      'FREQ=MONTHLY;BYMONTHDAY=1',
      'FREQ=YEARLY;BYMONTH=6',
    ]) {
      expect(simpleRuleOf(rule, start)).toBeNull();
    }
  });
});

describe('moving a series', () => {
  it('takes the end of its rule along, so that no date is lost', () => {
    const daily = recurring('FREQ=DAILY;UNTIL=20260107T130000Z');
    expect(localStarts(daily)).toHaveLength(3);
    const moved = moveSeries(daily, zoned('2026-01-05T15:00'), zoned('2026-01-05T16:00'));
    expect(moved.recurrence!.rule).toBe('FREQ=DAILY;UNTIL=20260107T190000Z');
    expect(localStarts(moved)).toHaveLength(3);
  });

  it('takes its excepted and changed dates along', () => {
    const series: Entry = {
      ...recurring('FREQ=DAILY;COUNT=4'),
      recurrence: { rule: 'FREQ=DAILY;COUNT=4', dates: [], exceptDates: [zoned('2026-01-06T09:00')] },
      overrides: [
        {
          slot: zoned('2026-01-07T09:00'),
          start: zoned('2026-01-07T15:00'),
          end: zoned('2026-01-07T16:00'),
          content: entry({ start: date('2026-01-01') }),
        },
      ],
    };
    const moved = moveSeries(series, zoned('2026-01-05T11:30'), zoned('2026-01-05T12:30'));
    expect(localStarts(moved)).toEqual(['2026-01-05T11:30:00', '2026-01-07T17:30:00', '2026-01-08T11:30:00']);
  });
});
