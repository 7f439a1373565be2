import type { ChangeNews } from '@zonal/core/api';
import { Problem } from '@zonal/core/problems';
import type { Request, Response } from 'express';
import { log } from '../log';
import { route } from './route';

/** Keeps a connection from being cut as idle; whoever is no longer signed in is cut off then. */
const BEAT = 5_000;
/** Open pages of one person. */
const MOST_A_PERSON = 12;
/** What a reader has not taken in yet may grow so far; then it is cut off, and reads anew when it comes back. */
const MOST_WAITING = 256 * 1024;

interface Reader {
  readonly userId: string;
  /** Whether it may go on reading. */
  readonly allowed: () => Promise<boolean>;
}

/** The open event streams (Server-Sent Events) of people who are signed in. */
export class ChangeStream {
  private readonly open = new Map<Response, Reader>();
  private readonly beat = setInterval(() => void this.look(), BEAT).unref();

  /** Adds a reader; the stream stays open until either side ends it. Throws `too-many-streams`. */
  add(req: Request, res: Response, reader: Reader): void {
    const own = [...this.open.values()].filter((r) => r.userId === reader.userId);
    if (own.length >= MOST_A_PERSON) throw new Problem('too-many-streams', { most: MOST_A_PERSON });
    res.writeHead(200, { 'Content-Type': 'text/event-stream', 'Cache-Control': 'no-store' });
    res.write(': hello\n\n');
    this.open.set(res, reader);
    const gone = () => this.open.delete(res);
    req.on('close', gone);
    res.on('error', gone);
  }

  tell(news: ChangeNews): void {
    this.write(`event: change\ndata: ${JSON.stringify(news)}\n\n`);
  }

  close(): void {
    clearInterval(this.beat);
    for (const res of this.open.keys()) res.end();
  }

  private async look(): Promise<void> {
    this.write(': still here\n\n');
    for (const [res, { allowed }] of [...this.open]) {
      try {
        if (!(await allowed())) this.cut(res);
      } catch (error) {
        // The store is away: nothing is told meanwhile that was not allowed before.
        log.debug({ err: error }, 'a reader of the stream could not be looked up');
      }
    }
  }

  private write(text: string): void {
    for (const res of this.open.keys()) {
      if (res.writableLength > MOST_WAITING) this.cut(res);
      else res.write(text);
    }
  }

  private cut(res: Response): void {
    this.open.delete(res);
    res.destroy();
  }
}

/** The stream's route: it answers at once and stays open. `stillSignedIn` tells whether a session still holds. */
export const changeRoute = (
  stream: ChangeStream,
  stillSignedIn: (req: Request, userId: string) => Promise<boolean>,
) =>
  route('GET /changes', {
    tag: 'Changes',
    summary: 'Server-Sent Events: which calendars and windows somebody has just changed',
    handle: async ({ req, res, user }) =>
      stream.add(req, res, { userId: user.id, allowed: () => stillSignedIn(req, user.id) }),
  });
