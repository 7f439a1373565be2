import type { Audience, Glass, Reader } from '@zonal/core/glass';
import type { Instant } from '@zonal/core/zones';
import type { Basis } from './viewStore';

/** A view that at least one address leads to, in memory or not. */
export interface LiveView {
  readonly id: string;
  readonly windowId: string;
  readonly reader: Reader;
  /** The instant from which on no address leads to it; Infinity for never. */
  openUntil: Instant;
  /** Up to where its newest revision is right: the last change that it takes into account, and the day. */
  basis: Basis;
  /** Whether that is known. If not, what is stored may be older than changes that nobody compiled while it was closed. */
  known: boolean;
  /** The last change that concerns it. Nothing older is shown. */
  concern: number;
  /** The basis that is stored; null if it is not known. */
  stored: Basis | null;
  /** Whether it has to be compiled again, because another version of the program compiled it. */
  unsure: boolean;
}

/** Returns the reader of a view by the view's id. */
export function readerOf(viewId: string): Reader {
  const [, audience, cap] = viewId.split('|');
  return { audience: audience as Audience, cap: (cap as Glass) || null };
}

/** The open views of a process, by id and by window. */
export class LiveViews {
  private readonly byId = new Map<string, LiveView>();
  private readonly byWindow = new Map<string, Set<LiveView>>();

  get(id: string): LiveView | undefined {
    return this.byId.get(id);
  }

  has(id: string): boolean {
    return this.byId.has(id);
  }

  values(): IterableIterator<LiveView> {
    return this.byId.values();
  }

  /** Returns the views of a window. */
  of(windowId: string): LiveView[] {
    return [...(this.byWindow.get(windowId) ?? [])];
  }

  add(view: LiveView): void {
    this.byId.set(view.id, view);
    const others = this.byWindow.get(view.windowId) ?? new Set();
    this.byWindow.set(view.windowId, others.add(view));
  }

  delete(id: string): void {
    const view = this.byId.get(id);
    if (!view) return;
    this.byId.delete(id);
    this.byWindow.get(view.windowId)!.delete(view);
  }
}
