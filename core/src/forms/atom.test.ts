import fc from 'fast-check';
import { XMLParser, XMLValidator } from 'fast-xml-parser';
import { expect, it } from 'vitest';
import { outwardView } from '../glass';
import { nextRevision } from '../reach';
import { RANGE as GENERATED, entryArbitrary, rulesArbitrary } from '../testing/arbitraries';
import { STREET, entry, rulesOf, zoned } from '../testing/samples';
import { writeForm } from './formTable';

const RANGE = { from: Date.UTC(2026, 0, 1), to: Date.UTC(2027, 0, 1) };
const NOW = Date.UTC(2026, 5, 10, 15);
const SETTING = {
  addresses: { see: 'https://w.example/see/k', feed: 'https://w.example/feed/k.ics' },
  now: NOW,
};
const read = (text: string) =>
  new XMLParser({ ignoreAttributes: false, isArray: (name) => name === 'entry' || name === 'link' }).parse(
    text,
  ).feed;

it('tells what changed last first, each entry as it is now with its page', () => {
  const first = entry({
    id: 'a',
    title: 'Old <talk>',
    start: zoned('2026-06-12T14:30'),
    end: zoned('2026-06-12T16:00'),
  });
  const second = entry({
    id: 'b',
    title: 'New',
    place: 'Quay',
    status: 'cancelled',
    start: zoned('2026-06-13T10:00'),
  });
  const before = outwardView([first], rulesOf('clear'), RANGE, STREET);
  const past = nextRevision(null, before, NOW - 86_400_000);
  const view = outwardView([first, second], rulesOf('clear'), RANGE, STREET);
  const feed = read(writeForm('changes', view, nextRevision(past, view, NOW), SETTING));
  expect(feed.title).toBe('Bridge times');
  expect(feed.updated).toBe('2026-06-10T15:00:00Z');
  expect(feed.entry.map((e: { title: string; updated: string }) => [e.title, e.updated])).toEqual([
    ['New', '2026-06-10T15:00:00Z'],
    ['Old <talk>', '2026-06-09T15:00:00Z'],
  ]);
  expect(feed.entry[0].summary).toContain('cancelled · Quay');
  const uid = view.items.find((i) => i.kind !== 'busy' && i.content.title === 'New')!.uid;
  expect(feed.entry[0].link[0]['@_href']).toBe(`https://w.example/see/k/${uid}`);
});

it('is well-formed whatever entries say, and tells a new address of the same', () => {
  fc.assert(
    fc.property(
      fc.array(entryArbitrary, { maxLength: 4 }),
      rulesArbitrary,
      fc.string({ unit: 'binary' }),
      (entries, rules, words) => {
        const odd = entry({
          id: 'odd',
          title: `${words}]]>\u0000\ufffe&<`,
          start: zoned('2026-06-12T14:30'),
        });
        const view = outwardView([...entries, odd], rules, GENERATED, STREET);
        const notice = {
          to: { see: 'https://w.example/see/n', feed: 'https://w.example/feed/n.ics' },
          at: NOW,
          until: NOW + 1,
        };
        const text = writeForm('changes', view, nextRevision(null, view, NOW), { ...SETTING, notice });
        expect(XMLValidator.validate(text)).toBe(true);
        expect(text).not.toMatch(/[\u0000-\u0008\ufffe\uffff]/);
        expect(read(text).entry[0].link[0]['@_href']).toBe('https://w.example/see/n');
        expect(read(text).entry).toHaveLength(Math.min(100, view.items.length) + 1);
      },
    ),
    { numRuns: 200, seed: 3 },
  );
});
