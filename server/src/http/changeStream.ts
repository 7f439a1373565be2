import type { Request, Response } from 'express';
import { route } from './route';

/** What changed inside, as open pages of the application are told: they fetch anew what concerns them. */
export interface ChangeNews {
  readonly calendarIds: readonly string[];
  readonly windowIds: readonly string[];
}

/** Keeps a connection from being cut as idle. */
const BEAT = 25_000;

/** The open event streams (Server-Sent Events) of people who are signed in. */
export class ChangeStream {
  private readonly open = new Set<Response>();
  private readonly beat = setInterval(() => this.write(': still here\n\n'), BEAT).unref();

  /** Adds a reader; the stream stays open until either side ends it. */
  add(req: Request, res: Response): void {
    res.writeHead(200, { 'Content-Type': 'text/event-stream', 'Cache-Control': 'no-store' });
    res.write(': hello\n\n');
    this.open.add(res);
    req.on('close', () => this.open.delete(res));
  }

  tell(news: ChangeNews): void {
    this.write(`event: change\ndata: ${JSON.stringify(news)}\n\n`);
  }

  close(): void {
    clearInterval(this.beat);
    for (const res of this.open) res.end();
  }

  private write(text: string): void {
    for (const res of this.open) res.write(text);
  }
}

/** The stream's route: it answers at once and stays open. */
export const changeRoute = (stream: ChangeStream) =>
  route({
    method: 'get',
    path: '/changes',
    tag: 'Changes',
    summary: 'Server-Sent Events: which calendars and windows somebody has just changed',
    handle: async ({ req, res }) => stream.add(req, res),
  });
