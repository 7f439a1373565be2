import type { History } from './historySlice';

const KEY = 'zonal.history';
const EMPTY: History = { done: [], undone: [] };

interface Stored {
  /** Whose edits they are: several people may use one device. */
  readonly email: string;
  readonly history: History;
}

/** Returns what this person can undo and redo in this tab, as it was before a reload. */
export function storedHistory(email: string): History {
  try {
    const stored = JSON.parse(sessionStorage.getItem(KEY) ?? 'null') as Stored | null;
    return stored?.email === email ? stored.history : EMPTY;
  } catch {
    return EMPTY;
  }
}

/** Stores what this person can undo and redo until the tab is closed. */
export function storeHistory(email: string, history: History): void {
  try {
    sessionStorage.setItem(KEY, JSON.stringify({ email, history } satisfies Stored));
  } catch {
    // A device without room: undo lives as long as the page.
  }
}

/** Removes what could be undone: its author signed out. */
export function removeHistory(): void {
  sessionStorage.removeItem(KEY);
}
