import type { NextFunction, Request, RequestHandler, Response } from 'express';
import { heldOf, type Answering } from './answering';
import { sendDocument, sendUnchanged } from './document';
import type { Publisher } from './publisher';
import { ENHANCED_GET, NOTHING_HELD, revisionIn, revisionOfToken, syncToken } from './syncToken';

/**
 * Returns a route that answers programs which ask only for what has changed since the revision that they hold, by the
 * subscription upgrade (IETF calext draft); all others are left to the next one.
 */
export function differing(publisher: Publisher, { refuseAt, count }: Answering): RequestHandler {
  return async (req: Request, res: Response, next: NextFunction) => {
    if (!wantsDifference(req)) return next();
    const token = String(req.params['token']);
    const first = await publisher.opened(token);
    if (first?.state !== 'open') return refuseAt(req, res, first);
    const { viewId } = first.shown;
    const said = req.get('sync-token');
    const held = said === undefined ? null : (revisionOfToken(said, viewId) ?? NOTHING_HELD);
    const since = held && held.number;
    const told = first.place.moved ?? first.place.farewell;
    const isNewest = since === first.shown.number && held?.fingerprint === first.shown.fingerprint;
    const current = isNewest && !told;
    // A 304 has the ETag that the whole feed has (RFC 9110 section 15.4.5).
    let document = await (held === null || current
      ? publisher.document(token, 'feed')
      : publisher.difference(token, viewId, held));
    // It may have changed meanwhile.
    const isUnchanged = current && document !== null && revisionIn(document.identity.etag) === since;
    if (current && !isUnchanged) document = await publisher.difference(token, viewId, held!);
    const door = publisher.door(token);
    if (door?.state !== 'open' || !document) return refuseAt(req, res, door);
    const number = revisionIn(document.identity.etag) ?? 0;
    res.set('Preference-Applied', ENHANCED_GET);
    // Nothing is held by whom it tells to ask for everything again.
    if (document.status !== 409) {
      // It may have changed once more: without a token everything is asked for again.
      if (door.shown.number === number) res.set('Sync-Token', syncToken(door.shown.viewId, door.shown));
      count(req, 'difference', door, heldOf(since));
    }
    if (isUnchanged) sendUnchanged(req, res, document);
    else sendDocument(req, res, document);
  };
}

/** Whether a program asks only for what has changed (RFC 7240). */
function wantsDifference(req: Request): boolean {
  return (req.get('prefer') ?? '').split(/[,;]/).some((one) => one.trim().toLowerCase() === ENHANCED_GET);
}
