import { canonical } from '../entries';
import { occurrencesOfItems, type OutwardItem, type OutwardOccurrence, type OutwardView } from '../glass';
import { DAY, HOUR, dayAt, instantOf, type Instant, type ZoneName } from '../zones';
import type { Revision } from './revision';

/** What of an entry changed, as far as it is told by name. */
export type ToldPart = 'time' | 'title' | 'place' | 'details';

/** One entry that came or changed, by the first of its times that did. */
export interface ToldChange {
  readonly uid: string;
  readonly kind: 'new' | 'changed';
  /** As it is now. */
  readonly one: OutwardOccurrence;
  /** Where it stood before, where it stands elsewhere now. */
  readonly was: OutwardOccurrence | null;
  readonly parts: readonly ToldPart[];
  /** How many more of its dates came or changed. */
  readonly more: number;
}

/** What changed ahead of a reader after a revision. */
export interface ToldChanges {
  /** In order of time. */
  readonly changes: readonly ToldChange[];
  /** Times that were ahead and are shown no more; of them no more is told. */
  readonly gone: number;
}

/** What was shown with the revision that a reader was told of last. */
export interface ToldBefore {
  /** Of what {@link touchedSince} names, what was there, as it was. */
  readonly items: readonly OutwardItem[];
  /** How far ahead was shown: what lies beyond came with time alone. */
  readonly until: Instant;
}

/** Returns the outward identifiers of what came, changed or left after a revision. */
export function touchedSince(
  { stamps, gone }: Pick<Revision, 'stamps' | 'gone'>,
  since: number,
): { readonly set: string[]; readonly gone: string[] } {
  // What changed with a revision bears a sequence of one less.
  const set = Object.keys(stamps).filter((uid) => stamps[uid]!.sequence >= since);
  return { set, gone: gone.filter(({ sequence }) => sequence >= since).map(({ uid }) => uid) };
}

/**
 * Returns what a reader has to be told who was told of revision `since`: times that are not over at `now`, as far ahead as was
 * shown then. What came and left again in between is not told of, and of what has left nothing but that it has.
 */
export function toldChanges(
  view: OutwardView,
  revision: Revision,
  since: number,
  before: ToldBefore,
  now: Instant,
): ToldChanges {
  const touched = touchedSince(revision, since);
  const ahead = (item: OutwardItem | undefined) =>
    item ? occurrencesOfItems([item], { from: now, to: before.until }).filter((o) => o.to > now) : [];
  const were = new Map(before.items.map((item) => [item.uid, item]));
  const set = new Set(touched.set);
  const changes: ToldChange[] = [];
  let gone = touched.gone.reduce((sum, uid) => sum + ahead(were.get(uid)).length, 0);
  for (const item of view.items) {
    if (!set.has(item.uid)) continue;
    const { change, fewer } = changeOf(item.uid, ahead(were.get(item.uid)), ahead(item));
    gone += fewer;
    if (change) changes.push(change);
  }
  return { changes: changes.sort((a, b) => a.one.from - b.one.from || a.one.to - b.one.to), gone };
}

function changeOf(
  uid: string,
  before: readonly OutwardOccurrence[],
  after: readonly OutwardOccurrence[],
): { readonly change: ToldChange | null; readonly fewer: number } {
  const [old, now] = [byTime(before), byTime(after)];
  const removed = before.filter((o) => !now.has(placeOf(o)));
  const added = after.filter((o) => !old.has(placeOf(o)));
  const edited = after.filter((o) => {
    const was = old.get(placeOf(o));
    return was && canonical(was.content) !== canonical(o.content);
  });
  const told = [...added, ...edited].sort((a, b) => a.from - b.from || a.to - b.to);
  // Where as many stand elsewhere as stood elsewhere, they were moved.
  const moved = added.length === removed.length;
  const fewer = moved ? 0 : Math.max(0, removed.length - added.length);
  const [one] = told;
  if (!one) return { change: null, fewer };
  const isAdded = added.includes(one);
  const was = isAdded && moved ? removed[added.indexOf(one)]! : null;
  const known = was ?? old.get(placeOf(one)) ?? null;
  const kind = before.length ? 'changed' : 'new';
  const parts = kind === 'new' ? [] : partsApart(known, one, isAdded);
  return { change: { uid, kind, one, was, parts, more: told.length - 1 }, fewer };
}

function placeOf({ start, from, to }: OutwardOccurrence): string {
  return `${start.kind}|${from}|${to}`;
}

function byTime(all: readonly OutwardOccurrence[]): Map<string, OutwardOccurrence> {
  return new Map(all.map((one) => [placeOf(one), one]));
}

function partsApart(
  was: OutwardOccurrence | null,
  now: OutwardOccurrence,
  elsewhere: boolean,
): readonly ToldPart[] {
  const fieldsOf = (one: OutwardOccurrence | null) =>
    (one?.content ?? {}) as Readonly<Record<string, unknown>>;
  const [a, b] = [fieldsOf(was), fieldsOf(now)];
  const parts = new Set<ToldPart>(elsewhere ? ['time'] : []);
  if (was)
    for (const field of new Set([...Object.keys(a), ...Object.keys(b)]))
      if (canonical(a[field] ?? null) !== canonical(b[field] ?? null))
        parts.add(field === 'title' || field === 'place' ? field : 'details');
  return [...parts];
}

/** At this hour of a reader's clock daily mails are sent. */
const MORNING = 7 * HOUR;

/** Returns the next instant after `now` at which it is seven in the morning in a zone. */
export function nextMorning(zone: ZoneName, now: Instant): Instant {
  const today = dayAt(zone, now);
  const at = instantOf(zone, today * DAY + MORNING);
  return at > now ? at : instantOf(zone, (today + 1) * DAY + MORNING);
}
