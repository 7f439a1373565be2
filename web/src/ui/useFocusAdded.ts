import { useEffect, useRef, type RefObject } from 'react';

/** What can have the focus in a new item, in the order of the page. */
const FOCUSABLE = 'input, select, textarea, button';

/**
 * Returns a function to call just before an item is added at the end of a list: once the item is there, its first field has the
 * focus.
 */
export function useFocusAdded(list: RefObject<HTMLElement | null>): () => void {
  const before = useRef<number | null>(null);
  // After every render: the item may arrive with a later one.
  useEffect(() => {
    const items = list.current?.children;
    if (before.current === null || !items || items.length <= before.current) return;
    before.current = null;
    const item = items[items.length - 1]!;
    item.querySelector<HTMLElement>(FOCUSABLE)?.focus();
    item.scrollIntoView({ block: 'nearest' });
  });
  return () => {
    before.current = list.current?.children.length ?? 0;
  };
}
