import { FORMS, FORM_NAMES, QUERY_NAMES, type PageKind, type PageQuery } from '@zonal/core/forms';
import { Router, type NextFunction, type Request, type RequestHandler, type Response } from 'express';
import helmet from 'helmet';
import QRCode from 'qrcode';
import type { Config } from '../config';
import { addressesOf } from '../glass/windowStore';
import { unknownKeyLimit } from '../http/limits';
import { traceOf } from '../http/trace';
import type { Counting, Fetched } from './counting';
import { lacksBrotli, sendDocument, withBrotli, type Document } from './document';
import { embedRoute } from './embedRoute';
import { POLICY, acceptedBy, isReadable, pageHeaders, textIn } from './reader';
import { refuse } from './refuse';
import type { Door, OpenDoor, Publisher } from './publisher';
import { ENHANCED_GET, FEED_VARY, revisionIn, revisionOfToken, syncToken } from './syncToken';

const embedHeaders = (frameAncestors: readonly string[]) =>
  helmet({
    contentSecurityPolicy: {
      ...POLICY,
      directives: { ...POLICY.directives, frameAncestors: [...frameAncestors] },
    },
    xFrameOptions: false,
    crossOriginResourcePolicy: { policy: 'cross-origin' },
  });
const anywhere = embedHeaders(['*']);

