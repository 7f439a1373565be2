import type { Entry } from '../entries';
import type { Instant } from '../zones';
import { differenceOf, type ViewDifference } from './difference';
import { newlyExposed, type Exposure, type Watch } from './exposure';
import type { Audience, Glass } from './glass';
import { mergeSpans } from './busySpans';
import { publicAddressEnd, keyState, type Ending, type PublicAddress } from './keyState';
import { outwardView } from './outwardView';
import { rangeOfHorizon, type Reader, type WindowRules } from './rules';
import { occurrencesOfView, type OutwardView } from './view';

/** A window as far as a rehearsal needs it. */
export interface RehearsedWindow {
  readonly id: string;
  readonly rules: WindowRules;
  readonly listed: boolean;
  /** Instant until which the public address of an unlisted window works; null if it does not. */
  readonly publicUntil: Instant | null;
  readonly closed: boolean;
  readonly keys: readonly {
    readonly id: string;
    readonly madeOutTo: string;
    readonly audience: Audience;
    readonly cap: Glass | null;
  }[];
}

/** An address of a window as rehearsals need it: a key, or the window itself for its public address. */
type RehearsedKey = RehearsedWindow['keys'][number];

/** What a rehearsal calls the readers who come by a window's public address. */
export const PUBLIC_READERS = 'Anybody, by the public address';

/**
 * Returns a window as rehearsals need it: with its keys that have not ended, and with its public address while that leads to
 * the window. `rules` are those that are rehearsed, its own unless set.
 */
export function rehearsedWindow(
  window: PublicAddress & {
    readonly id: string;
    readonly closedAt: unknown;
    readonly keys: readonly (RehearsedKey & Ending)[];
  },
  rules: WindowRules,
  now: Instant,
): RehearsedWindow {
  const { id, closedAt } = window;
  const keys: RehearsedKey[] = window.keys.filter((k) => keyState(k, now) !== 'ended');
  const everybody = { id, madeOutTo: PUBLIC_READERS, audience: 'street', cap: null } as const;
  const end = publicAddressEnd(window);
  return {
    ...{ id, rules, listed: window.listed, closed: closedAt !== null },
    publicUntil: Number.isFinite(end) ? end : null,
    keys: end > now ? [...keys, everybody] : keys,
  };
}

/** One state of what is inside and of how it is shown; entries by calendar. */
export interface RehearsedState {
  readonly window: RehearsedWindow | null;
  readonly entries: (calendarId: string) => Iterable<Entry>;
}

export const DEMANDS = [
  'most-vanishes',
  'first-listed',
  'public-address-ends',
  'sensitive-on-street',
] as const;
/** An effect so large that it must be confirmed by itself. */
export type Demand = (typeof DEMANDS)[number];

/** What one group of keys (of one audience and cap) would see differently. */
export interface RehearsedView {
  readonly audience: Audience;
  readonly cap: Glass | null;
  readonly keys: readonly { readonly id: string; readonly madeOutTo: string }[];
  readonly before: OutwardView | null;
  readonly after: OutwardView | null;
  readonly difference: ViewDifference;
  readonly exposed: readonly Exposure[];
}

export interface Rehearsal {
  readonly windowId: string;
  readonly name: string;
  readonly views: readonly RehearsedView[];
  readonly demands: readonly Demand[];
}

/** Returns what readers of a window would see differently after a change, for every audience and cap of its keys. */
export function rehearse(
  before: RehearsedState,
  after: RehearsedState,
  now: Instant,
  watch: Watch,
): Rehearsal {
  const groups = new Map<string, { reader: Reader; keys: Map<string, RehearsedView['keys'][number]> }>();
  for (const state of [before, after]) {
    for (const { id, madeOutTo, audience, cap } of state.window?.keys ?? []) {
      const group = `${audience}|${cap ?? ''}`;
      const { keys } = groups.get(group) ?? { keys: new Map() };
      groups.set(group, { reader: { audience, cap }, keys: keys.set(id, { id, madeOutTo }) });
    }
  }
  const views = [...groups.values()].map(({ reader, keys }): RehearsedView => {
    const [old, next] = [viewOf(before, reader, now), viewOf(after, reader, now)];
    return {
      ...reader,
      keys: [...keys.values()],
      before: old,
      after: next,
      difference: differenceOf(old, next),
      exposed: newlyExposed(old, next, watch),
    };
  });
  const window = after.window ?? before.window;
  return {
    windowId: window?.id ?? '',
    name: window?.rules.wording.name ?? '',
    views,
    demands: demandsOf(before, after, views, now),
  };
}

