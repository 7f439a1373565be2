import { DAV_METHODS, davForbidden, type DavAsked } from '@zonal/core/forms';
import express, { Router, type NextFunction, type Request, type Response } from 'express';
import { addressesOf } from '../glass/addresses';
import type { Answering } from './answering';
import type { Publisher } from './publisher';
import { isReadable } from './reader';
import { DAV_CLASSES } from './syncToken';

/** No request of a program is longer. */
const LONGEST = '512kb';
const XML = 'application/xml; charset=utf-8';

/**
 * Returns the routes of windows as read-only CalDAV collections, `/dav/{key}/` (RFC 4791), and of how programs find them:
 * `/.well-known/caldav` (RFC 6764 section 5) leads to `/dav/`, where the key is given as the name or the password.
 */
export function davRoutes(publisher: Publisher, answers: Answering, publicUrl: string): Router {
  const router = Router({ strict: true });
  const { unlessMany, refuseAt, opened } = answers;

  router.all('/.well-known/caldav', (_req, res) => res.redirect(301, '/dav/'));
  router.use('/dav', (req, res, next) => (isReadable(req.path) ? next() : refuseAt(req, res, null)));
  router.use('/dav', express.text({ type: () => true, limit: LONGEST }));
  router.use('/dav', tooLong);

  router.all(['/dav', '/dav/'], async (req, res) => {
    if (req.method === 'OPTIONS') return offer(res);
    for (const token of keysGiven(req)) {
      const door = await publisher.opened(token);
      if (!door) continue;
      if (door.state !== 'open') return refuseAt(req, res, door);
      // What is asked here is answered as it is by the account of that collection.
      return ofAccount(token, req, res);
    }
    const ask = () =>
      void res
        .status(401)
        .set('WWW-Authenticate', 'Basic realm="calendar key", charset="UTF-8"')
        .type('text')
        .send(ASK);
    if (keysGiven(req).length) unlessMany(req, res, ask);
    else ask();
  });

  const find = (token: string, req: Request) => publisher.dav(token, { asked: askedBy(req) });
  const answer = opened('dav', find);
  const ofAccount = (token: string, req: Request, res: Response) => {
    req.params = { token, name: 'account/', at: req.path.endsWith('/') ? req.path : `${req.path}/` };
    return answer(req, res);
  };

  const at = (paths: string[], name: (req: Request) => string) =>
    router.all(paths, async (req, res) => {
      const token = String(req.params['token']);
      if (req.method === 'OPTIONS' || !isRead(req.method)) {
        const door = await publisher.opened(token);
        if (door?.state !== 'open') return refuseAt(req, res, door);
        if (req.method === 'OPTIONS') return offer(res);
        const { status, text } = davForbidden(req.path);
        return void res.status(status).set(HEADERS).type(XML).send(text);
      }
      req.params['name'] = name(req);
      if (isPerson(req) && !req.params['name']) {
        const door = await publisher.opened(token);
        if (door?.state !== 'open') return refuseAt(req, res, door, true);
        return void res.redirect(303, `${addressesOf(publicUrl, token).see}/follow`);
      }
      if (isGet(req) && !req.params['name']) return ofFeed(req, res);
      return answer(req, res);
    });
  /** Whoever fetches the collection itself gets all of it. */
  const ofFeed = opened('dav', (token) => publisher.document(token, 'feed'));
  at(['/dav/:token', '/dav/:token/'], () => '');
  for (const own of ['account', 'home']) at([`/dav/:token/${own}`, `/dav/:token/${own}/`], () => `${own}/`);
  at(['/dav/:token/:name'], (req) => String(req.params['name']));
  router.use('/dav', (req, res) => refuseAt(req, res, null));
  return router;
}

const HEADERS = { DAV: DAV_CLASSES, 'Cache-Control': 'no-cache', 'X-Robots-Tag': 'noindex, nofollow' };
const ASK =
  'This is the way in for calendar programs. Give the key of a calendar, which is the long word in its address, as the user name or as the password.\n';

function offer(res: Response): void {
  res.status(200).set(HEADERS).set('Allow', DAV_METHODS.join(', ')).set('Content-Length', '0').end();
}

function isGet({ method }: Request): boolean {
  return method === 'GET' || method === 'HEAD';
}

function isRead(method: string): boolean {
  return DAV_METHODS.some((one) => one === method);
}

/** Somebody has put the address of a collection into a browser: there a page tells what it is for. */
function isPerson(req: Request): boolean {
  return isGet(req) && (req.get('accept') ?? '').includes('text/html');
}

function askedBy(req: Request): DavAsked {
  return {
    method: isGet(req) ? 'GET' : (req.method as 'PROPFIND' | 'REPORT'),
    name: String(req.params['name']),
    ...(req.params['at'] ? { at: String(req.params['at']) } : {}),
    // A tree of one level: all of it is what is asked for where nothing is said (RFC 4918 section 9.1).
    deep: req.method === 'PROPFIND' && req.get('depth') !== '0',
    body: typeof req.body === 'string' ? req.body : '',
    minimal: /(^|[,;\s])return=minimal\b/i.test(req.get('prefer') ?? ''),
  };
}

/** Returns the words that may be a key in what a program gives as name and password (RFC 7617). */
function keysGiven(req: Request): string[] {
  const [, coded] = /^Basic ([\w+/=]{1,800})$/i.exec(req.get('authorization') ?? '') ?? [];
  if (!coded) return [];
  const text = Buffer.from(coded, 'base64').toString('utf8');
  const colon = text.indexOf(':');
  return [text.slice(0, colon), text.slice(colon + 1)].filter(Boolean);
}

/** A body that is too long, or in no encoding that is known, is refused here: nobody else has looked at it. */
function tooLong(
  error: { status?: number } | undefined,
  _req: Request,
  res: Response,
  next: NextFunction,
): void {
  if (!error?.status || error.status >= 500) return next(error);
  const text = error.status === 413 ? `A request may have ${LONGEST}.\n` : 'This could not be read.\n';
  res.status(error.status).set(HEADERS).type('text').send(text);
}
