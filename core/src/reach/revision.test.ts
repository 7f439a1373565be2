import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { EMPTY_CONTENT } from '../entries';
import { writeForm } from '../forms';
import { outwardView } from '../glass';
import { RANGE as GENERATED, entryArbitrary, rulesArbitrary } from '../testing/arbitraries';
import { STREET, entry, rulesOf, zoned } from '../testing/samples';
import { DAY } from '../zones';
import { leavingAt, nextRevision, type Revision } from './revision';

const RANGE = { from: Date.UTC(2026, 0, 1), to: Date.UTC(2027, 0, 1) };
const viewOf = (entries: Parameters<typeof outwardView>[0], range = RANGE) =>
  outwardView(entries, rulesOf('tinted'), range, STREET);

it('is the same object while nothing that a reader sees has changed', () => {
  const a = entry({ start: zoned('2026-06-01T10:00') });
  const first = nextRevision(null, viewOf([a]), 1_000_400);
  expect(first).toMatchObject({ number: 1, at: 1_000_000 });
  expect(nextRevision(first, viewOf([{ ...a, description: 'hidden', version: 2 }]), 2_000_000)).toBe(first);
  expect(nextRevision(first, viewOf([a], { ...RANGE, to: RANGE.to + 1 }), 2_000_000)).toBe(first);
});

it('counts changes by item, and leaves the stamps of the others alone', () => {
  const a = entry({ id: 'a', start: zoned('2026-06-01T10:00') });
  const b = entry({ id: 'b', start: zoned('2026-06-02T10:00') });
  const first = nextRevision(null, viewOf([a, b]), 1_000_000);
  const view = viewOf([a, { ...b, title: 'Other' }]);
  const second = nextRevision(first, view, 5_000_000);
  const [uidA, uidB] = view.items.map((i) => i.uid) as [string, string];
  expect(second.number).toBe(2);
  expect(second.stamps[uidA]).toBe(first.stamps[uidA]);
  expect(second.stamps[uidB]).toMatchObject({ sequence: 1, at: 5_000_000 });
  const gone = nextRevision(second, viewOf([a]), 9_000_000);
  expect(Object.keys(gone.stamps)).toEqual([uidA]);
  expect(gone.number).toBe(3);
});

it('is the same for the same view worked out anew, and another one exactly when an item or its number differs', () => {
  fc.assert(
    fc.property(fc.array(entryArbitrary, { maxLength: 5 }), rulesArbitrary, (entries, rules) => {
      const view = outwardView(entries, rules, GENERATED, STREET);
      const first = nextRevision(null, view, 1_000_000);
      expect(Object.keys(first.stamps)).toHaveLength(view.items.length);
      expect(nextRevision(first, outwardView(entries, rules, GENERATED, STREET), 2_000_000)).toBe(first);
      if (!view.items.length) return;
      const fewer = nextRevision(first, { ...view, items: view.items.slice(1) }, 2_000_000);
      expect(fewer.number).toBe(2);
      expect(nextRevision(fewer, view, 3_000_000).number).toBe(3);
      const renamed = { ...view, wording: { ...view.wording, name: `${view.wording.name}!` } };
      expect(nextRevision(first, renamed, 2_000_000)).toMatchObject({ number: 2, stamps: first.stamps });
    }),
    { numRuns: 500, seed: 7 },
  );
});

