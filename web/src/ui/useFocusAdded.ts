import { useEffect, useRef, type RefObject } from 'react';

/** What has the focus in a new item, the first that there is: what is chosen in it, else a field, else a button. */
const FOCUSABLE = ['input:checked', 'input, select, textarea', 'button'];

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
    FOCUSABLE.map((part) => item.querySelector<HTMLElement>(part))
      .find(Boolean)
      ?.focus();
    item.scrollIntoView({ block: 'nearest' });
  });
  return () => {
    before.current = list.current?.children.length ?? 0;
  };
}
