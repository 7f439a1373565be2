import { uptime } from 'node:os';
import { log } from '../log';

/** How often a process shows itself that it runs. */
const BEAT_MS = 500;
/**
 * A process that did not run for this time has been paused: the other processes no longer wait for it, so it answers no reader
 * before it has caught up.
 */
export const PAUSE_MS = 4_000;
const RETRY_MS = 1_000;

export interface ServingGateOptions {
  /** Applies all changes that the database has; returns whether it could. */
  readonly catchUp: () => Promise<boolean>;
  /** A clock in milliseconds that never jumps. */
  readonly elapsed?: () => number;
  /** Seconds since the machine was started, those in which it slept included. */
  readonly machineUptime?: () => number;
}

/**
 * Says whether this process may answer readers: only after it has caught up with all changes that were made before it began,
 * and again after each pause, for example while its machine slept.
 */
export class ServingGate {
  private readonly catchUp: () => Promise<boolean>;
  private readonly elapsed: () => number;
  private readonly machineUptime: () => number;
  private caughtUp = false;
  private beatAt = -Infinity;
  private uptimeAt = 0;
  /** Counts pauses: what began before one says nothing of what is true after it. */
  private pauses = 0;
  private timer: NodeJS.Timeout | undefined;
  private closed = false;

  constructor({ catchUp, elapsed = () => performance.now(), machineUptime = uptime }: ServingGateOptions) {
    this.catchUp = catchUp;
    this.elapsed = elapsed;
    this.machineUptime = machineUptime;
  }

  get isOpen(): boolean {
    return this.caughtUp && this.elapsed() - this.beatAt < PAUSE_MS;
  }

  /** Waits until the process may answer readers for the first time, and looks out for pauses from then on. */
  async start(): Promise<void> {
    this.note();
    this.timer = setInterval(() => this.beat(), BEAT_MS).unref();
    await this.open();
  }

  /** Notices whether the process was paused since it last ran. */
  beat(): void {
    const asleep = (this.machineUptime() - this.uptimeAt) * 1000;
    const pause = Math.max(this.elapsed() - this.beatAt, asleep);
    if (pause >= PAUSE_MS) {
      this.caughtUp = false;
      log.warn({ pause: Math.round(pause) }, 'this process was paused; it catches up before it serves again');
      this.pauses++;
      void this.open();
    }
    this.note();
  }

  close(): void {
    this.closed = true;
    clearInterval(this.timer);
  }

  private note(): void {
    this.beatAt = this.elapsed();
    this.uptimeAt = this.machineUptime();
  }

  private async open(): Promise<void> {
    const { pauses } = this;
    while (!this.closed && pauses === this.pauses) {
      if (await this.catchUp()) {
        if (pauses === this.pauses) this.caughtUp = true;
        return;
      }
      await new Promise((resolve) => setTimeout(resolve, RETRY_MS));
    }
  }
}
