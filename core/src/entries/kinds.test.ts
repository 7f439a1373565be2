import { describe, expect, it } from 'vitest';
import { date, entry, zoned, HOST } from '../testing/samples';
import { dayFromText, weekdayOf } from '../zones';
import { fitKind } from './kind';
import { finder, found } from './find';
import { checkProperty } from './properties';
import { slipOf, workingDaysBetween } from './slip';

describe('slip', () => {
  it('is counted in days and in days from Monday to Friday', () => {
    // Friday 6 November to Thursday 12 November 2026.
    expect(slipOf(date('2026-11-06'), date('2026-11-12'), HOST)).toEqual({
      days: 6,
      workingDays: 4,
      minutes: 0,
    });
    expect(slipOf(date('2026-11-12'), date('2026-11-06'), HOST)).toEqual({
      days: -6,
      workingDays: -4,
      minutes: 0,
    });
    // Saturday to Sunday: no working day is lost.
    expect(slipOf(date('2026-11-07'), date('2026-11-08'), HOST)).toEqual({
      days: 1,
      workingDays: 0,
      minutes: 0,
    });
    expect(slipOf(date('2026-11-07'), date('2026-11-07'), HOST)).toEqual({
      days: 0,
      workingDays: 0,
      minutes: 0,
    });
  });

  it('is by the clocks of the host zone, also between a day and a moment', () => {
    // 23:00 in Halifax is the next day in London.
    expect(slipOf(date('2026-11-06'), zoned('2026-11-07T03:00', 'Europe/London'), HOST).days).toBe(0);
    expect(slipOf(zoned('2026-11-06T10:00'), zoned('2026-11-06T14:30'), HOST)).toEqual({
      days: 0,
      workingDays: 0,
      minutes: 270,
    });
  });

  it('counts working days as one by one, over many weeks', () => {
    const from = dayFromText('2026-01-01');
    for (let start = from; start < from + 8; start++) {
      for (let length = 0; length < 40; length++) {
        let count = 0;
        for (let day = start + 1; day <= start + length; day++) if (weekdayOf(day) < 5) count++;
        expect(workingDaysBetween(start, start + length)).toBe(count);
        expect(workingDaysBetween(start + length, start) + count).toBe(0);
      }
    }
  });
});

describe('the kind of an entry', () => {
  it('makes milestones and due items one day or one moment', () => {
    const due = fitKind(
      entry({ kind: 'due', start: zoned('2026-05-01T10:00'), planned: date('2026-05-01') }),
    );
    expect(due.end).toEqual(zoned('2026-05-01T10:00'));
    expect(due.planned).toBeNull();
    const milestone = fitKind(
      entry({
        kind: 'milestone',
        start: date('2026-05-04'),
        end: date('2026-05-09'),
        planned: date('2026-05-01'),
      }),
    );
    expect(milestone.end).toEqual(date('2026-05-05'));
    expect(milestone.planned).toEqual(date('2026-05-01'));
  });

  it('lets due items recur and be done date by date, but no milestone recur', () => {
    const recurrence = { rule: 'FREQ=WEEKLY', dates: [], exceptDates: [] };
    const due = entry({ kind: 'due', start: date('2026-05-01'), recurrence });
    const done = { slot: date('2026-05-08'), start: date('2026-05-08'), end: date('2026-05-12') };
    const fitted = fitKind({
      ...due,
      overrides: [{ ...done, content: { ...due, kind: 'event', planned: null, status: 'done' } }],
    });
    expect(fitted.overrides[0]).toMatchObject({
      end: date('2026-05-09'),
      content: { kind: 'due', status: 'done' },
    });
    expect(() => fitKind({ ...due, kind: 'milestone' })).toThrow(/takes place once/);
  });

  it('knows that an event cannot be done', () => {
    expect(fitKind(entry({ start: date('2026-05-01'), status: 'done' })).status).toBe('confirmed');
  });
});

describe('finding', () => {
  const gate = entry({
    start: date('2026-05-01'),
    title: 'Écluse: contrôle',
    labels: ['works'],
    people: [{ name: 'Lene Faro', address: 'lene@ostrel.example' }],
    properties: [{ name: 'Berth', value: 'B4' }],
  });
  const finds = (text: string, where: Parameters<typeof finder>[0]['in'] = 'text') =>
    found(gate, finder({ text, in: where }));

  it('looks for all words, without regard to case and accents', () => {
    expect(finds('ecluse CONTROLE')).toBe(true);
    expect(finds('ecluse bridge')).toBe(false);
    expect(finds('   ')).toBe(true);
  });

  it('looks where it is told to', () => {
    expect(finds('works', 'label')).toBe(true);
    expect(finds('ecluse', 'label')).toBe(false);
    expect(finds('faro', 'person')).toBe(true);
    expect(finds('berth: b4', 'property')).toBe(true);
    expect(finds('b4', 'text')).toBe(true);
    expect(finds('faro', 'property')).toBe(false);
  });

  it('finds a date that was changed by itself', () => {
    const slot = date('2026-05-08');
    const series = {
      ...gate,
      recurrence: { rule: 'FREQ=WEEKLY', dates: [], exceptDates: [] },
      overrides: [{ slot, start: slot, end: date('2026-05-09'), content: { ...gate, title: 'Bridge' } }],
    };
    expect(found(series, finder({ text: 'bridge', in: 'text' }))).toBe(true);
  });
});

describe('a property of the house', () => {
  it('takes only what fits its kind', () => {
    const check = (kind: 'text' | 'number' | 'choice' | 'date', value: string) => () =>
      checkProperty({ name: 'Berth', kind, choices: ['B4', 'B5'] }, value);
    expect(check('text', 'anything')).not.toThrow();
    expect(check('number', '-4.5')).not.toThrow();
    expect(check('number', '4,5')).toThrow(/a number such as/);
    expect(check('choice', 'B5')).not.toThrow();
    expect(check('choice', 'B6')).toThrow(/one of: B4, B5/);
    expect(check('date', '2026-02-28')).not.toThrow();
    expect(check('date', '2026-02-30')).toThrow(/a date such as/);
  });
});
