import { compareText, type When } from '../entries';
import {
  LETTING_GO,
  USUAL_LETTING_GO,
  quickPrint,
  slotsApart,
  type OutwardItem,
  type OutwardSeries,
  type OutwardView,
} from '../glass';
import { DAY, type Instant } from '../zones';

/** What the outside could see change of one item: how often, and when last. */
export interface Stamp {
  /**
   * One less than the number of the revision in which it last changed (RFC 5545 section 3.8.7.4): it rises with each
   * change, and goes on rising when an item that was gone comes back.
   */
  readonly sequence: number;
  /** Instant, in whole seconds, of the last change that a reader could see; later with each change of the item. */
  readonly at: Instant;
  readonly print: string;
  /** When all of the item is over. */
  readonly over: Instant;
  /** When it was to be over as it was told before, where that is later: who missed the change still shows it. */
  readonly reached?: Instant;
  /** Slots of a series that were told apart once and are not any more. */
  readonly joined?: readonly Joined[];
  /** Its slots that are told apart. */
  readonly apart?: readonly When[];
}

/** A slot that was told apart, and when it was told so no more. */
export interface Joined {
  readonly slot: When;
  readonly at: Instant;
}

/** What is told of an item that has left: that it has, and when. */
export interface Gone {
  readonly uid: string;
  readonly sequence: number;
  readonly at: Instant;
}

/** One numbered state of an outward view. It depends on earlier outward states only, never on the inside. */
export interface Revision {
  readonly number: number;
  readonly at: Instant;
  /** Of how the window names itself; each item has one of its own. */
  readonly print: string;
  /** By the item's outward UID. */
  readonly stamps: Readonly<Record<string, Stamp>>;
  /** Items that have left, but not with time alone; the newest last. */
  readonly gone: readonly Gone[];
  /** What left with an earlier revision than this is no longer known. */
  readonly forgotten: number;
  /**
   * Fingerprints of the newest revisions, this one's last: each stands for all that readers could see up to then. After a restored
   * back-up a number may belong to other content than before, a fingerprint never does. Missing in revisions of before there were
   * any.
   */
  readonly fingerprints?: readonly string[];
}

/** How many revisions have their fingerprints kept: programs that hold an older one read everything again. */
const MAX_FINGERPRINTS = 200;
const FINGERPRINT_LETTERS = 12;

/** Returns the fingerprints of a revision and of those before it, oldest first. */
function fingerprintsOf({ number, at, print, stamps, fingerprints }: Revision): readonly string[] {
  if (fingerprints) return fingerprints;
  const items = Object.entries(stamps).map(([uid, s]) => [uid, s.print, s.at]);
  const text = JSON.stringify([
    number,
    at,
    print,
    items.sort(([a], [b]) => compareText(String(a), String(b))),
  ]);
  return [quickPrint(text).slice(0, FINGERPRINT_LETTERS)];
}

/** Returns the fingerprint of a numbered revision (default: of this one), or null if it is not known. */
export function fingerprintOf(revision: Revision, number = revision.number): string | null {
  return fingerprintsOf(revision).at(number - revision.number - 1) ?? null;
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
  return { ...revision, stamps, gone: [] };
}

