import {
  FORMS,
  FORM_NAMES,
  QUERY_NAMES,
  formAt,
  type Form,
  type PageKind,
  type PageQuery,
} from '@zonal/core/forms';
import { Router, type Request, type RequestHandler, type Response } from 'express';
import helmet from 'helmet';
import QRCode from 'qrcode';
import type { Config } from '../config';
import { addressesOf } from '../glass/addresses';
import type { Answering } from './answering';
import { differing } from './differing';
import { embedRoute } from './embedRoute';
import { POLICY, acceptedBy, isReadable, pageHeaders, textIn } from './reader';
import type { Publisher } from './publisher';

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
  answers: Answering,
  { publicUrl, tryOut }: Pick<Config, 'publicUrl' | 'tryOut'>,
): Router {
  /** Some keys’ embeds stand in some sites only; in the house's own they can be looked at. */
  const framed: RequestHandler = (req, res, next) => {
    const hosts = publisher.hostsOf(String(req.params['token']));
    if (!hosts.length) return anywhere(req, res, next);
    return embedHeaders([...hosts, "'self'", ...(tryOut ? [tryOut] : [])])(req, res, next);
  };
  const router = Router();
  const { refuseAt, opened } = answers;

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
  router.use(FOLDERS, (req, res, next) => (req.method === 'OPTIONS' ? offerReading(req, res) : next()));
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
    if (folder === 'see') at('/notices', () => ({ kind: 'notices' }));
    if (folder === 'see') {
      router.get('/see/:token/follow.svg', pageHeaders, codeOfFollow);
      router.get(
        '/see/:token/image/:name.webp',
        opened('entry', (token, req) => publisher.image(token, { name: String(req.params['name']) })),
      );
    }
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
    if (form === 'feed') router.get(paths, differing(publisher, answers));
    router.get(
      paths,
      opened(form, (token) => publisher.document(token, form)),
    );
  }
  router.use(FOLDERS, nowhere);
  router.get('/oembed', embedRoute(publisher, publicUrl, refuseAt));
  return router;
}

const FOLDERS = ['/see', '/embed', '/feed', '/copy'];

const READING = 'GET, HEAD, OPTIONS';
/** Scripts of other sites may read the forms that are made for them, and ask whether they changed. */
const PREFLIGHT = {
  'Access-Control-Allow-Origin': '*',
  'Access-Control-Allow-Methods': READING,
  'Access-Control-Allow-Headers': 'If-None-Match, If-Modified-Since',
  'Access-Control-Max-Age': '86400',
};

/** Answers OPTIONS (RFC 9110 section 9.3.7), in the same way whether or not there is anything at an address. */
function offerReading({ baseUrl, path }: Request, res: Response): void {
  const form = formAt(baseUrl.slice(1) as Form['folder'], path.slice(path.lastIndexOf('.') + 1));
  const isShared = form !== null && FORMS[form].shared;
  res.status(204).set({ Allow: READING, ...(isShared ? PREFLIGHT : {}) });
  res.end();
}

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
