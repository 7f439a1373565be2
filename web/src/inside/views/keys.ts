import type { KeyboardEvent } from 'react';

/** Whether a key puts something at the cursor of a view: Enter a new entry, Ctrl+V what was copied. */
export function isPut(event: KeyboardEvent): boolean {
  return event.key === 'Enter' || ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'v');
}

/** Returns the key of the item that an element stands for or in, or null. */
export function keyOfItem(target: EventTarget | null): string | null {
  return target instanceof Element
    ? (target.closest<HTMLElement>('[data-key]')?.dataset['key'] ?? null)
    : null;
}

/** A change of an item by the keyboard: by days and minutes, of both ends or of the end alone. */
export interface Nudge {
  readonly days: number;
  readonly minutes: number;
  readonly edge: boolean;
}

const NUDGES: Record<string, [days: number, minutes: number]> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -15],
  ArrowDown: [0, 15],
};

/** Returns what Alt and an arrow key do: a day to the sides, a quarter of an hour up and down; with Shift to the end alone. */
export function nudgeOf(event: KeyboardEvent): Nudge | null {
  const found = event.altKey ? NUDGES[event.key] : undefined;
  return found ? { days: found[0], minutes: found[1], edge: event.shiftKey } : null;
}

/** Whether a key press belongs to a field that is typed in. */
export function isTyping(target: EventTarget | null): boolean {
  return (
    target instanceof HTMLElement &&
    (target.isContentEditable || /^(INPUT|TEXTAREA|SELECT)$/.test(target.tagName))
  );
}
