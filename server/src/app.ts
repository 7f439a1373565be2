import { Problem } from '@zonal/core/problems';
import compression from 'compression';
import packed from 'express-static-gzip';
import express, { Router, type Express, type Request, type Response } from 'express';
import helmet from 'helmet';
import { randomBytes } from 'node:crypto';
import { existsSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { pinoHttp } from 'pino-http';
import type { IncomingMessage, ServerResponse } from 'node:http';
import { doneChange } from './db/changes';
import { changeRoute, type ChangeStream } from './http/changeStream';
import { calendarRoutes } from './inside/calendarRoutes';
import type { Config } from './config';
import { demoRoute } from './demoRoute';
import { directoryRoutes } from './inside/directoryRoutes';
import { entryRoutes } from './inside/entryRoutes';
import { InsideViews } from './inside/insideViews';
import { NewsCutter } from './inside/newsCutter';
import { editRoutes } from './inside/editRoutes';
import { imageRoutes, readImage } from './inside/imageRoutes';
import { houseRoutes } from './glass/houseRoutes';
import { ownFeeds } from './glass/ownFeeds';
import { answerProblem } from './http/errors';
import { forgottenLimit, ownPasswordLimit, passLimit, pushTestLimit, signInLimit } from './http/limits';
import { answersIn, openApi } from './http/openApi';
import { STRICT_POLICY, WORKER_POLICY } from './http/policy';
import { mount } from './http/route';
import { SERIALIZERS, log } from './log';
import { boardRoutes } from './outside/boardRoutes';
import { answering } from './outside/answering';
import { davRoutes } from './outside/davRoutes';
import { outwardRoutes } from './outside/outwardRoutes';
import { keyRoutes } from './outside/keyRoutes';
import { sheetPages } from './outside/sheetPages';
import { sheetRoutes } from './outside/sheetRoutes';
import type { Counting } from './outside/counting';
import type { Publisher } from './outside/publisher';
import { accountRoutes } from './people/accountRoutes';
import { guard } from './people/guard';
import { invitationRoutes } from './people/invitationRoutes';
import { journalRoutes } from './people/journalRoutes';
import { passRoutes } from './people/passRoutes';
import { peopleRoutes } from './people/peopleRoutes';
import { Doorkeeper, sessions } from './people/session';
import { sessionRoutes } from './people/sessionRoutes';
import { ceilingRoutes } from './glass/ceilingRoutes';
import { labelRoutes } from './glass/labelRoutes';
import { ledgerRoutes } from './glass/ledgerRoutes';
import type { Publishing } from './glass/publishWindow';
import { mailServerNow } from './post/mailer';
import type { Noticing } from './post/notices';
import { noticePages } from './post/noticePages';
import { postRoutes } from './post/postRoutes';
import { pushRoutes } from './reach/pushRoutes';
import type { PushSetting } from './reach/pushStore';
import { reachRoutes } from './reach/reachRoutes';
import { windowRoutes } from './glass/windowRoutes';

/** What every application of this server begins with. */
function bareApp(proxies: number): Express {
  const app = express();
  app.disable('x-powered-by');
  app.disable('etag');
  app.set('trust proxy', proxies);
  app.set('query parser', 'simple');
  app.use((_req, res, next) => {
    res.setHeader('X-Content-Type-Options', 'nosniff');
    // What is a page says more; nothing else may run or load anything, or stand in a frame.
    res.setHeader('Content-Security-Policy', STRICT_POLICY);
    next();
  });
  app.use(
    pinoHttp({
      logger: log,
      // Else it puts its own in their place, which note every header.
      serializers: SERIALIZERS,
      wrapSerializers: false,
      autoLogging: { ignore: (req) => req.url === '/healthz' || req.url === '/livez' },
      useLevel: 'debug',
    }),
  );
  return app;
}

/**
 * Returns the Express application for what outsiders ask for, except warm polls; everything else goes to `desk`. `health`
 * returns one line for each part of the server that cannot do its work now.
 */
export function outsideApp(
  config: Config,
  publisher: Publisher,
  counting: Counting,
  desk: (req: IncomingMessage, res: ServerResponse) => void,
  health: () => Promise<readonly string[]>,
): Express {
  const app = bareApp(config.proxies);
  // Whether the process lives; whether it is fit to be sent readers is another question.
  app.get('/livez', (_req, res) => {
    res.type('text').send('alive\n');
  });
  app.get('/healthz', async (_req, res) => {
    const lines = await health();
    res
      .status(lines.length ? 503 : 200)
      .type('text')
      .set('Cache-Control', 'no-store');
    res.send(lines.length ? `not ready\n${lines.join('\n')}\n` : 'ready\n');
  });
  app.use(
    '/outside',
    packed(config.outsideFolder, {
      ...PACKED,
      serveStatic: {
        maxAge: '1h',
        setHeaders: (res) => {
          // Embeds and previews have an origin of their own.
          res.setHeader('Access-Control-Allow-Origin', '*');
        },
      },
    }),
  );
  const answers = answering(publisher, counting, Date.now);
  app.use(outwardRoutes(publisher, answers, config));
  app.use(davRoutes(publisher, answers, config.publicUrl));
  app.use(boardRoutes(publisher, config.publicUrl));
  app.use((req, res) => {
    // It sets its own headers.
    res.removeHeader('X-Content-Type-Options');
    res.removeHeader('Content-Security-Policy');
    desk(req, res);
  });
  app.use(answerProblem);
  return app;
}

/** Files are sent as the build compressed them, in the encoding that the reader likes best. */
const PACKED = { enableBrotli: true, orderPreference: ['br', 'gz'] };

/** Returns the Express application of the organisers' side, and a function that ends its connections. */
export function deskApp(
  config: Config,
  publishing: Publishing,
  stream: ChangeStream,
  noticing: Noticing,
  push: PushSetting,
): { app: Express; close: () => Promise<void> } {
  // The thread that answers readers stands in front as one more proxy.
  const app = bareApp(config.proxies + 1);
  const { middleware, close } = sessions(config);
  app.use('/api', api(config, publishing, stream, noticing, push, middleware));
  app.use(sheetPages(publishing));
  app.use(noticePages(noticing, () => maySendMail(config)));
  if (config.webFolder) app.use(webApplication(config.webFolder, config.tryOut));
  app.use((_req, _res, next) => next(new Problem('not-found')));
  app.use(answerProblem);
  return { app, close };
}

async function maySendMail({ mailServer }: Config): Promise<boolean> {
  return (await mailServerNow(mailServer)) !== null;
}

function api(
  config: Config,
  publishing: Publishing,
  stream: ChangeStream,
  { outbox, shownAt }: Noticing,
  push: PushSetting,
  session: express.RequestHandler,
): Router {
  const { sequelize, change } = publishing;
  const door = new Doorkeeper(config);
  const views = new InsideViews();
  const { publicUrl } = config;
  const feedsOf = (userId: string) => ownFeeds(userId, publicUrl);
  const mayMail = () => maySendMail(config);
  const visit = { ...config, mayMail };
  const account = { sequelize, change, publicUrl, outbox, mayMail, feedsOf };
  const routes = [
    ...sessionRoutes(sequelize, door, visit),
    ...passRoutes(door, visit, account),
    ...accountRoutes(door, account),
    ...invitationRoutes(account),
    ...postRoutes(change, outbox, config.mailServer),
    ...calendarRoutes(sequelize, change, views),
    ...peopleRoutes(change),
    ...journalRoutes(sequelize),
    ...directoryRoutes(change, publicUrl, outbox),
    ...entryRoutes(sequelize, change, views),
    ...editRoutes(sequelize, change),
    ...imageRoutes(sequelize, views),
    ...houseRoutes(change),
    changeRoute(
      stream,
      (req, userId) => door.stillSignedIn(req, userId),
      (userId) => new NewsCutter(userId, views),
    ),
    ...windowRoutes(publishing),
    ...keyRoutes(publishing),
    ...sheetRoutes(publishing),
    ...ledgerRoutes,
    ...reachRoutes(sequelize, change, outbox, publicUrl, mayMail),
    ...pushRoutes(change, shownAt, push),
    ...ceilingRoutes(publishing, outbox),
    ...labelRoutes(sequelize, change, views),
    ...(config.demoAccounts ? [demoRoute(config.demoAccounts, sequelize, publicUrl)] : []),
  ];
  const router = Router();
  router.use(helmet(), (_req, res, next) => {
    res.setHeader('Cache-Control', 'no-store');
    next();
  });
  router.get('/openapi.json', (_req, res) => {
    res.json(openApi(routes, config.publicUrl, answersIn(config.answersFile)));
  });
  router.use(compression({ filter: mayCompress }));
  router.use(session, door.checkCsrf);
  router.use(express.json({ limit: '2mb' }));
  // Nobody who is not signed in makes the server read a large file.
  router.post(
    '/calendars/:id/images',
    (req, _res, next) => door.userOf(req).then(() => next(), next),
    readImage(),
  );
  router.post('/session', signInLimit());
  router.post('/forgotten', ...forgottenLimit());
  router.post('/keys/:id/push/test', pushTestLimit());
  router.post(['/passes', '/passes/{*kind}'], passLimit());
  router.use(['/account/password', '/account/address'], ownPasswordLimit());
  mount(router, routes, {
    userOf: (req) => door.userOf(req),
    guard,
    doneBefore: (id, userId) => doneChange(sequelize, id, userId),
  });
  return router;
}

/**
 * Returns whether an answer of the API may be compressed. Not those with the session's token: their length must not depend on
 * what else is in them. Not the stream of changes: each change is sent at once.
 */
function mayCompress(req: Request, res: Response): boolean {
  return !/^\/(session|passes|changes)(\/|$)/.test(req.path) && compression.filter(req, res);
}

/** Serves the built organiser's application; every other path of it gets its one page, with a nonce for styles. */
function webApplication(folder: string, tryOut: string): Router {
  const router = Router();
  /** Addresses that are not the application's own, though nothing is there. */
  const elsewhere = /^\/(api|see|embed|feed|copy|dav|links|notices|board|oembed|outside)(\/|$)/;
  const file = join(folder, 'index.html');
  if (!existsSync(file)) throw new Error(`There is no ${file}. Build the application first.`);
  const template = readFileSync(file, 'utf8');
  const serveStatic = {
    maxAge: '1y',
    immutable: true,
    // A worker obeys the policy that its own script comes with.
    setHeaders: (res: ServerResponse) => {
      res.setHeader('Content-Security-Policy', WORKER_POLICY);
    },
  } as const;
  // The page itself is no file among them: it would go out without its policy.
  router.use('/assets', packed(join(folder, 'assets'), { ...PACKED, index: false, serveStatic }));
  router.get('/mark.svg', (_req, res) => {
    res.sendFile('mark.svg', { root: folder, maxAge: '1d' });
  });
  router.get('/{*path}', (req, res, next) => {
    if (elsewhere.test(req.path) || /\.\w+$/.test(req.path)) return next();
    const nonce = randomBytes(16).toString('base64');
    helmet({
      contentSecurityPolicy: {
        useDefaults: false,
        directives: {
          defaultSrc: ["'self'"],
          styleSrc: ["'self'", `'nonce-${nonce}'`],
          imgSrc: ["'self'", 'data:'],
          frameSrc: ["'self'", ...(tryOut ? [tryOut] : [])],
          objectSrc: ["'none'"],
          baseUri: ["'none'"],
          formAction: ["'self'"],
          frameAncestors: ["'none'"],
        },
      },
    })(req, res, () => {
      res.type('html').set('Cache-Control', 'no-cache').send(template.replaceAll('__NONCE__', nonce));
    });
  });
  return router;
}