/**
 * Returns what whoever has one key would see differently once it is another one: of another zone, with another cap. Null
 * is a key that is not there.
 */
export function rehearseKey(
  { window, entries }: RehearsedState & { readonly window: RehearsedWindow },
  before: RehearsedWindow['keys'][number] | null,
  after: RehearsedWindow['keys'][number] | null,
  now: Instant,
  watch: Watch,
): Rehearsal {
  const viewFor = (key: RehearsedWindow['keys'][number] | null) =>
    key && viewOf({ window: { ...window, keys: [key] }, entries }, key, now);
  const [old, next] = [viewFor(before), viewFor(after)];
  const key = (after ?? before)!;
  const view: RehearsedView = {
    audience: key.audience,
    cap: key.cap,
    keys: [key],
    before: old,
    after: next,
    difference: differenceOf(old, next),
    exposed: newlyExposed(old, next, watch),
  };
  const state = { window, entries };
  return {
    windowId: window.id,
    name: window.rules.wording.name,
    views: [view],
    demands: demandsOf(state, state, [view], now),
  };
}

function viewOf({ window, entries }: RehearsedState, reader: Reader, now: Instant): OutwardView | null {
  const opens = window?.keys.some((k) => k.audience === reader.audience && k.cap === reader.cap);
  if (!window || !opens || window.closed) return null;
  const { rules } = window;
  const all = rules.sources.flatMap((s) => [...entries(s.calendarId)]);
  return outwardView(all, rules, rangeOfHorizon(rules.horizon, rules.hostZone, now), reader);
}

function demandsOf(
  before: RehearsedState,
  after: RehearsedState,
  views: readonly RehearsedView[],
  now: Instant,
): Demand[] {
  const most = views.some((view) => lostTimes(view) * 2 > view.difference.times.before);
  const publicEnd = ({ window }: RehearsedState) => (window ? publicAddressEnd(window) : -Infinity);
  const isClosed = before.window?.closed || after.window?.closed;
  const listed = publicEnd(after) === Infinity && publicEnd(before) !== Infinity;
  const isPublic = !!after.window && !isClosed && publicEnd(before) > now;
  const street = views.some((v) => v.audience === 'street' && v.exposed.length > 0);
  const demanded: Readonly<Record<Demand, boolean>> = {
    'most-vanishes': most,
    'first-listed': listed,
    'public-address-ends': isPublic && publicEnd(after) < publicEnd(before),
    'sensitive-on-street': street,
  };
  return DEMANDS.filter((d) => demanded[d]);
}

/** Returns how many times vanish. Busy time does not where something is told of it afterwards: it got clearer. */
function lostTimes({ after, difference: { items, times } }: RehearsedView): number {
  const busy = items.flatMap((c) => (c.kind === 'vanishes' && c.before.kind === 'busy' ? [c.before] : []));
  if (!busy.length || !after) return times.vanish;
  const taken = mergeSpans(occurrencesOfView(after).map(({ from, to }) => ({ from, to, tentative: false })));
  let at = 0;
  const told = busy.filter(({ from, to }) => {
    while (at < taken.length && taken[at]!.to <= from) at++;
    return at < taken.length && taken[at]!.from < to;
  });
  return times.vanish - told.length;
}

/** Returns whether a rehearsal shows nothing that a reader would notice. */
export function isQuiet({ views }: Pick<Rehearsal, 'views'>): boolean {
  return views.every((v) => !v.difference.items.length && !v.difference.wording.length);
}
