import { fingerprint, quickPrint, type OutwardItem, type OutwardSeries, type OutwardView } from '../glass';
import type { Instant } from '../zones';

/** What the outside could see change of one item: how often, and when last. */
export interface Stamp {
  /** Number of changes since the item first came into view (RFC 5545 section 3.8.7.4). */
  readonly sequence: number;
  /** Instant, in whole seconds, of the last change that a reader could see. */
  readonly at: Instant;
  readonly print: string;
}

/** One numbered state of an outward view. It depends on earlier outward states only, never on the inside. */
export interface Revision {
  readonly number: number;
  readonly at: Instant;
  readonly print: string;
  /** By the item's outward UID. */
  readonly stamps: Readonly<Record<string, Stamp>>;
}

const prints = new WeakMap<OutwardItem, string>();

/** Returns a print of all that an item says; it stays inside. */
export function printOf(item: OutwardItem): string {
  let print = prints.get(item);
  if (print === undefined) {
    // The plain occurrences follow from the rest of a series.
    const { plain: _plain, ...telling } = item as OutwardSeries;
    print = quickPrint(JSON.stringify(telling));
    prints.set(item, print);
  }
  return print;
}

/**
 * Returns the revision that a view is after `previous`: the same object when nothing that a reader can see has
 * changed, else the next number, made at `now`. The rolling of the horizon alone makes no revision.
 */
export function nextRevision(previous: Revision | null, view: OutwardView, now: Instant): Revision {
  const at = Math.floor(now / 1000) * 1000;
  const stamps: Record<string, Stamp> = {};
  let whole = JSON.stringify([view.wording, view.hostZone]);
  for (const item of view.items) {
    const print = printOf(item);
    whole += `\n${item.uid} ${print}`;
    const before = previous?.stamps[item.uid];
    if (before?.print === print) stamps[item.uid] = before;
    else stamps[item.uid] = { sequence: before ? before.sequence + 1 : 0, at, print };
  }
  const print = fingerprint(whole);
  if (previous?.print === print) return previous;
  return { number: (previous?.number ?? 0) + 1, at, print, stamps };
}
