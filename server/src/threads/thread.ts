import * as Comlink from 'comlink';
import nodeEndpoint from 'comlink/dist/umd/node-adapter.js';
import { setPriority } from 'node:os';
import { parentPort, Worker, workerData } from 'node:worker_threads';
import { log } from '../log';
import { surviveStorageLoss } from './storageLoss';

/** What a thread offers is had from its one function, which takes what it is offered in turn. */
type Begin<Given, Offered> = (given: Given) => Promise<Offered>;

/** A thread that ended is started again after this time, and after twice as long with each start that fails. */
const RESTART_DELAY_MS = 1_000;
const MAX_RESTART_DELAY_MS = 30_000;

/** A thread ended before it answered, or has not been started again yet. */
export class ThreadUnavailable extends Error {}

/**
 * A worker thread that offers something. One that ends by itself is started again; calls that it did not answer are
 * rejected, and so are calls before it is there again.
 */
export class Thread<Given extends object, Offered extends object> {
  private worker: Worker | null = null;
  private offered: Comlink.Remote<Offered> | null = null;
  private readonly waiting = new Set<(error: Error) => void>();
  private closing = false;

  constructor(
    private readonly name: string,
    private readonly file: URL,
    private readonly data: unknown,
    private readonly given: Given,
    /** Megabytes of memory that it may take at most, so that one that grows without end stops itself alone. */
    private readonly most: number,
    /** Is done with each new thread before it counts as being there. */
    private readonly first: (offered: Comlink.Remote<Offered>) => Promise<void> = () => Promise.resolve(),
  ) {}

  /** Starts the thread; throws what keeps it from starting, and then leaves none behind. */
  async start(): Promise<void> {
    const worker = new Worker(this.file, {
      workerData: this.data,
      name: this.name,
      resourceLimits: { maxOldGenerationSizeMb: this.most },
    });
    this.worker = worker;
    let began = false;
    const gone = new Promise<never>((_resolve, reject) => {
      worker.once('error', (error) => {
        log.error({ err: error, thread: this.name }, 'a thread failed');
        reject(error);
      });
      worker.once('exit', (code) => {
        reject(new ThreadUnavailable(`The thread “${this.name}” ended with ${code}.`));
        // If it ends while it starts, the caller of start() decides what to do.
        if (began) this.lost(worker);
      });
    });
    const begin = Comlink.wrap<Begin<Given, Offered>>(nodeEndpoint(worker));
    const ready = (async () => {
      const offered = (await begin(Comlink.proxy(this.given) as never)) as unknown as Comlink.Remote<Offered>;
      await this.first(offered);
      this.offered = offered;
      began = true;
    })();
    gone.catch(() => undefined);
    try {
      await Promise.race([ready, gone]);
    } catch (error) {
      if (this.worker === worker) this.worker = null;
      await worker.terminate();
      throw error;
    }
  }

  /** Ends the thread, which is then started again. */
  async restart(): Promise<void> {
    await this.worker?.terminate();
  }

  /** Asks something of the thread. Throws when it ends before it has answered. */
  call<T>(ask: (offered: Comlink.Remote<Offered>) => Promise<T>): Promise<T> {
    const { offered } = this;
    if (!offered)
      return Promise.reject(new ThreadUnavailable(`The thread “${this.name}” is not there just now.`));
    return new Promise<T>((resolve, reject) => {
      this.waiting.add(reject);
      ask(offered)
        .then(resolve, reject)
        .finally(() => this.waiting.delete(reject));
    });
  }

  async close(): Promise<void> {
    this.closing = true;
    await this.worker?.terminate();
  }

  private lost(worker: Worker): void {
    if (this.worker !== worker) return;
    this.worker = this.offered = null;
    for (const reject of this.waiting) reject(new ThreadUnavailable(`The thread “${this.name}” ended.`));
    if (this.closing) return;
    log.error({ thread: this.name }, 'a thread ended and is started again');
    this.startAfter(RESTART_DELAY_MS);
  }

  private startAfter(delay: number): void {
    setTimeout(() => {
      if (this.closing) return;
      this.start().catch((error: unknown) => {
        log.error({ err: error, thread: this.name, delay }, 'a thread could not be started again');
        this.startAfter(Math.min(2 * delay, MAX_RESTART_DELAY_MS));
      });
    }, delay).unref();
  }
}

/**
 * In a worker thread: offers what `begin` returns, and lets the thread that answers readers go first. Threads of a higher
 * niceness (default 10, up to 19) leave the processor to those of a lower one.
 */
export function offer<Data, Given, Offered extends object>(
  begin: (data: Data, given: Comlink.Remote<Given>) => Promise<Offered>,
  { niceness = 10 }: { readonly niceness?: number } = {},
): void {
  surviveStorageLoss();
  try {
    // On Linux this is of the calling thread alone.
    setPriority(niceness);
  } catch (error) {
    log.debug({ err: error }, 'the thread keeps its priority');
  }
  Comlink.expose(
    async (given: Comlink.Remote<Given>) => Comlink.proxy(await begin(workerData as Data, given)),
    nodeEndpoint(parentPort!),
  );
}
