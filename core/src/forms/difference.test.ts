import { expect, it } from 'vitest';
import { outwardView } from '../glass';
import { fingerprintOf, nextRevision, type Revision } from '../reach';
import { RANGE } from '../testing/arbitraries';
import { STREET, entry, rulesOf, zoned } from '../testing/samples';
import { DAY } from '../zones';
import { differenceParts, knowsSince } from './difference';
import { writeForm } from './formTable';
import { wholeOf } from './parts';

const ADDRESSES = { see: 'https://w.example/see/k', feed: 'https://w.example/feed/k.ics' };
const viewOf = (entries: Parameters<typeof outwardView>[0]) =>
  outwardView(entries, rulesOf('tinted'), RANGE, STREET);
const NOW = Date.UTC(2026, 5, 1);

it('tells what changed after a revision, and of what has left nothing but that', () => {
  const [a, b, c] = ['a', 'b', 'c'].map((id) =>
    entry({ id, title: `Title ${id}`, start: zoned('2026-06-01T10:00') }),
  ) as [ReturnType<typeof entry>, ReturnType<typeof entry>, ReturnType<typeof entry>];
  const first = nextRevision(null, viewOf([a, b, c]), NOW);
  const uidOfB = viewOf([b]).items[0]!.uid;
  const last = viewOf([a, { ...c, title: 'Another' }]);
  const second = nextRevision(first, last, NOW + 5_000);
  const since = (n: number, revision: Revision = second) =>
    wholeOf(differenceParts(last, revision, n, { source: ADDRESSES.feed, page: ADDRESSES.see }));
  const text = since(1);
  expect(text.match(/SUMMARY:.*/g)).toEqual(['SUMMARY:Another']);
  const deleted = text.split('BEGIN:VEVENT').find((part) => part.includes('DELETED'))!;
  expect(deleted.trim().split('\r\n')).toEqual([
    `UID:${uidOfB}`,
    'DTSTAMP:20260601T000005Z',
    'LAST-MODIFIED:20260601T000005Z',
    'SEQUENCE:1',
    'STATUS:DELETED',
    'END:VEVENT',
    'END:VCALENDAR',
  ]);
  expect(since(2)).not.toContain('BEGIN:VEVENT');
});

it('is small: of ten thousand entries and one change it is less than a hundredth', () => {
  const many = Array.from({ length: 10_000 }, (_, i) =>
    entry({ id: `e${i}`, title: `Berth ${i}`, start: zoned(`2026-06-${10 + (i % 20)}T10:00`) }),
  );
  const first = nextRevision(null, viewOf(many), NOW);
  const view = viewOf(many.map((e, i) => (i === 77 ? { ...e, title: 'Closed' } : e)));
  const second = nextRevision(first, view, NOW + 5_000);
  const whole = writeForm('feed', view, second, { addresses: ADDRESSES, now: NOW });
  const part = wholeOf(differenceParts(view, second, 1, { source: ADDRESSES.feed, page: ADDRESSES.see }));
  expect(part).toContain('SUMMARY:Closed');
  expect(part.length).toBeLessThan(whole.length / 100);
});

it('is known since a revision unless what left after it is known no more', () => {
  const a = entry({ id: 'a', start: zoned('2026-06-01T10:00') });
  const b = entry({ id: 'b', start: zoned('2026-06-02T10:00') });
  const first = nextRevision(null, viewOf([a, b]), NOW);
  const second = nextRevision(first, viewOf([a]), NOW + DAY);
  const third = nextRevision(second, viewOf([{ ...a, title: 'Later' }]), NOW + 100 * DAY);
  expect([0, 1, 2, 3].map((n) => knowsSince(second, n))).toEqual([false, true, true, false]);
  expect([0, 1, 2, 3, 4].map((n) => knowsSince(third, n))).toEqual([false, false, true, true, false]);
});

it('is not known since a revision of another history, though it has the number of one of this', () => {
  const a = entry({ id: 'a', start: zoned('2026-06-01T10:00') });
  const b = entry({ id: 'b', start: zoned('2026-06-02T10:00') });
  const first = nextRevision(null, viewOf([a]), NOW);
  // After the first revision a back-up was made; what came then was lost, and something else came.
  const lost = nextRevision(first, viewOf([a, b]), NOW + 5_000);
  const second = nextRevision(first, viewOf([{ ...a, title: 'Later' }]), NOW + 9_000);
  const third = nextRevision(second, viewOf([a]), NOW + 12_000);
  for (const revision of [second, third]) {
    expect(knowsSince(revision, 1, fingerprintOf(first)!)).toBe(true);
    expect(knowsSince(revision, 2, fingerprintOf(second)!)).toBe(true);
    expect(knowsSince(revision, 2, fingerprintOf(lost)!)).toBe(false);
  }
  // The same content at another time is another history: its stamps are others.
  const later = nextRevision(first, viewOf([{ ...a, title: 'Later' }]), NOW + 20_000);
  expect(fingerprintOf(later)).not.toBe(fingerprintOf(second));
});

it('is known since revisions of before there were fingerprints, and since two hundred at most', () => {
  const a = entry({ id: 'a', start: zoned('2026-06-01T10:00') });
  const { fingerprints: _none, ...old } = nextRevision(null, viewOf([a]), NOW);
  const held = fingerprintOf(old)!;
  let revision = nextRevision(old, viewOf([{ ...a, title: 'Later' }]), NOW + 5_000);
  expect(knowsSince(revision, 1, held)).toBe(true);
  for (let i = 0; i < 300; i++)
    revision = nextRevision(revision, viewOf([{ ...a, title: `No. ${i}` }]), NOW + 10_000 + i * 1_000);
  expect(knowsSince(revision, 1, held)).toBe(false);
  expect(revision.fingerprints).toHaveLength(200);
});
