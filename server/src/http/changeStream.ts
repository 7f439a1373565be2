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

/** Tells one person of what they may know. */
export interface Cutter {
  /** Notes how everything is: what changes from here on is told. */
  begin(): Promise<void>;
  /** Returns what is told of some news, or null for nothing. */
  cut(news: ChangeNews): Promise<ChangeNews | null>;
}

interface Reader {
  readonly userId: string;
  readonly cutter: Cutter;
  /** Whether it may go on reading. */
  readonly allowed: () => Promise<boolean>;
}

/** A reader with what is being told to them, and the news that wait until that is done. */
interface OpenReader extends Reader {
  turn: Promise<void>;
  waiting: ChangeNews | null;
}

function together(a: ChangeNews, b: ChangeNews): ChangeNews {
  const both = (x: readonly string[], y: readonly string[]) => [...new Set([...x, ...y])];
  return {
    calendarIds: both(a.calendarIds, b.calendarIds),
    windowIds: both(a.windowIds, b.windowIds),
  };
}

/** The open event streams (Server-Sent Events) of people who are signed in. */
export class ChangeStream {
  private readonly open = new Map<Response, OpenReader>();
  private readonly beat = setInterval(() => void this.look(), BEAT).unref();

  /** Adds a reader; the stream stays open until either side ends it. Throws `too-many-streams`. */
  add(req: Request, res: Response, reader: Reader): void {
    const own = [...this.open.values()].filter((r) => r.userId === reader.userId);
    if (own.length >= MOST_A_PERSON) throw new Problem('too-many-streams', { most: MOST_A_PERSON });
    res.writeHead(200, { 'Content-Type': 'text/event-stream', 'Cache-Control': 'no-store' });
    const turn = this.inTurn(res, Promise.resolve(), async () => {
      await reader.cutter.begin();
      if (this.open.has(res)) res.write(': hello\n\n');
    });
    this.open.set(res, { ...reader, turn, waiting: null });
    const gone = () => this.open.delete(res);
    req.on('close', gone);
    res.on('error', gone);
  }

  tell(news: ChangeNews): void {
    for (const [res, reader] of this.open) {
      const { waiting } = reader;
      reader.waiting = waiting ? together(waiting, news) : news;
      // What comes while the last is being cut goes along with what waits already.
      if (!waiting) reader.turn = this.inTurn(res, reader.turn, () => this.tellOne(res, reader));
    }
  }

  private async tellOne(res: Response, reader: OpenReader): Promise<void> {
    const news = reader.waiting!;
    reader.waiting = null;
    const told = await reader.cutter.cut(news);
    if (told && this.open.has(res)) this.writeTo(res, `event: change\ndata: ${JSON.stringify(told)}\n\n`);
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

  /** Whoever cannot be told what they may know is cut off: they read anew when they come back. */
  private inTurn(res: Response, before: Promise<void>, work: () => Promise<void>): Promise<void> {
    return before.then(work).catch((error: unknown) => {
      log.debug({ err: error }, 'a reader of the stream could not be told');
      this.cut(res);
    });
  }

  private write(text: string): void {
    for (const res of this.open.keys()) this.writeTo(res, text);
  }

  private writeTo(res: Response, text: string): void {
    if (res.writableLength > MOST_WAITING) this.cut(res);
    else res.write(text);
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
  cutterFor: (userId: string) => Cutter,
) =>
  route('GET /changes', {
    tag: 'Changes',
    summary:
      'Server-Sent Events: which calendars and windows somebody has just changed, as far as the asker sees it',
    handle: async ({ req, res, user }) =>
      stream.add(req, res, {
        userId: user.id,
        cutter: cutterFor(user.id),
        allowed: () => stillSignedIn(req, user.id),
      }),
  });
