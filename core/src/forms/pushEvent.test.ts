import { expect, it } from 'vitest';
import { outwardView } from '../glass';
import { nextRevision } from '../reach';
import { RANGE } from '../testing/arbitraries';
import { STREET, entry, rulesOf, zoned } from '../testing/samples';
import { pushEvent } from './pushEvent';

const NOW = Date.UTC(2026, 5, 10, 15);
const many = (count: number, title = 'Secret talk') =>
  Array.from({ length: count }, (_, i) => {
    const minute = String(i % 60).padStart(2, '0');
    const hour = String(8 + Math.floor(i / 60)).padStart(2, '0');
    return entry({ id: `e${i}`, title, start: zoned(`2026-06-12T${hour}:${minute}`) });
  });
const viewOf = (entries: ReturnType<typeof many>) => outwardView(entries, rulesOf('tinted'), RANGE, STREET);

it('a push names what came, changed and left since it was told last, and says nothing else of it', () => {
  const [before, after] = [viewOf(many(3)), viewOf(many(2, 'Other talk'))];
  const first = nextRevision(null, before, NOW);
  const second = nextRevision(first, after, NOW + 60_000);
  const event = pushEvent(after, second, 1);
  expect(event).toMatchObject({ type: 'calendar.changed', timestamp: '2026-06-10T15:01:00Z' });
  expect(event.data).toMatchObject({ revision: 2, since: 1, more: false });
  expect(event.data.changed).toEqual(after.items.map((i) => i.uid).sort());
  expect(event.data.left).toEqual(second.gone.map((g) => g.uid));
  expect(event.data.left).toHaveLength(1);
  expect(JSON.stringify(event)).not.toMatch(/talk|2026-06-12/);
});

it('a push has everything fetched anew where it is not known what changed, and says where it names not all', () => {
  const view = viewOf(many(201));
  const first = nextRevision(null, viewOf([]), NOW);
  const second = nextRevision(first, view, NOW);
  expect(pushEvent(view, second, 1).data).toMatchObject({ since: 1, more: true });
  expect(pushEvent(view, second, 1).data.changed).toHaveLength(200);
  for (const since of [null, 7])
    expect(pushEvent(view, second, since).data).toMatchObject({ since: null, changed: [], left: [] });
});
