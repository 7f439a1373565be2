import type { ClassConstructor } from 'class-transformer';
import type { Request, Response, Router } from 'express';
import type { UserRow } from '../db/models';
import { validated } from './validated';

export interface Call<B> {
  readonly req: Request;
  readonly res: Response;
  readonly body: B;
  readonly user: UserRow;
  /** Returns a part of the path. */
  readonly param: (name: string) => string;
}

export interface Route<B extends object = object> {
  readonly method: 'get' | 'post' | 'put' | 'patch' | 'delete';
  /** Path below /api, in Express's form. */
  readonly path: string;
  readonly summary: string;
  readonly tag: string;
  readonly body?: ClassConstructor<B>;
  readonly query?: Readonly<Record<string, string>>;
  /** Status of a good answer; 200 unless set. */
  readonly status?: number;
  /** Whether it can be called without signing in. */
  readonly open?: boolean;
  handle(call: Call<B>): Promise<unknown>;
}

/** Returns a route with the type of its body tied to its handler. */
export function route<B extends object>(r: Route<B>): Route {
  return r as unknown as Route;
}

/** Mounts routes: the body is validated, the answer is JSON. `userOf` throws unless somebody is signed in. */
export function mount(
  router: Router,
  routes: readonly Route[],
  userOf: (req: Request) => Promise<UserRow>,
): void {
  for (const r of routes) {
    router[r.method](r.path, async (req, res) => {
      const user = r.open ? (undefined as unknown as UserRow) : await userOf(req);
      const body = r.body ? validated(r.body, req.body) : (req.body as object);
      const param = (name: string) => String(req.params[name]);
      const answer = await r.handle({ req, res, body, user, param });
      if (!res.headersSent) {
        if (answer === undefined) res.status(204).end();
        else res.status(r.status ?? 200).json(answer);
      }
    });
  }
}
