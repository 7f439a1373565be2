import { Problem } from '@zonal/core/problems';
import connectPgSimple from 'connect-pg-simple';
import type { NextFunction, Request, RequestHandler, Response } from 'express';
import session from 'express-session';
import { createHash, createHmac, randomBytes, timingSafeEqual } from 'node:crypto';
import pg from 'pg';
import type { Config } from '../config';
import { poolOptions } from '../db/connect';
import { UserRow } from '../db/models';
import { log } from '../log';
import { programOf } from './programs';

declare module 'express-session' {
  interface SessionData {
    userId: string;
    csrf: string;
    /** Instant of signing in. */
    since: number;
    /** Print of the password at that time: a session ends with the password that began it. */
    proof: string;
    /** The program that it was begun with, in words. */
    program: string;
  }
}

const DAY = 24 * 3600 * 1000;
/** A session that is not used ends after this, and any session at last. */
export const IDLE = 14 * DAY;
const LONGEST = 30 * DAY;

/** Returns the middleware that keeps sessions in PostgreSQL, and a function that ends its connections. */
export function sessions(config: Config): { middleware: RequestHandler; close: () => Promise<void> } {
  const pool = new pg.Pool(poolOptions(config.databaseUrl, 4));
  pool.on('error', (error) => log.warn({ err: error }, 'session store connection lost'));
  const Store = connectPgSimple(session);
  const store = new Store({
    pool,
    pruneSessionInterval: 3600,
    errorLog: (...args) => log.warn({ args }, 'session store'),
  });
  const middleware = session({
    store,
    name: 'zonal.sid',
    secret: config.sessionSecret,
    resave: false,
    saveUninitialized: false,
    cookie: {
      httpOnly: true,
      sameSite: 'lax',
      secure: config.publicUrl.startsWith('https:'),
      maxAge: IDLE,
    },
  });
  const close = async () => {
    store.close();
    await pool.end();
  };
  return { middleware, close };
}

/** Names a visitor before signing in; nothing is stored for it. */
const VISITOR = 'zonal.visitor';

function visitorOf(req: Request): string {
  const found = /(?:^|;\s*)zonal\.visitor=([\w-]{20,64})(?:;|$)/.exec(req.headers.cookie ?? '');
  return found?.[1] ?? '';
}

/** Who comes and goes: sessions of people who are signed in, and tokens of those who are not yet. */
export class Doorkeeper {
  constructor(private readonly config: Pick<Config, 'sessionSecret' | 'publicUrl'>) {}

  /** Returns the token that changing requests must carry: the session's, or before signing in the visitor's. */
  csrfToken(req: Request, res: Response): string {
    if (req.session.userId) return (req.session.csrf ??= randomBytes(24).toString('base64url'));
    let visitor = visitorOf(req);
    if (!visitor) {
      visitor = randomBytes(24).toString('base64url');
      const secure = this.config.publicUrl.startsWith('https:');
      res.cookie(VISITOR, visitor, { httpOnly: true, sameSite: 'lax', secure });
    }
    return this.tokenOf(visitor);
  }

  private tokenOf(visitor: string): string {
    return createHmac('sha256', this.config.sessionSecret).update(`csrf|${visitor}`).digest('base64url');
  }

  /** Lets a request that changes something through only with its CSRF token in `X-CSRF-Token`. */
  readonly checkCsrf = (req: Request, _res: Response, next: NextFunction): void => {
    if (['GET', 'HEAD', 'OPTIONS'].includes(req.method)) return next();
    const visitor = visitorOf(req);
    const expected = Buffer.from(req.session.csrf ?? (visitor && this.tokenOf(visitor)));
    const sent = Buffer.from(req.get('x-csrf-token') ?? '');
    const fits = expected.length > 0 && sent.length === expected.length && timingSafeEqual(sent, expected);
    next(fits ? undefined : new Problem('csrf-missing'));
  };

  /** Begins a session anew: an identifier known before it is worth nothing after. Throws `account-resting`. */
  async signIn(req: Request, user: UserRow): Promise<void> {
    if (user.restedAt) throw new Problem('account-resting');
    await done((then) => req.session.regenerate(then));
    req.session.userId = user.id;
    req.session.since = Date.now();
    req.session.proof = proofOf(user);
    req.session.program = programOf(req.get('user-agent'));
  }

  /** Keeps a session whose password was just changed by itself: all others of the account end. */
  async keepOn(req: Request, user: Pick<UserRow, 'passwordHash'>): Promise<void> {
    req.session.proof = proofOf(user);
    await done((then) => req.session.save(then));
  }

  async signOut(req: Request): Promise<void> {
    await done((then) => req.session.destroy(then));
  }

  /** Returns who is signed in, or null: a session ends with its time, with its password, and while an account is at rest. */
  async visitor(req: Request): Promise<UserRow | null> {
    const { userId, since, proof } = req.session;
    if (!userId) return null;
    const user = await UserRow.findByPk(userId);
    if (user && !user.restedAt && proof === proofOf(user) && Date.now() - (since ?? 0) < LONGEST) return user;
    await done((then) => req.session.regenerate(then));
    return null;
  }

  /** Returns who is signed in. Throws `not-signed-in`. */
  async userOf(req: Request): Promise<UserRow> {
    const user = await this.visitor(req);
    if (!user) throw new Problem('not-signed-in');
    return user;
  }

  /** Returns whether the session of an open stream still holds, signing out elsewhere included. */
  async stillSignedIn(req: Request, userId: string): Promise<boolean> {
    const { since, proof } = req.session;
    const stored = await new Promise<unknown>((resolve, reject) =>
      req.sessionStore.get(req.sessionID, (error: unknown, found) =>
        error ? reject(error as Error) : resolve(found),
      ),
    );
    const user = stored ? await UserRow.findByPk(userId) : null;
    return !!user && !user.restedAt && proof === proofOf(user) && Date.now() - (since ?? 0) < LONGEST;
  }
}

/** Returns a print of somebody's password as it is now. */
export function proofOf({ passwordHash }: Pick<UserRow, 'passwordHash'>): string {
  return createHash('sha256').update(passwordHash).digest('base64url').slice(0, 22);
}

const done = (act: (then: (error: unknown) => void) => void) =>
  new Promise<void>((resolve, reject) => act((error) => (error ? reject(error as Error) : resolve())));
