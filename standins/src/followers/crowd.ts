import { randomFrom } from '@zonal/core/followers';
import { CAST } from './cast';
import { FollowersClock } from './clock';
import { Follower, type Addresses } from './follower';

/** What the demo says of where its windows are: by the name of a key, or by that of a listed window. */
export interface DemoWindow extends Addresses {
  readonly slug: string;
  readonly madeOutTo: string | null;
}

/** Paces of the clock, in plain words: how much of their time passes in a minute of ours. */
export const PACES = [0, 1, 10, 60, 600] as const;
export const USUAL_PACE = 60;

/** So often, in milliseconds, it is looked who is due. */
const TICK = 200;

/** All programs outside, on one clock. */
export class Crowd {
  readonly clock: FollowersClock;
  readonly followers: readonly Follower[];
  private busy: Promise<void> | null = null;
  private timer: NodeJS.Timeout | null = null;

  constructor(
    windows: readonly DemoWindow[],
    now: () => number = Date.now,
    pace: number = USUAL_PACE,
    seed = 7,
  ) {
    this.clock = new FollowersClock(now, pace);
    const random = randomFrom(seed);
    this.followers = CAST.flatMap((member) => {
      const window = windows.find((w) => w.slug === member.slug && w.madeOutTo === member.madeOutTo);
      return window ? [new Follower(member, window, this.clock.read(), random)] : [];
    });
  }

  start(): void {
    this.timer = setInterval(() => void this.turn(), TICK);
  }

  async close(): Promise<void> {
    if (this.timer) clearInterval(this.timer);
    await this.busy;
  }

  /** Lets all look who are due by now; one that was due several times looks once. */
  turn(): Promise<void> {
    this.busy ??= this.lookAll().finally(() => (this.busy = null));
    return this.busy;
  }

  /** Moves the clock ahead, and lets all look who would have looked by then. */
  async jump(by: number): Promise<void> {
    await this.busy;
    this.clock.jump(by);
    await this.turn();
  }

  private async lookAll(): Promise<void> {
    const now = this.clock.read();
    const due = this.followers.filter((f) => !f.stopped && f.next !== null && f.next <= now);
    for (const follower of due) await follower.look(now);
  }
}
