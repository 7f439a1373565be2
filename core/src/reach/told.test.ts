import { describe, expect, it } from 'vitest';
import { EMPTY_CONTENT, type Entry } from '../entries';
import { outwardView, type WindowRules } from '../glass';
import { digestLetter, letterText } from '../post';
import { RANGE } from '../testing/arbitraries';
import { STREET, entry, rulesOf, zoned } from '../testing/samples';
import { DAY, HOUR, instantOf } from '../zones';
import { nextRevision } from './revision';
import { nextMorning, toldChanges, touchedSince } from './told';

const NOW = Date.UTC(2026, 5, 10, 15);

/** Returns what a reader is told who knew of `before`, and the letter that says it. */
function told(
  before: readonly Entry[],
  after: readonly Entry[],
  { rules = rulesOf('tinted'), until = RANGE.to }: { rules?: WindowRules; until?: number } = {},
) {
  const was = outwardView(before, rules, { ...RANGE, to: until }, STREET);
  const first = nextRevision(null, was, NOW - DAY);
  const view = outwardView(after, rules, RANGE, STREET);
  const revision = nextRevision(first, view, NOW);
  const touched = touchedSince(revision, first.number);
  const uids = [...touched.set, ...touched.gone];
  const known = { items: was.items.filter((i) => uids.includes(i.uid)), until };
  const changes = toldChanges(view, revision, first.number, known, NOW);
  const letter = digestLetter(view, changes, {
    reading: { lang: 'en', tz: 'Europe/Lisbon' },
    ...{ since: NOW - DAY, see: 'https://w.example/see/k', stop: 'https://w.example/stop' },
  });
  return { ...changes, text: letter && letterText(letter) };
}

const lift = entry({ title: 'Rope lift', place: 'Quay', start: zoned('2026-06-12T10:00') });
const daily = (more: object = {}) =>
  entry({
    id: 's',
    title: 'Tide talk',
    start: zoned('2026-06-08T18:00'),
    recurrence: { rule: 'FREQ=DAILY;COUNT=10', dates: [], exceptDates: [] },
    ...more,
  });

describe('what a reader is told of', () => {
  it('is what came, what stands elsewhere with where it stood, and how many times are shown no more', () => {
    const other = entry({ id: 'o', title: 'Gone', start: zoned('2026-06-13T10:00') });
    const fresh = entry({ id: 'n', title: 'Market', start: zoned('2026-06-14T10:00') });
    const { text, ...changes } = told(
      [lift, other],
      [{ ...lift, start: zoned('2026-06-12T14:00'), end: zoned('2026-06-12T15:00'), place: 'Gate' }, fresh],
    );
    expect(changes.gone).toBe(1);
    expect(changes.changes.map((c) => [c.kind, c.parts, c.was !== null, c.more])).toEqual([
      ['changed', ['time', 'place'], true, 0],
      ['new', [], false, 0],
    ]);
    expect(text).toContain(
      '- Rope lift\n  Fri, 12 Jun 2026, 18:00–19:00 · Gate\n  before: Fri, 12 Jun 2026, 14:00–15:00\n  changed: place\n',
    );
    expect(text).toContain('One time is no longer shown.');
    expect(text).not.toContain('Gone');
  });

  it('leaves out what is over, and what only came within the horizon', () => {
    const over = entry({ id: 'p', title: 'Past', start: zoned('2026-06-09T10:00') });
    expect(told([lift, over], [lift, { ...over, title: 'Past, corrected' }]).text).toBe(null);
    expect(told([lift, over], [lift])).toMatchObject({ changes: [], gone: 0 });
    const until = instantOf('America/Halifax', Date.UTC(2026, 5, 13));
    const far = entry({ id: 'f', title: 'Far', start: zoned('2026-06-14T10:00') });
    expect(told([lift, far], [lift, far], { until }).text).toBe(null);
    // Also of a series that goes on beyond it.
    expect(told([daily()], [daily()], { until }).text).toBe(null);
    expect(told([daily()], [daily({ title: 'Talk' })], { until }).changes).toMatchObject([
      { kind: 'changed', parts: ['title'], more: 2 },
    ]);
  });

  it('tells a series by the first of its dates that changed, and how many more did', () => {
    const moved = told(
      [daily()],
      [daily({ start: zoned('2026-06-08T19:00'), end: zoned('2026-06-08T20:00') })],
    );
    expect(moved.changes).toMatchObject([{ kind: 'changed', parts: ['time'], more: 7 }]);
    expect(moved.text).toContain('and 7 more dates');
    const one = {
      slot: zoned('2026-06-11T18:00'),
      ...{ start: zoned('2026-06-11T20:00'), end: zoned('2026-06-11T21:00') },
      content: { ...EMPTY_CONTENT, title: 'Tide talk', place: 'Mole' },
    };
    expect(told([daily()], [daily({ overrides: [one] })]).changes).toMatchObject([
      { parts: ['time', 'place'], more: 0, was: { from: Date.UTC(2026, 5, 11, 21) } },
    ]);
    const fewer = daily({ recurrence: { rule: 'FREQ=DAILY;COUNT=6', dates: [], exceptDates: [] } });
    expect(told([daily()], [fewer])).toMatchObject({ changes: [], gone: 4 });
  });

  it('says nothing of what came and left in between, nor why something is shown no more', () => {
    const rules = rulesOf('tinted');
    const [a, b] = [[lift], [lift, entry({ id: 'x', title: 'Slip', start: zoned('2026-06-12T12:00') })]];
    const views = [a, b, a].map((e) => outwardView(e, rules, RANGE, STREET));
    const first = nextRevision(null, views[0]!, NOW - 3 * HOUR);
    const second = nextRevision(first, views[1]!, NOW - 2 * HOUR);
    const third = nextRevision(second, views[2]!, NOW - HOUR);
    const changes = toldChanges(views[2]!, third, 1, { items: [], until: RANGE.to }, NOW);
    expect(changes).toEqual({ changes: [], gone: 0 });
  });

  it('is told of busy time by its one word', () => {
    const { text } = told([], [lift], { rules: rulesOf('frosted') });
    expect(text).toContain('\n  Fri, 12 Jun 2026, 14:00–15:00');
    expect(text).not.toContain('Rope lift');
  });
});

describe('a morning', () => {
  it('is the next seven o’clock of a zone, also where clocks change', () => {
    const at = (text: string) => Date.parse(text);
    expect(nextMorning('Asia/Kolkata', at('2026-06-10T00:00:00Z'))).toBe(at('2026-06-10T01:30:00Z'));
    expect(nextMorning('Asia/Kolkata', at('2026-06-10T01:30:00Z'))).toBe(at('2026-06-11T01:30:00Z'));
    expect(nextMorning('America/Halifax', at('2026-03-07T12:00:00Z'))).toBe(at('2026-03-08T10:00:00Z'));
  });
});
