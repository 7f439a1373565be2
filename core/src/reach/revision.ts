import { quickPrint, type OutwardItem, type OutwardSeries, type OutwardView } from '../glass';
import type { Instant } from '../zones';

/** What the outside could see change of one item: how often, and when last. */
export interface Stamp {
  /**
   * One less than the number of the revision in which it last changed (RFC 5545 section 3.8.7.4): it rises with each
   * change, and goes on rising when an item that was gone comes back.
   */
  readonly sequence: number;
  /** Instant, in whole seconds, of the last change that a reader could see. */
  readonly at: Instant;
  readonly print: string;
}

/** One numbered state of an outward view. It depends on earlier outward states only, never on the inside. */
export interface Revision {
  readonly number: number;
  readonly at: Instant;
  /** Of how the window names itself; each item has one of its own. */
  readonly print: string;
  /** By the item's outward UID. */
  readonly stamps: Readonly<Record<string, Stamp>>;
}

const prints = new WeakMap<OutwardItem, string>();

/** Returns a print of all that an item says but its identifier; it stays inside. */
export function printOf(item: OutwardItem): string {
  let print = prints.get(item);
  if (print === undefined) {
    print = quickPrint(JSON.stringify(tellingOf(item)));
    prints.set(item, print);
  }
  return print;
}

/** The plain occurrences of a series follow from the rest of it. */
function tellingOf(item: OutwardItem): object {
  const { uid: _uid, ...telling } = item;
  if (telling.kind !== 'series') return telling;
  const { plain: _plain, ...rest } = telling as Omit<OutwardSeries, 'uid'>;
  return rest;
}

/**
 * Returns a revision with the stamps of its items under the identifiers of a view that was made with another secret: they
 * are found by what they say. What a rehearsal or a preview works out never needs the secret of what readers get.
 */
export function rekeyed(revision: Revision, view: OutwardView): Revision {
  const left = new Map<string, [uid: string, stamp: Stamp][]>();
  for (const [uid, stamp] of Object.entries(revision.stamps)) {
    const same = left.get(stamp.print);
    if (same) same.push([uid, stamp]);
    else left.set(stamp.print, [[uid, stamp]]);
  }
  const stamps: Record<string, Stamp> = {};
  for (const item of view.items) {
    const found = left.get(printOf(item))?.shift();
    if (found) stamps[item.uid] = found[1];
  }
  for (const rest of left.values()) for (const [uid, stamp] of rest) stamps[uid] = stamp;
  return { ...revision, stamps };
}

/**
 * Returns the revision that a view is after `previous`: the same object when nothing that a reader can see has
 * changed, else the next number, made at `now`. The rolling of the horizon alone makes no revision.
 */
export function nextRevision(previous: Revision | null, view: OutwardView, now: Instant): Revision {
  // Stamps only rise, whatever clocks do.
  const at = Math.max(Math.floor(now / 1000) * 1000, previous?.at ?? -Infinity);
  const number = (previous?.number ?? 0) + 1;
  const print = quickPrint(JSON.stringify([view.wording, view.hostZone]));
  const before = previous?.stamps ?? {};
  const stamps: Record<string, Stamp> = {};
  let kept = 0;
  for (const item of view.items) {
    const own = printOf(item);
    const stamp = before[item.uid];
    if (stamp?.print === own) {
      stamps[item.uid] = stamp;
      kept++;
    } else stamps[item.uid] = { sequence: number - 1, at, print: own };
  }
  // Items stand in an order that follows from what they say, so the same items make the same view.
  const same = kept === view.items.length && kept === Object.keys(before).length;
  if (previous && same && previous.print === print) return previous;
  return { number, at, print, stamps };
}
