import type { Range, When } from '../entries';
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

/** Returns every single time of a view, in order of start. */
export function occurrencesOfView(view: OutwardView): OutwardOccurrence[] {
  const out: OutwardOccurrence[] = [];
  for (const item of view.items) {
    if (item.kind === 'busy')
      out.push({ ...timeOf(item), uid: item.uid, content: null, tentative: item.tentative });
    else {
      const { uid } = item;
      const tell = (time: OutwardTime, content: OutwardContent) =>
        out.push({ ...timeOf(time), uid, content, tentative: content.status === 'tentative' });
      if (item.kind === 'single') tell(item, item.content);
      else {
        for (const time of item.plain) tell(time, item.content);
        for (const override of item.overrides) tell(override, override.content);
      }
    }
  }
  return out.sort(compareTimes);
}

function timeOf({ start, end, from, to }: OutwardTime): OutwardTime {
  return { start, end, from, to };
}

/** Orders times by start, end, title and UID; busy time has no title. */
export function compareTimes(a: Timed, b: Timed): number {
  const title = (t: Timed) => t.content?.title ?? '';
  return a.from - b.from || a.to - b.to || compareText(title(a), title(b)) || compareText(a.uid, b.uid);
}

interface Timed {
  readonly uid: string;
  readonly from: Instant;
  readonly to: Instant;
  readonly content?: { readonly title: string } | null;
}

/** Orders texts by code unit, the same in every process whatever its language. */
export function compareText(a: string, b: string): number {
  return a < b ? -1 : a > b ? 1 : 0;
}
