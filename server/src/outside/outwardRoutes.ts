import { FORMS, FORM_NAMES, dayText, plainPage, type PageQuery } from '@zonal/core/forms';
import { dayAt } from '@zonal/core/zones';
import { Router, type NextFunction, type Request, type Response } from 'express';
import helmet from 'helmet';
import { unknownKeyLimit } from '../http/limits';
import { sendDocument, type Document } from './document';
import type { KeyUses } from './keyUses';
import { embedRoute } from './embedRoute';
import type { WindowPlace } from './outside';
import type { Door, Publisher } from './publisher';

const POLICY = {
  useDefaults: false,
  directives: {
    defaultSrc: ["'none'"],
    styleSrc: ["'self'"],
    scriptSrc: ["'self'"],
    fontSrc: ["'self'"],
    imgSrc: ["'self'"],
    formAction: ["'self'"],
    baseUri: ["'none'"],
  },
};

/** Only the embed may stand inside another site. */
const pageHeaders = helmet({
  contentSecurityPolicy: { ...POLICY, directives: { ...POLICY.directives, frameAncestors: ["'none'"] } },
});
const embedHeaders = helmet({
  contentSecurityPolicy: { ...POLICY, directives: { ...POLICY.directives, frameAncestors: ['*'] } },
  xFrameOptions: false,
  crossOriginResourcePolicy: { policy: 'cross-origin' },
});

/** Returns the routes of the outside pages and files, and of feeds that the poll path has left. */
export function outwardRoutes(
  publisher: Publisher,
  uses: KeyUses,
  publicUrl: string,
  clock: () => number = Date.now,
): Router {
  const router = Router();
  const limit = unknownKeyLimit();

  /** Says why an address leads nowhere; who tries many that nobody has is slowed down. */
  const refuseAt = (req: Request, res: Response, next: NextFunction, door: Door | null, page = false) => {
    if (door?.state === 'closed') refuse(res, 'closed', page, closedWords(door.closing));
    else if (door) refuse(res, door.state === 'open' ? 'waiting' : door.state, page);
    else limit(req, res, (error?: unknown) => (error ? next(error) : refuse(res, 'unknown', page)));
  };

  const opened =
    (find: (token: string, req: Request) => Promise<Document | null>, page: boolean) =>
    async (req: Request, res: Response, next: NextFunction) => {
      const token = String(req.params['token']);
      const document = await find(token, req);
      // As it is now: what was asked for may have been withdrawn while it was written.
      const door = publisher.door(token);
      if (document && door?.state === 'open') {
        uses.note(door.place.keyId, door.shown.number, clock());
        sendDocument(req, res, document);
      } else refuseAt(req, res, next, door, page);
    };

  const page = (form: 'page' | 'embed') =>
    opened((token, req) => publisher.page(token, form, queryOf(req)), true);

  router.get('/see/:token', pageHeaders, page('page'));
  router.get('/embed/:token', embedHeaders, page('embed'));
  for (const form of FORM_NAMES) {
    const { folder, ending } = FORMS[form];
    // A copy is asked for without its ending too.
    const paths = [`/${folder}/:token.${ending}`, ...(folder === 'copy' ? [`/${folder}/:token`] : [])];
    router.get(
      paths,
      opened((token) => publisher.document(token, form), false),
    );
  }
  router.get('/oembed', embedRoute(publisher, publicUrl, refuseAt));
  return router;
}

function queryOf(req: Request): PageQuery {
  const one = (name: string) => {
    const value = req.query[name];
    return typeof value === 'string' ? value : undefined;
  };
  return { show: one('show'), from: one('from'), tz: one('tz'), theme: one('theme'), lang: one('lang') };
}

const REFUSALS = {
  unknown: {
    status: 404,
    title: 'There is no window here',
    say: 'This address leads nowhere. Check that it is complete, or ask whoever gave it to you for a new one.',
  },
  closed: {
    status: 410,
    title: 'This window is closed',
    say: 'The calendar that was shown here is no longer published. Ask whoever gave you the address.',
  },
  expired: {
    status: 410,
    title: 'This address has ended',
    say: 'It was open until a set day. Ask whoever gave it to you for a new one.',
  },
  withdrawn: {
    status: 410,
    title: 'This address was withdrawn',
    say: 'It leads nowhere any more. Ask whoever gave it to you for a new one.',
  },
  turned: {
    status: 410,
    title: 'This address was replaced',
    say: 'A new one has taken its place. Ask whoever gave it to you for it.',
  },
  stopped: {
    status: 503,
    title: 'Not shown just now',
    say: 'What this calendar shows is being put in order. Try again in a while.',
  },
  unheard: {
    status: 503,
    title: 'Not shown just now',
    say: 'It cannot be told just now whether this calendar is up to date. Try again in a while.',
  },
  waiting: {
    status: 503,
    title: 'One moment',
    say: 'This calendar is just being prepared. Try again in a few seconds.',
  },
} as const;

/** Says since when a window is closed, and whom to ask. */
function closedWords({ at, zone, contact }: WindowPlace['closing']): string {
  const since = at === null ? '' : ` since ${dayText(dayAt(zone, at))}`;
  const ask = contact ? `Questions: ${contact}` : 'Ask whoever gave you the address.';
  return `The calendar that was shown here is no longer published${since}. ${ask}`;
}

function refuse(res: Response, why: keyof typeof REFUSALS, page: boolean, more: string | null = null): void {
  const { status, title } = REFUSALS[why];
  const say = more ?? REFUSALS[why].say;
  if (status === 503) res.set('Retry-After', '5');
  res.status(status).set({ 'X-Robots-Tag': 'noindex, nofollow', 'Cache-Control': 'no-cache' });
  if (page) res.type('html').send(plainPage(title, say));
  else res.type('text').send(`${title}. ${say}\n`);
}
