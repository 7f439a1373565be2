import { mergeSpans, occurrencesOfItems, safeUri, type OutwardView, type Span } from '../glass';
import type { Revision } from '../reach';
import { DAY } from '../zones';
import { PRODUCT } from './icsCalendar';
import { escapeText, joinLines, utcText } from './icsText';
import { sayOf, type Notice } from './notice';
import { blocksOf, type Block, type Parts } from './parts';

/** Time that is taken by blocks of items: it is worked out once as long as they stay the same. */
const taken = new WeakMap<Block, readonly Span[]>();

function takenBy(block: Block): readonly Span[] {
  let spans = taken.get(block);
  if (spans) return spans;
  const all: Span[] = [];
  for (const { content, from, to, tentative } of occurrencesOfItems(block)) {
    if (to > from && (!content || (content.shows === 'busy' && content.status !== 'cancelled')))
      all.push({ from, to, tentative });
  }
  taken.set(block, (spans = mergeSpans(all)));
  return spans;
}

const joins = new WeakMap<readonly Span[], WeakMap<readonly Span[], readonly Span[]>>();

/** Joins two lists that were joined by themselves, once as long as both stay the same. */
function joined(a: readonly Span[], b: readonly Span[]): readonly Span[] {
  let known = joins.get(a);
  if (!known) joins.set(a, (known = new WeakMap()));
  let spans = known.get(b);
  if (!spans) known.set(b, (spans = mergeSpans([...a, ...b])));
  return spans;
}

/** Two by two, so that after a change most of it is there already. */
function joinedAll(lists: readonly (readonly Span[])[]): readonly Span[] {
  let level = lists;
  while (level.length > 1)
    level = level.flatMap((a, i) => (i % 2 ? [] : [i + 1 < level.length ? joined(a, level[i + 1]!) : a]));
  return level[0] ?? [];
}

/** Returns the time that is taken in a view: busy spans, and entries that are neither free nor cancelled. */
export function busyTimes({ items, range }: Pick<OutwardView, 'items' | 'range'>): Span[] {
  const spans: Span[] = [];
  for (const { from, to, tentative } of joinedAll(blocksOf(items).map(takenBy))) {
    const [first, last] = [Math.max(from, range.from), Math.min(to, range.to)];
    if (last > first) spans.push({ from: first, to: last, tentative });
  }
  return spans;
}

/** One block for so much time. */
const STRETCH = 16 * DAY;

/** Returns a VFREEBUSY document (RFC 5545 section 3.6.4) of a view, in UTC, for the view's range. Only its head tells `source`. */
export function freeBusyParts(
  view: OutwardView,
  revision: Revision,
  source: string,
  notice: Notice | null = null,
): Parts {
  const uri = safeUri(source);
  const head = joinLines([
    'BEGIN:VCALENDAR',
    'VERSION:2.0',
    `PRODID:${PRODUCT}`,
    'BEGIN:VFREEBUSY',
    `UID:${view.ids.freeBusy}`,
    `DTSTAMP:${utcText(revision.at)}`,
    `DTSTART:${utcText(view.range.from)}`,
    `DTEND:${utcText(view.range.to)}`,
    ...(uri ? [`URL:${uri}`] : []),
    ...(notice ? [`COMMENT:${escapeText(`${sayOf(notice, view)}`)}`] : []),
  ]);
  const blocks: string[] = [];
  let stretch = NaN;
  for (const { from, to, tentative } of busyTimes(view)) {
    const own = Math.floor(from / STRETCH);
    if (own !== stretch) blocks.push('');
    stretch = own;
    const kind = tentative ? 'BUSY-TENTATIVE' : 'BUSY';
    blocks[blocks.length - 1] += `FREEBUSY;FBTYPE=${kind}:${utcText(from)}/${utcText(to)}\r\n`;
  }
  return { head, blocks: [...blocks, 'END:VFREEBUSY\r\nEND:VCALENDAR\r\n'] };
}
