import { mergeSpans, occurrencesOfView, safeUri, type OutwardView, type Span } from '../glass';
import type { Revision } from '../reach';
import type { Instant } from '../zones';
import { PRODUCT } from './icsCalendar';
import { compactWall, joinLines } from './icsText';
import type { Parts } from './parts';

/** Returns the time that is taken in a view: busy spans, and entries that are neither free nor cancelled. */
export function busyTimes(view: OutwardView): Span[] {
  const spans: Span[] = [];
  for (const { content, from, to, tentative } of occurrencesOfView(view)) {
    if (to > from && (!content || (content.shows === 'busy' && content.status !== 'cancelled'))) {
      spans.push({ from: Math.max(from, view.range.from), to: Math.min(to, view.range.to), tentative });
    }
  }
  return mergeSpans(spans.filter((s) => s.to > s.from));
}

/** Returns a VFREEBUSY document (RFC 5545 section 3.6.4) of a view, in UTC, for the view's range. Only its head tells `source`. */
export function freeBusyParts(view: OutwardView, revision: Revision, source: string): Parts {
  const uri = safeUri(source);
  const utc = (instant: Instant) => `${compactWall(instant)}Z`;
  const head = joinLines([
    'BEGIN:VCALENDAR',
    'VERSION:2.0',
    `PRODID:${PRODUCT}`,
    'BEGIN:VFREEBUSY',
    `UID:${view.ids.freeBusy}`,
    `DTSTAMP:${utc(revision.at)}`,
    `DTSTART:${utc(view.range.from)}`,
    `DTEND:${utc(view.range.to)}`,
    ...(uri ? [`URL:${uri}`] : []),
  ]);
  const body = joinLines([
    ...busyTimes(view).map(
      (s) => `FREEBUSY;FBTYPE=${s.tentative ? 'BUSY-TENTATIVE' : 'BUSY'}:${utc(s.from)}/${utc(s.to)}`,
    ),
    'END:VFREEBUSY',
    'END:VCALENDAR',
  ]);
  return { head, blocks: [body] };
}