describe('what has left', () => {
  const series = (overrides: ReturnType<typeof entry>['overrides']) =>
    entry({
      id: 's',
      start: zoned('2026-06-01T10:00'),
      recurrence: { rule: 'FREQ=WEEKLY;COUNT=5', dates: [], exceptDates: [] },
      overrides,
    });
  const a = entry({ id: 'a', start: zoned('2026-06-01T10:00') });
  const b = entry({ id: 'b', start: zoned('2026-06-02T10:00') });
  const first = nextRevision(null, viewOf([a, b]), 1_000_000);
  const uid = viewOf([b]).items[0]!.uid;

  it('is known with a raised sequence and its moment, and with nothing else', () => {
    const second = nextRevision(first, viewOf([a]), 5_000_000);
    expect(second.gone).toEqual([{ uid, sequence: 1, at: 5_000_000 }]);
    // The rest of it stays, however much else changes.
    const third = nextRevision(second, viewOf([{ ...a, title: 'Other' }]), 9_000_000);
    expect(third.gone).toEqual(second.gone);
  });

  it('is forgotten once it comes back, with a sequence that goes on rising', () => {
    const second = nextRevision(first, viewOf([a]), 5_000_000);
    const third = nextRevision(second, viewOf([a, b]), 5_000_000);
    expect(third.gone).toEqual([]);
    expect(third.stamps[uid]).toMatchObject({ sequence: 2, at: 5_001_000 });
    expect([third.forgotten, third.at]).toEqual([0, 5_001_000]);
  });

  it('is not what time alone has left behind', () => {
    const later = { ...RANGE, from: Date.UTC(2026, 5, 2) };
    const second = nextRevision(first, viewOf([a, b], later), 5_000_000);
    expect([second.number, second.gone]).toEqual([2, []]);
  });

  it('is what time has left behind too, where who missed its last change still shows it later', () => {
    const earlier = { ...b, start: zoned('2026-03-02T10:00'), end: zoned('2026-03-02T11:00') };
    const second = nextRevision(first, viewOf([a, earlier]), 2_000_000);
    const later = viewOf([a, earlier], { ...RANGE, from: Date.UTC(2026, 3, 2) });
    const gone = (days: number) => nextRevision(second, later, 2_000_000 + days * DAY).gone.map((g) => g.uid);
    expect(gone(10)).toEqual([uid]);
    expect(gone(91)).toEqual([]);
  });

  it('is told for as many days as the window says, and is known no longer than any may say', () => {
    const second = nextRevision(first, viewOf([a]), 5_000_000);
    const told = (lettingGo: number, days: number) =>
      leavingAt(second, { lettingGo }, 5_000_000 + days * DAY);
    expect(told(7, 6.9).gone).toHaveLength(1);
    expect(told(7, 7)).toEqual({ gone: [], clearedAt: 5_000_000 + 7 * DAY });
    expect(told(0, 0).gone).toEqual([]);
    const third = nextRevision(second, viewOf([{ ...a, title: 'Other' }]), 5_000_000 + 91 * DAY);
    expect([third.gone, third.forgotten]).toEqual([[], 2]);
  });

  it('never gives an item one moment twice, however fast it changes', () => {
    let revision = first;
    const moments = [first.stamps[uid]!.at];
    for (let i = 0; i < 5; i++) {
      revision = nextRevision(revision, viewOf([a, { ...b, title: `Title ${i}` }]), 1_000_200 + i);
      moments.push(revision.stamps[uid]!.at);
      expect(revision.at).toBeGreaterThanOrEqual(moments.at(-1)!);
    }
    expect(new Set(moments).size).toBe(6);
  });

  it('of a series are dates that were told apart: they are told as they are now', () => {
    const moved = {
      slot: zoned('2026-06-08T10:00'),
      start: zoned('2026-06-09T12:00'),
      end: zoned('2026-06-09T13:00'),
      content: { ...EMPTY_CONTENT, title: 'Moved' },
    };
    const feed = (r: Revision, view: ReturnType<typeof viewOf>, now: number) =>
      writeForm('feed', view, r, {
        addresses: { see: 'https://w.example/s', feed: 'https://w.example/f.ics' },
        now,
      });
    const one = nextRevision(null, viewOf([series([moved])]), 1_000_000);
    const back = viewOf([series([])]);
    const two = nextRevision(one, back, 5_000_000);
    const text = feed(two, back, 5_000_000);
    expect(
      text.match(
        /RECURRENCE-ID;TZID=America\/Halifax:20260608T100000\r\nDTSTART;TZID=America\/Halifax:20260608T100000/g,
      ),
    ).toHaveLength(1);
    expect(feed(two, back, 5_000_000 + 31 * DAY)).not.toContain('RECURRENCE-ID');
    const out = {
      ...series([]),
      recurrence: { rule: 'FREQ=WEEKLY;COUNT=5', dates: [], exceptDates: [moved.slot] },
    };
    const three = nextRevision(two, viewOf([out]), 9_000_000);
    expect(feed(three, viewOf([out]), 9_000_000)).toMatch(
      /RECURRENCE-ID[^\r]*:20260608T100000\r\nDTSTART[^\r]*\r\nSTATUS:CANCELLED/,
    );
    // What is no date of the series any more is not named.
    const shorter = {
      ...series([]),
      recurrence: { rule: 'FREQ=WEEKLY;COUNT=1', dates: [], exceptDates: [] },
    };
    const four = nextRevision(three, viewOf([shorter]), 12_000_000);
    expect(feed(four, viewOf([shorter]), 12_000_000)).not.toContain('20260608T100000');
  });
});
