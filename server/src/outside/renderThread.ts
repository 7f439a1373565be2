import * as Comlink from 'comlink';
import { offer } from '../threads/thread';
import type { Written } from './outside';
import { Renderer, type RenderRequest } from './renderer';
import { applyDelta, type StampedItem, type ViewDelta } from './viewDelta';
import { buffersOf } from './writing';

export interface RenderThreadData {
  /** Bytes that states of views may take here, roughly. */
  readonly room: number;
}

/** What a render thread does for the thread that compiles views. */
export interface RenderThread {
  /** Receives the next items of a view, which may be many, ahead of the delta that puts them in place. */
  receive(items: readonly StampedItem[]): Promise<void>;
  /** Brings a view from the state with the number `base` (null: from nothing) to the next. Returns false if `base` is not kept. */
  apply(viewId: string, base: number | null, serial: number, delta: ViewDelta): Promise<boolean>;
  /** Returns a document of the state that was applied last, or null if it is no longer kept. */
  render(request: RenderRequest): Promise<Written | null>;
}

/** Renders what readers ask for, so that the thread that applies changes never has to. */
offer<RenderThreadData, object, RenderThread>(
  ({ room }) => {
    const renderer = new Renderer(room);
    const serials = new Map<string, number>();
    let received: StampedItem[] = [];
    return Promise.resolve({
      receive: (items) => {
        received.push(...items);
        return Promise.resolve();
      },
      apply: (viewId, base, serial, delta) => {
        const [state, items] = [renderer.stateOf(viewId), received];
        received = [];
        if (base !== null && (!state || serials.get(viewId) !== base)) return Promise.resolve(false);
        renderer.keep(viewId, applyDelta(base === null ? null : state!, delta, items));
        serials.set(viewId, serial);
        return Promise.resolve(true);
      },
      render: (request) => {
        const written = renderer.renderKept(request);
        if (!written) return Promise.resolve(null);
        return Promise.resolve(Comlink.transfer(written, buffersOf(written)));
      },
    });
  },
  { niceness: 15 },
);
