import { compareText, canonical } from '../entries';
import type { OutwardContent, OutwardField } from './fields';
import type { Wording } from './rules';
import { type OutwardItem, type OutwardSeries, type OutwardView } from './view';

/** Parts of an item that can differ besides the fields of its content. */
export type ItemPart = OutwardField | 'time' | 'recurrence' | 'dates' | 'tentative';

/** What is different outwardly about one item. `fields` name what changed. */
export type ItemChange =
  | { readonly kind: 'appears'; readonly after: OutwardItem }
  | { readonly kind: 'vanishes'; readonly before: OutwardItem }
  | {
      readonly kind: 'changes';
      readonly before: OutwardItem;
      readonly after: OutwardItem;
      readonly fields: readonly ItemPart[];
    };

/** The exact outward difference of two states of a view. */
export interface ViewDifference {
  readonly items: readonly ItemChange[];
  /** Names of what differs in how the window names itself; `hostZone` among them. */
  readonly wording: readonly (keyof Wording | 'hostZone')[];
  /** Single times that a reader sees before and after, and of them those that came, went or changed. */
  readonly times: {
    readonly before: number;
    readonly after: number;
    readonly appear: number;
    readonly vanish: number;
    readonly change: number;
  };
}

/** Returns how many single times an item stands for. */
export function timesOf(item: OutwardItem): number {
  return item.kind === 'series' ? item.plain.length + item.overrides.length : 1;
}

/** Returns what a reader would see differently; null stands for a view that nobody sees. */
export function differenceOf(before: OutwardView | null, after: OutwardView | null): ViewDifference {
  const old = new Map((before?.items ?? []).map((i) => [i.uid, i]));
  const now = new Map((after?.items ?? []).map((i) => [i.uid, i]));
  const items: ItemChange[] = [];
  const times = { before: 0, after: 0, appear: 0, vanish: 0, change: 0 };
  for (const item of old.values()) {
    times.before += timesOf(item);
    if (now.has(item.uid)) continue;
    times.vanish += timesOf(item);
    items.push({ kind: 'vanishes', before: item });
  }
  for (const item of now.values()) {
    times.after += timesOf(item);
    const was = old.get(item.uid);
    if (!was) {
      times.appear += timesOf(item);
      items.push({ kind: 'appears', after: item });
    } else if (was !== item) {
      const fields = partsApart(was, item);
      if (!fields.length) continue;
      const [a, b] = [timesOf(was), timesOf(item)];
      times.appear += Math.max(0, b - a);
      times.vanish += Math.max(0, a - b);
      times.change += Math.min(a, b);
      items.push({ kind: 'changes', before: was, after: item, fields });
    }
  }
  return {
    items: items.sort((a, b) => itemOf(a).from - itemOf(b).from || compareText(itemOf(a).uid, itemOf(b).uid)),
    wording: before && after ? wordingApart(before, after) : [],
    times,
  };
}

/** Returns whether two values differ; the order in which an object's parts stand does not count. */
function differ(a: unknown, b: unknown): boolean {
  return JSON.stringify(a) !== JSON.stringify(b) && canonical(a) !== canonical(b);
}

/** Returns the item that a change is about: as it is afterwards, or as it was where it vanishes. */
export function itemOf(change: ItemChange): OutwardItem {
  return change.kind === 'vanishes' ? change.before : change.after;
}

function wordingApart(a: OutwardView, b: OutwardView): (keyof Wording | 'hostZone')[] {
  // What one of them does not say at all is apart too.
  const keys = [...new Set(Object.keys({ ...a.wording, ...b.wording }))] as (keyof Wording)[];
  const apart: (keyof Wording | 'hostZone')[] = keys.filter((k) => differ(a.wording[k], b.wording[k]));
  return a.hostZone === b.hostZone ? apart : [...apart, 'hostZone'];
}

function partsApart(a: OutwardItem, b: OutwardItem): ItemPart[] {
  const apart: ItemPart[] = [];
  if (differ([a.start, a.end], [b.start, b.end])) apart.push('time');
  if (a.kind === 'busy' || b.kind === 'busy') {
    if (a.kind === 'busy' && b.kind === 'busy' && a.tentative !== b.tentative) apart.push('tentative');
    return apart;
  }
  if (differ(ruleOf(a), ruleOf(b))) apart.push('recurrence');
  if (differ(overridesOf(a), overridesOf(b))) apart.push('dates');
  const fields = new Set([...Object.keys(a.content), ...Object.keys(b.content)]) as Set<OutwardField>;
  for (const field of fields) {
    if (differ(a.content[field as keyof OutwardContent], b.content[field as keyof OutwardContent]))
      apart.push(field);
  }
  return apart;
}

function ruleOf(item: OutwardItem): unknown {
  return item.kind === 'series' ? [item.rule, item.dates, item.exceptDates] : null;
}

function overridesOf(item: OutwardItem): OutwardSeries['overrides'] | null {
  return item.kind === 'series' ? item.overrides : null;
}
