import type { Counting, Fetched } from '../outside/counting';
import { log } from '../log';

/** Stores what was counted. */
export interface Storing {
  /** Takes over what was fetched; it may take its time to store it. */
  take(batch: readonly Fetched[]): Promise<void>;
  /** Stores what is left. */
  close(): Promise<void>;
}

/** What was fetched waits so long, or until it is so much: of a process that is killed no more is lost here. */
const EVERY = 500;
const AT_MOST = 500;

/** Notes what is fetched, on the thread that answers: it is handed on in batches to whatever stores it. */
export class PollLog implements Counting {
  private batch: Fetched[] = [];
  private readonly timer = setInterval(() => void this.hand(), EVERY).unref();

  constructor(private readonly storing: Storing) {}

  note(fetched: Fetched): void {
    this.batch.push(fetched);
    if (this.batch.length >= AT_MOST) void this.hand();
  }

  async close(): Promise<void> {
    clearInterval(this.timer);
    await this.hand();
    await this.storing.close();
  }

  private async hand(): Promise<void> {
    if (!this.batch.length) return;
    const { batch } = this;
    this.batch = [];
    try {
      await this.storing.take(batch);
    } catch (error) {
      log.warn({ err: error, polls: batch.length }, 'polls could not be handed on; trying again');
      this.batch = [...batch, ...this.batch].slice(-MOST);
    }
  }
}

/** While nothing can be stored, so many are kept. */
export const MOST = 200_000;