/** Nothing is known of what left longer ago. */
const KNOWN_FOR = Math.max(...LETTING_GO) * DAY;
/** So many that have left are known; of more, the last ones. */
const MOST_GONE = 10_000;
/** So many slots that are told apart no more are known of a series. */
const MOST_JOINED = 100;

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
  const left = new Map(previous?.gone.map((gone) => [gone.uid, gone]));
  /** Programs that keep the newest of what they read tell by it: an item never has one moment twice. */
  const after = (known: { readonly at: Instant } | undefined) =>
    Math.max(at, (known?.at ?? -Infinity) + 1000);
  const stamps: Record<string, Stamp> = {};
  /** What is different from the revision before. */
  const differences: string[] = [];
  let kept = 0;
  let last = at;
  for (const item of view.items) {
    const own = printOf(item);
    const stamp = before[item.uid];
    if (stamp?.print === own) {
      stamps[item.uid] = stamp;
      kept++;
      continue;
    }
    const changed = after(stamp ?? left.get(item.uid));
    differences.push(item.uid, own, String(changed));
    last = Math.max(last, changed);
    const over = overAt(item);
    const reached = stamp ? Math.max(stamp.over, stamp.reached ?? -Infinity) : -Infinity;
    const base = { sequence: number - 1, at: changed, print: own, over };
    stamps[item.uid] = {
      ...base,
      ...(reached > over ? { reached } : {}),
      ...slotsOf(item, stamp, changed),
    };
  }
  // Items stand in an order that follows from what they say, so the same items make the same view.
  const same = kept === view.items.length && kept === Object.keys(before).length;
  if (previous && same && previous.print === print) return previous;
  const gone: Gone[] = [...left.values()].filter(
    ({ uid, at: when }) => !stamps[uid] && when > at - KNOWN_FOR,
  );
  for (const [uid, stamp] of Object.entries(before)) {
    // What is over before the horizon begins was left behind by time.
    if (stamps[uid] || goesWithTime(stamp, view.range.from, at)) continue;
    gone.push({ uid, sequence: number - 1, at: after(stamp) });
    differences.push(uid, String(after(stamp)));
    last = Math.max(last, after(stamp));
  }
  const known = new Set(gone.sort(byLeaving).slice(-MOST_GONE));
  const forgotten = [...left.values(), ...gone]
    .filter((one) => !stamps[one.uid] && !known.has(one))
    .reduce((most, { sequence }) => Math.max(most, sequence + 1), previous?.forgotten ?? 0);
  const earlier = previous ? fingerprintsOf(previous) : [];
  const text = JSON.stringify([earlier.at(-1) ?? '', number, last, print, ...differences]);
  const fingerprints = [...earlier, quickPrint(text).slice(0, FINGERPRINT_LETTERS)].slice(-MAX_FINGERPRINTS);
  return { number, at: last, print, stamps, gone: [...known], forgotten, fingerprints };
}

/** Whether an item is left behind by time alone: nobody can still show a time of it that is to come. */
function goesWithTime({ over, reached = over, at }: Stamp, from: Instant, now: Instant): boolean {
  return over <= from && (reached <= from || now >= at + KNOWN_FOR);
}

/** Orders what has left by when it did: feeds tell of it in this order. */
export function byLeaving(a: Gone, b: Gone): number {
  return a.sequence - b.sequence || compareText(a.uid, b.uid);
}

/** When an item is over, with all its dates. */
export function overAt(item: OutwardItem): Instant {
  if (item.kind !== 'series') return item.to;
  return [...item.plain, ...item.overrides].reduce((last, { to }) => Math.max(last, to), item.to);
}

/** What of a series is told apart, and what was and is not any more. */
function slotsOf(item: OutwardItem, before: Stamp | undefined, at: Instant): Pick<Stamp, 'apart' | 'joined'> {
  if (item.kind !== 'series') return {};
  const apart = slotsApart(item);
  const open = new Set(apart.map((slot) => JSON.stringify(slot)));
  const were = [...(before?.joined ?? []), ...(before?.apart ?? []).map((slot) => ({ slot, at }))];
  const joined = were.filter(({ slot }) => !open.has(JSON.stringify(slot))).slice(-MOST_JOINED);
  return { ...(apart.length ? { apart } : {}), ...(joined.length ? { joined } : {}) };
}

/** What feeds tell of what has left, and since when they tell nothing more of what left before. */
export interface Leaving {
  readonly gone: readonly Gone[];
  /** The moment, in whole seconds, at which something was told of for the last time; -Infinity for never. */
  readonly clearedAt: Instant;
}

/** Returns what is told at a moment of what has left: for as many days as the wording says. */
export function leavingAt(
  { gone, at }: Pick<Revision, 'gone' | 'at'>,
  { lettingGo = USUAL_LETTING_GO }: { readonly lettingGo?: number },
  now: Instant,
): Leaving {
  const told: Gone[] = [];
  let clearedAt = -Infinity;
  for (const one of gone)
    if (isTold(one, lettingGo, Math.max(now, at))) told.push(one);
    else clearedAt = Math.max(clearedAt, one.at + lettingGo * DAY);
  return { gone: told, clearedAt };
}

/** Returns whether something that happened at a moment is still told of some days later. */
export function isTold({ at }: { readonly at: Instant }, days: number, now: Instant): boolean {
  return now < at + days * DAY;
}
