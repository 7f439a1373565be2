import type { WindowInput } from '@zonal/core/glass';
import type { Calendar } from '@zonal/core/api';

const KEY = 'zonal.newWindow';

interface Stored {
  /** Whose draft it is: a device may have several people. */
  readonly email: string;
  readonly draft: WindowInput;
}

/** Returns the draft of a window that this person began on this device and never opened, or null. */
export function storedNewWindow(email: string, calendars: readonly Calendar[]): WindowInput | null {
  try {
    const stored = JSON.parse(localStorage.getItem(KEY) ?? 'null') as Stored | null;
    if (stored?.email !== email) return null;
    const { draft } = stored;
    // Calendars that were deleted since, or that this person may no longer publish, are left out.
    const sources = draft.sources.filter((s) => calendars.some((c) => c.id === s.calendarId));
    return { ...draft, sources };
  } catch {
    return null;
  }
}

/** Stores the draft of a new window on this device, where it survives a reload. */
export function storeNewWindow(email: string, draft: WindowInput): void {
  try {
    localStorage.setItem(KEY, JSON.stringify({ email, draft } satisfies Stored));
  } catch {
    // A device without room: the draft lives as long as the page.
  }
}

/** Removes the draft of a new window: it was opened or discarded, or its author signed out. */
export function removeNewWindow(): void {
  localStorage.removeItem(KEY);
}
