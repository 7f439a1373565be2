import type { OutwardItem, OutwardView } from '@zonal/core/glass';
import type { Revision } from '@zonal/core/reach';

/** What documents of a view are rendered from. Nothing in it is ever altered: a new revision is a new object. */
export interface RenderedView {
  readonly view: OutwardView;
  readonly revision: Revision;
}

/** An item with the metadata of its version. */
export interface StampedItem {
  readonly item: OutwardItem;
  readonly stamp: Revision['stamps'][string];
}

/** What turns one state of a view into another, as plain data that can go to another thread. */
export interface ViewDelta {
  readonly view: Omit<OutwardView, 'items'>;
  readonly revision: Omit<Revision, 'stamps' | 'gone'>;
  /** Removed items; null if they are the same as before. */
  readonly gone: Revision['gone'] | null;
  /** For each item its place in the state before; -1 for the next of the items that are sent along. */
  readonly order: Int32Array;
}

/**
 * Returns what turns `base` into `next`, and the items that have to be sent along. Items count as unchanged if they are the same
 * objects, which they are from one revision to the next unless their content changed.
 */
export function deltaBetween(
  base: RenderedView | null,
  next: RenderedView,
): { readonly delta: ViewDelta; readonly items: readonly StampedItem[] } {
  const known = new Map(base?.view.items.map((item, index) => [item, index]));
  const { items: all, ...view } = next.view;
  const { stamps, gone, ...revision } = next.revision;
  const items: StampedItem[] = [];
  const order = Int32Array.from(all, (item) => {
    const index = known.get(item);
    const stamp = stamps[item.uid]!;
    if (index !== undefined && base!.revision.stamps[item.uid] === stamp) return index;
    items.push({ item, stamp });
    return -1;
  });
  return { delta: { view, revision, gone: gone === base?.revision.gone ? null : gone, order }, items };
}

/** Returns the state that {@link deltaBetween} was given as `next`. */
export function applyDelta(
  base: RenderedView | null,
  { view, revision, gone, order }: ViewDelta,
  items: readonly StampedItem[],
): RenderedView {
  let sent = 0;
  const stamps: Record<string, StampedItem['stamp']> = {};
  const all = Array.from(order, (index) => {
    if (index < 0) {
      const { item, stamp } = items[sent++]!;
      stamps[item.uid] = stamp;
      return item;
    }
    const item = base!.view.items[index]!;
    stamps[item.uid] = base!.revision.stamps[item.uid]!;
    return item;
  });
  return {
    view: { ...view, items: all },
    revision: { ...revision, stamps, gone: gone ?? base!.revision.gone },
  };
}
