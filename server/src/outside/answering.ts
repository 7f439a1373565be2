import type { Request, Response } from 'express';
import { unknownKeyLimit } from '../http/limits';
import { traceOf } from '../http/trace';
import type { Counting, Fetched } from './counting';
import { lacksBrotli, sendDocument, withBrotli, type Document } from './document';
import type { Door, OpenDoor, Publisher } from './publisher';
import { refuse } from './refuse';

/** How requests at addresses with a key are answered, whatever they ask for. */
export interface Answering {
  /** Goes on where somebody named what nobody has; who did so many times is slowed down instead. */
  unlessMany(req: Request, res: Response, go: () => void, page?: boolean): void;
  /** Says why an address leads nowhere; who tries many that nobody has is slowed down. */
  refuseAt(req: Request, res: Response, door: Door | null, page?: boolean): void;
  count(req: Request, form: Fetched['form'], door: OpenDoor, held: string, looked?: true): void;
  /** Returns a route that answers with what is found for a key, and counts it. */
  opened(
    form: Fetched['form'],
    find: (token: string, req: Request) => Promise<Document | null>,
  ): (req: Request, res: Response) => Promise<void>;
}

/** Returns how requests are answered by what is published. */
export function answering(publisher: Publisher, counting: Counting, clock: () => number): Answering {
  const limit = unknownKeyLimit();

  const unlessMany: Answering['unlessMany'] = (req, res, go, page = false) =>
    limit(req, res, (error?: unknown) => (error ? refuse(req, res, 'many', page) : go()));

  const refuseAt: Answering['refuseAt'] = (req, res, door, page = false) => {
    if (door?.state === 'closed') refuse(req, res, 'closed', page, door.closing);
    else if (door) refuse(req, res, door.state === 'open' ? 'waiting' : door.state, page);
    else unlessMany(req, res, () => refuse(req, res, 'unknown', page), page);
  };

  const count: Answering['count'] = (req, form, door, held, looked) => {
    const { viewId, number } = door.shown;
    const { keyId } = door.place;
    const trace = traceOf(req);
    counting.note({ keyId, viewId, number, form, held, at: clock(), trace, ...(looked ? { looked } : {}) });
  };

  const opened: Answering['opened'] = (form, find) => async (req, res) => {
    const token = String(req.params['token']);
    const document = await find(token, req);
    if (document && lacksBrotli(req, document)) await withBrotli(document);
    // As it is now: what was asked for may have been withdrawn while it was written.
    const door = publisher.door(token);
    if (!document || door?.state !== 'open') return refuseAt(req, res, door, form === 'page');
    const held = req.headers['if-none-match'] ?? '';
    const { learns } = document;
    if (learns)
      count(
        req,
        form,
        door,
        learns.had === null ? held : heldOf(learns.had),
        learns.contents ? undefined : true,
      );
    sendDocument(req, res, document);
  };

  return { unlessMany, refuseAt, count, opened };
}

/** What a program holds that names a revision, as it would say it in If-None-Match. */
export function heldOf(number: number | null): string {
  return number === null ? '' : `"r${number}-"`;
}
