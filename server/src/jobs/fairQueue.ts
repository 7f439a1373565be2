export interface FairQueueOptions {
  /** How many tasks of one lane may wait. */
  readonly maxWaiting: number;
}

/** Runs tasks one at a time, and those of different lanes in turn: who asks for much waits for themselves alone. */
export class FairQueue {
  /** Waiting tasks by lane; the lane whose turn it is comes first. */
  private readonly lanes = new Map<string, (() => Promise<void>)[]>();
  private isRunning = false;
  private readonly maxWaiting: number;

  constructor({ maxWaiting }: FairQueueOptions) {
    this.maxWaiting = maxWaiting;
  }

  /** Returns the result of a task once it was its turn, or null if too many tasks of its lane are waiting. */
  add<T>(lane: string, task: () => Promise<T>): Promise<T> | null {
    const waiting = this.lanes.get(lane) ?? [];
    if (waiting.length >= this.maxWaiting) return null;
    const result = new Promise<T>((resolve, reject) => {
      waiting.push(() => task().then(resolve, reject));
    });
    this.lanes.set(lane, waiting);
    this.runNext();
    return result;
  }

  private runNext(): void {
    const [next] = this.lanes;
    if (!next || this.isRunning) return;
    const [lane, waiting] = next;
    const task = waiting.shift()!;
    this.lanes.delete(lane);
    // It goes to the end: the other lanes come first now.
    if (waiting.length) this.lanes.set(lane, waiting);
    this.isRunning = true;
    void task().finally(() => {
      this.isRunning = false;
      this.runNext();
    });
  }
}