/** Returns the routes of the outside pages and files, and of feeds that the poll path has left. */
export function outwardRoutes(
  publisher: Publisher,
  counting: Counting,
  { publicUrl, tryOut }: Pick<Config, 'publicUrl' | 'tryOut'>,
  clock: () => number = Date.now,
): Router {
  /** Some keys’ embeds stand in some sites only; in the house's own they can be looked at. */
  const framed: RequestHandler = (req, res, next) => {
    const hosts = publisher.hostsOf(String(req.params['token']));
    if (!hosts.length) return anywhere(req, res, next);
    return embedHeaders([...hosts, "'self'", ...(tryOut ? [tryOut] : [])])(req, res, next);
  };
  const router = Router();
  const limit = unknownKeyLimit();

  /** Says why an address leads nowhere; who tries many that nobody has is slowed down. */
  const refuseAt = (req: Request, res: Response, door: Door | null, page = false) => {
    if (door?.state === 'closed') refuse(req, res, 'closed', page, door.closing);
    else if (door) refuse(req, res, door.state === 'open' ? 'waiting' : door.state, page);
    else limit(req, res, (error?: unknown) => refuse(req, res, error ? 'many' : 'unknown', page));
  };

  const counted = (req: Request, form: Fetched['form'], door: OpenDoor, held: string) => {
    const { viewId, number } = door.shown;
    const { keyId } = door.place;
    counting.note({ keyId, viewId, number, form, held, at: clock(), trace: traceOf(req) });
  };

  const opened =
    (form: Fetched['form'], find: (token: string, req: Request) => Promise<Document | null>) =>
    async (req: Request, res: Response) => {
      const token = String(req.params['token']);
      const document = await find(token, req);
      if (document && lacksBrotli(req, document)) await withBrotli(document);
      // As it is now: what was asked for may have been withdrawn while it was written.
      const door = publisher.door(token);
      if (document && door?.state === 'open') {
        counted(req, form, door, req.headers['if-none-match'] ?? '');
        sendDocument(req, res, document);
      } else refuseAt(req, res, door, form === 'page');
    };

  /** Answers a program that asks only for what has changed since the revision that it holds, by the subscription upgrade. */
  const differing = async (req: Request, res: Response, next: NextFunction) => {
    if (!wantsDifference(req)) return next();
    const token = String(req.params['token']);
    const first = await publisher.opened(token);
    if (first?.state !== 'open') return refuseAt(req, res, first);
    const { viewId } = first.shown;
    const said = req.get('sync-token');
    const since = said === undefined ? null : (revisionOfToken(said, viewId) ?? 0);
    const told = first.place.moved ?? first.place.farewell;
    const current = since === first.shown.number && !told;
    const document = current
      ? null
      : await (since === null
          ? publisher.document(token, 'feed')
          : publisher.difference(token, viewId, since));
    const door = publisher.door(token);
    if (door?.state !== 'open' || (!document && !current)) return refuseAt(req, res, door);
    const number = document ? (revisionIn(document.identity.etag) ?? 0) : first.shown.number;
    res.set('Preference-Applied', ENHANCED_GET);
    // Nothing is held by whom it tells to ask for everything again.
    if (document?.status !== 409) {
      res.set('Sync-Token', syncToken(door.shown.viewId, number));
      counted(req, 'difference', door, since === null ? '' : `"r${since}-"`);
    }
    if (document) sendDocument(req, res, document);
    else res.status(304).set('Vary', FEED_VARY).end();
  };

  const page = (form: 'page' | 'embed', pageOf: (req: Request) => PageKind) =>
    opened('page', (token, req) => {
      const [query, accepted] = [queryOf(req), acceptedBy(req)];
      return publisher.page(token, { form, page: pageOf(req), query, accepted });
    });

  /** Whatever leads nowhere below these leads nowhere alike: nobody learns what is near to something. */
  const nowhere = (req: Request, res: Response) => {
    const headers = { see: pageHeaders, embed: anywhere }[req.baseUrl.slice(1)];
    if (headers) headers(req, res, () => refuseAt(req, res, null, true));
    else refuseAt(req, res, null);
  };
  router.use(FOLDERS, (req, res, next) => (isReadable(req.path) ? next() : nowhere(req, res)));

  for (const [folder, headers, form] of [
    ['see', pageHeaders, 'page'],
    ['embed', framed, 'embed'],
  ] as const) {
    const at = (below: string, pageOf: (req: Request) => PageKind) =>
      router.get(`/${folder}/:token${below}`, headers, page(form, pageOf));
    at('', () => ({ kind: 'days' }));
    at('/follow', () => ({ kind: 'follow' }));
    at('/settings', () => ({ kind: 'settings' }));
    if (folder === 'see') router.get('/see/:token/follow.svg', pageHeaders, codeOfFollow);
    at('/:entry', (req) => ({
      kind: 'entry',
      uid: String(req.params['entry']),
      on: textIn(req, 'on') ?? '',
    }));
  }

  async function codeOfFollow(req: Request, res: Response) {
    const token = String(req.params['token']);
    const door = await publisher.opened(token);
    if (door?.state !== 'open') return refuseAt(req, res, door);
    const address = `${addressesOf(publicUrl, token).see}/follow`;
    const svg = await QRCode.toString(address, { type: 'svg', margin: 2, errorCorrectionLevel: 'M' });
    res.set({ 'Cache-Control': 'no-cache', 'X-Robots-Tag': 'noindex, nofollow' }).type('svg').send(svg);
  }

  router.get(
    '/copy/:token/:entry.ics',
    opened('entry', (token, req) => {
      const entry = { uid: String(req.params['entry']), on: textIn(req, 'on') ?? '' };
      return publisher.entry(token, entry);
    }),
  );
  for (const form of FORM_NAMES) {
    const { folder, ending } = FORMS[form];
    // A copy is asked for without its ending too.
    const paths = [`/${folder}/:token.${ending}`, ...(folder === 'copy' ? [`/${folder}/:token`] : [])];
    if (form === 'feed') router.get(paths, differing);
    router.get(
      paths,
      opened(form, (token) => publisher.document(token, form)),
    );
  }
  router.use(FOLDERS, nowhere);
  router.get('/oembed', embedRoute(publisher, publicUrl, refuseAt));
  return router;
}

/** Whether a program asks only for what has changed (RFC 7240). */
function wantsDifference(req: Request): boolean {
  return (req.get('prefer') ?? '').split(/[,;]/).some((one) => one.trim().toLowerCase() === ENHANCED_GET);
}

const FOLDERS = ['/see', '/embed', '/feed', '/copy'];

/** What an address says of the page, as far as it is something that a page can be told. */
function queryOf(req: Request): PageQuery {
  return Object.fromEntries(
    QUERY_NAMES.flatMap((name) => {
      const value = textIn(req, name);
      return value === undefined ? [] : [[name, value.slice(0, LONGEST_VALUE)]];
    }),
  );
}

const LONGEST_VALUE = 200;
