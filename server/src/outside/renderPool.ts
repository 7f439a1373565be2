import { LRUCache } from 'lru-cache';
import { FairQueue } from '../jobs/fairQueue';
import { Thread, ThreadUnavailable } from '../threads/thread';
import { log } from '../log';
import type { Written } from './outside';
import { bytesOfView, type RenderRequest, type Rendering } from './renderer';
import type { RenderThread, RenderThreadData } from './renderThread';
import { deltaBetween, type RenderedView } from './viewDelta';

/** A document that takes longer, in milliseconds, is given up with its thread. */
const RENDER_DEADLINE_MS = 60_000;
/** How many documents of one address may wait in a thread. */
const MAX_WAITING_PER_ADDRESS = 100;
/** Items that are sent at once: the thread that applies changes does nothing else meanwhile. */
const ITEMS_PER_MESSAGE = 250;
const MEGABYTE = 1024 * 1024;

export interface RenderPoolOptions {
  /** The folder of the built threads. */
  readonly folder: URL;
  /** Bytes that states of views may take in all threads together, roughly. */
  readonly room: number;
  /** In milliseconds. */
  readonly deadline?: number;
}

/**
 * Renders documents in threads of their own: one for the forms that programs fetch, of which there are few for each revision, and
 * one for pages and questions, of which readers can make up any number. Addresses take turns in each.
 */
export class RenderPool implements Rendering {
  private readonly forms: RenderLane;
  private readonly questions: RenderLane;

  constructor(options: RenderPoolOptions) {
    this.forms = new RenderLane('render forms', options);
    this.questions = new RenderLane('render questions', options);
  }

  async start(): Promise<void> {
    await Promise.all([this.forms.start(), this.questions.start()]);
  }

  render(request: RenderRequest, state: RenderedView): Promise<Written | null> {
    const { order } = request;
    const asks = 'page' in order || order.form === 'dav' || order.form === 'entry';
    return (asks ? this.questions : this.forms).render(request, state);
  }

  /** Ends the threads, which are then started again. */
  async restart(): Promise<void> {
    await Promise.all([this.forms.restart(), this.questions.restart()]);
  }

  async close(): Promise<void> {
    await Promise.all([this.forms.close(), this.questions.close()]);
  }
}

/** One render thread, what it was sent, and what waits for it. */
class RenderLane implements Rendering {
  private readonly thread: Thread<object, RenderThread>;
  private readonly queue = new FairQueue({ maxWaiting: MAX_WAITING_PER_ADDRESS });
  /** The state of each view that the thread was sent last. */
  private readonly sent: LRUCache<string, { readonly state: RenderedView; readonly serial: number }>;
  private readonly deadline: number;
  private serial = 0;

  constructor(name: string, { folder, room, deadline = RENDER_DEADLINE_MS }: RenderPoolOptions) {
    const half = Math.ceil(room / 2);
    this.deadline = deadline;
    const data: RenderThreadData = { room: half };
    const memory = 512 + Math.ceil((2 * half) / MEGABYTE);
    this.thread = new Thread(name, new URL('renderThread.js', folder), data, {}, memory);
    this.sent = new LRUCache({
      maxSize: half,
      sizeCalculation: ({ state }) => bytesOfView(state, half),
    });
  }

  start(): Promise<void> {
    return this.thread.start();
  }

  async render(request: RenderRequest, state: RenderedView): Promise<Written | null> {
    const { token } = request.order;
    try {
      return await this.queue.add(token, () => this.withinDeadline(this.renderNow(request, state)));
    } catch (error) {
      if (error instanceof ThreadUnavailable) return null;
      throw error;
    }
  }

  restart(): Promise<void> {
    return this.thread.restart();
  }

  close(): Promise<void> {
    return this.thread.close();
  }

  private async renderNow(request: RenderRequest, state: RenderedView): Promise<Written | null> {
    const { viewId } = request.order;
    await this.send(viewId, state);
    const written = await this.thread.call((t) => t.render(request));
    if (written) return written;
    // The thread needed the memory for other views, or was started again.
    this.sent.delete(viewId);
    await this.send(viewId, state);
    return this.thread.call((t) => t.render(request));
  }

  /** Brings a view in the thread up to date: only what changed since it was last sent goes there. */
  private async send(viewId: string, state: RenderedView): Promise<void> {
    const last = this.sent.get(viewId) ?? null;
    if (last?.state.view === state.view && last.state.revision === state.revision) return;
    const serial = ++this.serial;
    const apply = async (base: typeof last) => {
      const { delta, items } = deltaBetween(base?.state ?? null, state);
      for (let i = 0; i < items.length; i += ITEMS_PER_MESSAGE)
        await this.thread.call((t) => t.receive(items.slice(i, i + ITEMS_PER_MESSAGE)));
      return this.thread.call((t) => t.apply(viewId, base?.serial ?? null, serial, delta));
    };
    if (!(await apply(last)) && last) await apply(null);
    this.sent.set(viewId, { state: { view: state.view, revision: state.revision }, serial });
  }

  private async withinDeadline<T>(work: Promise<T>): Promise<T> {
    let timer: NodeJS.Timeout | undefined;
    const expired = new Promise<never>((_resolve, reject) => {
      timer = setTimeout(() => {
        log.error(
          { deadline: this.deadline },
          'a document took too long to render; its thread is started again',
        );
        void this.thread.restart();
        reject(new ThreadUnavailable('It took too long.'));
      }, this.deadline);
    });
    work.catch(() => undefined);
    return Promise.race([work, expired]).finally(() => clearTimeout(timer));
  }
}
