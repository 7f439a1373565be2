import { EMPTY_CONTENT, canonical, occurrencesOf, type Range } from '../entries';
import { compareTimes, type OutwardItem, type OutwardSeries, type OutwardView, type Wording } from '../glass';
import type { ZoneName } from '../zones';
import type { Revision } from './revision';

/** An item as the ledger keeps it: what follows from the rest of a series is left out. */
export type LedgerItem = Exclude<OutwardItem, OutwardSeries> | Omit<OutwardSeries, 'plain'>;

/** What one revision changed outwardly, kept as a difference from the one before. */
export interface LedgerStep {
  /** Items that came or changed, as they are from now on. */
  readonly set: readonly LedgerItem[];
  /** UIDs of items that went. */
  readonly gone: readonly string[];
  /** Only where they changed; steps of before there were such have none. */
  readonly ids?: OutwardView['ids'];
  /** Only where it changed. */
  readonly wording?: Wording;
  readonly hostZone?: ZoneName;
  readonly range: Range;
}

/** Returns the step from one revision to the next; `previous` null makes the first step, which holds everything. */
export function ledgerStep(
  previous: { readonly revision: Revision; readonly wording: Wording; readonly hostZone: ZoneName } | null,
  revision: Revision,
  view: OutwardView,
): LedgerStep {
  const before = previous?.revision.stamps ?? {};
  // The store may keep the parts of the wording in another order.
  const wording = !previous || canonical(previous.wording) !== canonical(view.wording);
  return {
    set: view.items.filter((i) => before[i.uid]?.print !== revision.stamps[i.uid]!.print).map(ledgerItem),
    gone: Object.keys(before).filter((uid) => !(uid in revision.stamps)),
    ...(previous ? {} : { ids: view.ids }),
    ...(wording ? { wording: view.wording } : {}),
    ...(previous?.hostZone === view.hostZone ? {} : { hostZone: view.hostZone }),
    range: view.range,
  };
}

/** Returns an item as it is kept. */
export function ledgerItem(item: OutwardItem): LedgerItem {
  if (item.kind !== 'series') return item;
  const { plain: _plain, ...rest } = item;
  return rest;
}

/** Returns a kept item as it was told, with the dates of a series. */
export function outwardItem(item: LedgerItem, hostZone: ZoneName): OutwardItem {
  return item.kind === 'series' ? { ...item, plain: plainOf(item, hostZone) } : item;
}

/** Returns the view that steps lead to, the first of them being that of revision 1. */
export function viewAfter(steps: readonly LedgerStep[]): OutwardView {
  const items = new Map<string, LedgerItem>();
  let [wording, hostZone]: [Wording | undefined, ZoneName] = [undefined, 'UTC'];
  let ids: OutwardView['ids'] = { calendar: '', freeBusy: '' };
  let range: Range = { from: 0, to: 0 };
  for (const step of steps) {
    for (const uid of step.gone) items.delete(uid);
    for (const item of step.set) items.set(item.uid, item);
    ids = step.ids ?? ids;
    wording = step.wording ?? wording;
    hostZone = step.hostZone ?? hostZone;
    range = step.range;
  }
  return {
    ids,
    wording: wording!,
    hostZone,
    range,
    items: [...items.values()].map((item) => outwardItem(item, hostZone)).sort(compareTimes),
  };
}

/** Returns the dates of a series that have nothing of their own: its rule ends with the last of them. */
function plainOf(item: Omit<OutwardSeries, 'plain'>, hostZone: ZoneName): OutwardSeries['plain'] {
  const { uid, start, end, rule, dates, exceptDates, overrides } = item;
  const entry = {
    ...EMPTY_CONTENT,
    id: uid,
    uid,
    calendarId: '',
    version: 0,
    start,
    end,
    recurrence: { rule, dates, exceptDates },
    overrides: overrides.map((o) => ({ slot: o.slot, start: o.start, end: o.end, content: EMPTY_CONTENT })),
  };
  return occurrencesOf(entry, { from: item.from, to: item.from + LONGEST }, hostZone)
    .filter((o) => !o.overridden)
    .map(({ start: s, end: e, from, to }) => ({ start: s, end: e, from, to }));
}

/** The rule of an outward series ends within the horizon, and no horizon is longer than this. */
const LONGEST = 20 * 366 * 86_400_000;
