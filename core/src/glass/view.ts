import { compareText, type Range, type When } from '../entries';
import type { Instant, ZoneName } from '../zones';
import type { OutwardContent } from './fields';
import type { Wording } from './rules';

/** One time that something takes place, as the reader may know it. `end` is exclusive. */
export interface OutwardTime {
  readonly start: When;
  readonly end: When;
  /** The same as instants; dates and floating times by the clocks of the host zone. */
  readonly from: Instant;
  readonly to: Instant;
}

/** An entry that takes place once, or one date of a series that is told by itself. */
export interface OutwardSingle extends OutwardTime {
  readonly kind: 'single';
  readonly uid: string;
  readonly content: OutwardContent;
}

export interface OutwardOverride extends OutwardTime {
  readonly slot: When;
  readonly content: OutwardContent;
}

/** A recurring entry. `start` and `end` are those of its first slot. */
export interface OutwardSeries extends OutwardTime {
  readonly kind: 'series';
  readonly uid: string;
  readonly content: OutwardContent;
  /** An RRULE value, or empty when only dates are given. */
  readonly rule: string;
  readonly dates: readonly When[];
  readonly exceptDates: readonly When[];
  readonly overrides: readonly OutwardOverride[];
  /** The occurrences that are not in `overrides`. */
  readonly plain: readonly OutwardTime[];
}

/** Time taken behind frosted glass: overlapping and touching entries are one span. */
export interface OutwardBusy extends OutwardTime {
  readonly kind: 'busy';
  readonly uid: string;
  readonly tentative: boolean;
}

export type OutwardItem = OutwardSingle | OutwardSeries | OutwardBusy;

/** All that a reader may know of a window: every outward form is made from this and from nothing else. */
export interface OutwardView {
  /** Identifiers of the calendar (RFC 7986 section 5.3) and of its free/busy time. */
  readonly ids: { readonly calendar: string; readonly freeBusy: string };
  readonly wording: Wording;
  readonly hostZone: ZoneName;
  readonly range: Range;
  /** In order of start. */
  readonly items: readonly OutwardItem[];
}

/** One line of a page: a time with its content; no content stands for busy time. */
export interface OutwardOccurrence extends OutwardTime {
  readonly uid: string;
  readonly content: OutwardContent | null;
  readonly tentative: boolean;
}

const ALWAYS: Range = { from: -Infinity, to: Infinity };

/** Returns every single time of a view that touches a stretch of instants, in order of start. */
export function occurrencesOfView(view: OutwardView, within: Range = ALWAYS): OutwardOccurrence[] {
  return occurrencesOfItems(view.items, within).sort(compareTimes);
}

/** Returns every single time of some items that touches a stretch of instants, in no order. */
export function occurrencesOfItems(
  items: readonly OutwardItem[],
  within: Range = ALWAYS,
): OutwardOccurrence[] {
  const out: OutwardOccurrence[] = [];
  const tell = (
    { start, end, from, to }: OutwardTime,
    uid: string,
    content: OutwardContent | null,
    tentative: boolean,
  ) => {
    if (from < within.to && to >= within.from) out.push({ start, end, from, to, uid, content, tentative });
  };
  for (const item of items) {
    if (item.kind === 'busy') {
      tell(item, item.uid, null, item.tentative);
      continue;
    }
    const { uid, content } = item;
    const tentative = content.status === 'tentative';
    if (item.kind === 'single') tell(item, uid, content, tentative);
    else {
      for (const time of item.plain) tell(time, uid, content, tentative);
      for (const o of item.overrides) tell(o, uid, o.content, o.content.status === 'tentative');
    }
  }
  return out;
}

/** Orders times by start, end, title and UID; busy time has no title. */
export function compareTimes(a: Timed, b: Timed): number {
  if (a.from !== b.from) return a.from - b.from;
  return a.to - b.to || compareText(titleIn(a), titleIn(b)) || compareText(a.uid, b.uid);
}

function titleIn({ content }: Timed): string {
  return content?.title ?? '';
}

interface Timed {
  readonly uid: string;
  readonly from: Instant;
  readonly to: Instant;
  readonly content?: { readonly title: string } | null;
}
