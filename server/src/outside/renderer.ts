import { LRUCache } from 'lru-cache';
import type { DocumentOrder, Written } from './outside';
import { renderDocument, type Place } from './renderDocument';
import type { RenderedView } from './viewDelta';
import { BodyWriter } from './writing';

/** A document to be rendered of the newest state of a view, and what it depends on besides that. */
export interface RenderRequest {
  readonly order: DocumentOrder;
  readonly place: Place;
}

/** Renders documents, here or in other threads. */
export interface Rendering {
  /** Returns the document, or null if too much else is waiting to be rendered, or rendering took too long. */
  render(request: RenderRequest, state: RenderedView): Promise<Written | null>;
  close(): Promise<void>;
}

/** Encoders of document bodies, by form, and by address if each has a body of its own. */
export type BodyWriters = LRUCache<string, BodyWriter>;

/** Enough for the forms whose body all addresses share, and a few of single addresses. */
const MAX_BODY_WRITERS = 6;

export function bodyWriters(): BodyWriters {
  return new LRUCache({ max: MAX_BODY_WRITERS });
}

/** Bytes that an item takes in memory, roughly, with its part of the encoded bodies. */
const ITEM_BYTES = 4_500;

/** Returns how many bytes a rendered view takes in memory, roughly, and at most all of the room that there is. */
export function bytesOfView({ view }: RenderedView, room: number): number {
  return Math.min(room, (view.items.length + 5) * ITEM_BYTES);
}

interface KeptView {
  readonly state: RenderedView;
  readonly bodies: BodyWriters;
}

/** Renders documents, and keeps what one revision of a view has in common with the next. */
export class Renderer implements Rendering {
  private readonly views: LRUCache<string, KeptView>;

  /** `room` is in bytes, roughly. */
  constructor(room: number) {
    this.views = new LRUCache({ maxSize: room, sizeCalculation: ({ state }) => bytesOfView(state, room) });
  }

  /** Returns the state of a view that is kept here, or undefined. */
  stateOf(viewId: string): RenderedView | undefined {
    return this.views.get(viewId)?.state;
  }

  /** Makes this the state from which documents of a view are rendered. */
  keep(viewId: string, state: RenderedView): void {
    this.views.set(viewId, { state, bodies: this.views.peek(viewId)?.bodies ?? bodyWriters() });
  }

  /** Returns a document of the state that is kept of its view, or null if none is. */
  renderKept({ order, place }: RenderRequest): Written | null {
    const kept = this.views.get(order.viewId);
    return kept ? renderDocument(order, kept.state, kept.bodies, place) : null;
  }

  render(request: RenderRequest, state: RenderedView): Promise<Written | null> {
    this.keep(request.order.viewId, state);
    return Promise.resolve(this.renderKept(request));
  }

  close(): Promise<void> {
    return Promise.resolve();
  }
}
