import type { OutwardWindow, Sheet, SheetInput, SheetItem } from '@zonal/core/api';
import { keyState } from '@zonal/core/glass';

/** An address that can be put on a link sheet. */
export interface Choosable extends SheetItem {
  /** The place or person that its key is made out to; empty for everybody. */
  readonly madeOutTo: string;
}

/** Returns what an item is called where it has to be told apart. */
export function itemName({ windowId, keyId }: SheetItem): string {
  return `${windowId}|${keyId ?? ''}`;
}

/** Returns what a new sheet starts as, or what one says. */
export function draftOf(sheet: Sheet | null): SheetInput {
  if (!sheet) return { name: '', note: '', items: [] };
  const { name, note, items, version } = sheet;
  return { name, note, version, items: items.map(({ windowId, keyId }) => ({ windowId, keyId })) };
}

/** Returns the addresses of a window that can be handed out: the one for everybody, and those of its open keys. */
export function choosable(window: OutwardWindow, now: number): Choosable[] {
  const { id: windowId, listed, closedAt, keys } = window;
  if (closedAt) return [];
  const open = keys.filter((key) => keyState(key, now) !== 'ended');
  return [
    ...(listed ? [{ windowId, keyId: null, madeOutTo: '' }] : []),
    ...open.map(({ id: keyId, madeOutTo }) => ({ windowId, keyId, madeOutTo })),
  ];
}

/** Returns items with one more at their end, or without one that is among them. */
export function withItem(
  items: readonly SheetItem[],
  { windowId, keyId }: SheetItem,
  on: boolean,
): SheetItem[] {
  const item = { windowId, keyId };
  const others = items.filter((i) => itemName(i) !== itemName(item));
  return on ? [...others, item] : others;
}

/** Returns items with one of them so many places further down, or up where it is negative; the ends stay ends. */
export function movedItem(items: readonly SheetItem[], item: SheetItem, by: number): SheetItem[] {
  const from = items.findIndex((i) => itemName(i) === itemName(item));
  const to = Math.min(Math.max(from + by, 0), items.length - 1);
  const others = items.filter((_, i) => i !== from);
  return from < 0 ? [...items] : [...others.slice(0, to), items[from]!, ...others.slice(to)];
}
