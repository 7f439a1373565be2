import { Problem } from '@zonal/core/problems';
import connectPgSimple from 'connect-pg-simple';
import type { NextFunction, Request, RequestHandler, Response } from 'express';
import session from 'express-session';
import { randomBytes, timingSafeEqual } from 'node:crypto';
import pg from 'pg';
import type { Config } from '../config';
import { UserRow } from '../db/models';
import { log } from '../log';

declare module 'express-session' {
  interface SessionData {
    userId: string;
    csrf: string;
  }
}

/** Returns the middleware that keeps sessions in PostgreSQL, and a function that ends its connections. */
export function sessions(config: Config): { middleware: RequestHandler; close: () => Promise<void> } {
  const pool = new pg.Pool({ connectionString: config.databaseUrl, max: 4, connectionTimeoutMillis: 3000 });
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
      maxAge: 14 * 24 * 3600 * 1000,
    },
  });
  const close = async () => {
    store.close();
    await pool.end();
  };
  return { middleware, close };
}

/** Returns the session's CSRF token, made when first asked for. */
export function csrfToken(req: Request): string {
  req.session.csrf ??= randomBytes(24).toString('base64url');
  return req.session.csrf;
}

/** Lets a request that changes something through only with the session's CSRF token in `X-CSRF-Token`. */
export function checkCsrf(req: Request, _res: Response, next: NextFunction): void {
  if (['GET', 'HEAD', 'OPTIONS'].includes(req.method)) return next();
  const [sent, expected] = [req.get('x-csrf-token') ?? '', req.session.csrf ?? ''];
  const fits =
    expected !== '' &&
    sent.length === expected.length &&
    timingSafeEqual(Buffer.from(sent), Buffer.from(expected));
  next(fits ? undefined : new Problem('csrf-missing'));
}

/** Returns who is signed in. Throws `not-signed-in`. */
export async function userOf(req: Request): Promise<UserRow> {
  const user = req.session.userId ? await UserRow.findByPk(req.session.userId) : null;
  if (!user) throw new Problem('not-signed-in');
  return user;
}
