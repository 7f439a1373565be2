import { Problem } from '@zonal/core/problems';
import { describe, expect, it } from 'vitest';
import { CalendarInput } from '../inside/calendarInput';
import { EntryInput } from '../inside/entryInput';
import { WindowInput } from '../glass/windowInput';
import { problemFrom } from './errors';
import { validated } from './validated';

function refusal(type: new () => object, body: unknown): Problem {
  try {
    validated(type, body);
  } catch (error) {
    return error as Problem;
  }
  throw new Error('It was accepted.');
}
const fields = (problem: Problem) => (problem.details['errors'] as { field: string }[]).map((e) => e.field);

describe('input', () => {
  it('that is no object is unreadable', () => {
    for (const body of [null, undefined, 'text', 3, []])
      expect(refusal(CalendarInput, body).code).toBe('body-unreadable');
  });

  it('is refused with the path of each field', () => {
    const found = fields(
      refusal(WindowInput, {
        name: 'x',
        sources: [{ calendarId: 'no', glass: 'see-through' }],
        horizon: { kind: 'rolling', pastDays: -1, nextDays: 5 },
        rounding: 7,
      }),
    );
    for (const field of [
      'sources.0.calendarId',
      'sources.0.glass',
      'horizon.pastDays',
      'rounding',
      'hostZone',
      'switches',
    ]) {
      expect(found).toContain(field);
    }
    expect(found).not.toContain('horizon.nextDays');
  });

  it('takes one calendar once in a window', () => {
    const source = { calendarId: '00000000-0000-4000-8000-000000000000', glass: 'clear' };
    expect(fields(refusal(WindowInput, { sources: [source, source] }))).toContain('sources');
  });

  it('takes moments of the three kinds only', () => {
    const wrong = [
      null,
      'now',
      { kind: 'zoned', at: '2026-05-31T14:30:00' },
      { kind: 'zoned', at: '2026-05-31T14:30:00', zone: 'Moon/Base' },
      { kind: 'date', date: '2026-02-30' },
      { kind: 'date', date: '2026-02-20', zone: 'UTC' },
      { kind: 'floating', at: 20260531 },
      { kind: 'constructor' },
    ];
    for (const start of wrong)
      expect(fields(refusal(EntryInput, { start })), JSON.stringify(start)).toContain('start');
    const right = { kind: 'zoned', at: '2026-05-31T14:30:00', zone: 'America/Halifax' };
    expect(fields(refusal(EntryInput, { start: right }))).not.toContain('start');
  });
});

describe('whatever is thrown', () => {
  it('becomes a problem of the table', () => {
    expect(problemFrom(new Problem('not-found')).code).toBe('not-found');
    expect(problemFrom({ type: 'entity.parse.failed' }).code).toBe('body-unreadable');
    expect(problemFrom({ type: 'entity.too.large', limit: 5_000_000 }).message).toContain('5 MB');
    expect(problemFrom(Object.assign(new Error('x'), { code: 'ECONNREFUSED' })).code).toBe('storage-away');
    const unexpected = problemFrom(new Error('secret detail'));
    expect(unexpected.code).toBe('unexpected');
    expect(unexpected.message).not.toContain('secret detail');
  });
});
