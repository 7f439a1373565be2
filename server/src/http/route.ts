import { Problem } from '@zonal/core/problems';
import type { AnswerOf, BodyOf, CallName, PathPart, QueryOf } from '@zonal/core/api';
import type { ClassConstructor } from 'class-transformer';
import { CALL_RIGHTS, type HouseRights } from '@zonal/core/rights';
import { createHash } from 'node:crypto';
import type { Request, Response, Router } from 'express';
import type { UserRow } from '../db/models';
import type { DoneChange } from '../db/changes';
import { callNotes, type CallNotes, type Unconfirmed } from './callNotes';
import { validated } from './validated';

type Method = 'get' | 'post' | 'put' | 'delete';

/** A call as its route gets it. */
export interface Call<B = object, P extends string = string> {
  readonly req: Request;
  readonly res: Response;
  readonly body: B;
  readonly user: UserRow;
  /** What the user may do; routes that are open to anybody have none. */
  readonly rights: HouseRights;
  /** Returns a part of the path. */
  readonly param: (name: P) => string;
}

type CallOf<N extends CallName> = Call<BodyOf<N>, PathPart<N>>;

interface Setting {
  readonly summary: string;
  readonly tag: string;
  /** Status of a good answer; 200 unless set. */
  readonly status?: number;
  /** Types of the files that are sent as its body, which then is no JSON. */
  readonly upload?: readonly string[];
  /** The type of its answer where that is no JSON. */
  readonly sends?: string;
  /** Whether it can be called without signing in. */
  readonly open?: boolean;
}

/** What a route says of a call: the class that its body is checked by, and words for what can stand in its query. */
export type RouteOf<N extends CallName> = Setting & {
  handle(call: CallOf<N>): AnswerOf<N> | Promise<AnswerOf<N>>;
  /** The answer where the change was made before under the same id; what it came to unless set. */
  again?(call: CallOf<N>, result: unknown): AnswerOf<N> | Promise<AnswerOf<N>>;
} & (BodyOf<N> extends object ? { readonly body: ClassConstructor<BodyOf<N>> } : unknown) &
  (QueryOf<N> extends object ? { readonly query: Readonly<Record<keyof QueryOf<N>, string>> } : unknown);

export interface Route extends Setting {
  readonly name: CallName;
  readonly method: Method;
  /** Path below /api, in Express's form. */
  readonly path: string;
  readonly body?: ClassConstructor<object>;
  readonly query?: Readonly<Record<string, string>>;
  handle(call: Call): unknown;
  again?(call: Call, result: unknown): unknown;
}

/** Returns the route of a call, with body, query, path and answer as core says. */
export function route<N extends CallName>(name: N, setting: RouteOf<N>): Route {
  const [method, path] = name.split(' ') as [string, string];
  return { ...(setting as unknown as Route), name, method: method.toLowerCase() as Method, path };
}

export interface Desk {
  /** Returns who is signed in; throws unless somebody is. */
  readonly userOf: (req: Request) => Promise<UserRow>;
  /** Returns what somebody may do; throws unless they may make this call. */
  readonly guard: (
    asked: Pick<Call, 'param' | 'body'> & { readonly name: CallName },
    user: UserRow,
  ) => Promise<HouseRights>;
  /** Returns what was done before under the id of a change. */
  readonly doneBefore: (id: string, userId: string) => Promise<DoneChange | null>;
}

/** An id that a client gives a change, so that sending it again does it once. */
const CHANGE_ID = /^[\w-]{16,64}$/;

/** Mounts routes: the body is validated, the answer is JSON. */
export function mount(router: Router, routes: readonly Route[], desk: Desk): void {
  for (const r of routes) {
    const right = Object.hasOwn(CALL_RIGHTS, r.name) ? CALL_RIGHTS[r.name] : undefined;
    if (right === undefined || (right === 'anybody') !== (r.open ?? false))
      throw new Error(`Who may call ${r.name} is not said, or not as its route has it.`);
    router[r.method](r.path, async (req, res) => {
      const user = r.open ? (undefined as unknown as UserRow) : await desk.userOf(req);
      const body = r.body ? validated(r.body, req.body) : (req.body as object);
      const param = (name: string) => String(req.params[name]);
      const rights = r.open
        ? (undefined as unknown as HouseRights)
        : await desk.guard({ name: r.name, param, body }, user);
      const call: Call = { req, res, body, user, rights, param };
      const changeKey = r.open || r.method === 'get' ? null : changeKeyOf(req);
      const print = changeKey ? printOf(req) : '';
      const notes: CallNotes = { changeKey, userId: user?.id ?? null, print, unconfirmed: null };
      const answer = await callNotes.run(notes, async () => {
        const before = changeKey ? await desk.doneBefore(changeKey, user.id) : null;
        if (!before) return r.handle(call);
        if (before.print !== print) throw new Problem('change-id-taken');
        return r.again ? r.again(call, before.result) : (before.result ?? undefined);
      });
      if (res.headersSent) return;
      if (r.method === 'get' && !r.open) sendTagged(req, res, answer);
      else send(res, answer, r.status ?? 200, notes.unconfirmed);
    });
  }
}

/** Where not every server has confirmed a change, the answer is 202 and says so. */
function send(res: Response, answer: unknown, status: number, unconfirmed: Unconfirmed | null): void {
  if (unconfirmed) {
    const { servers, until } = unconfirmed;
    res.setHeader('X-Unconfirmed', `servers=${servers}; until=${until}`);
    const plain = typeof answer === 'object' && answer !== null && !Array.isArray(answer);
    res.status(202).json(answer === undefined || plain ? { ...(answer ?? {}), unconfirmed } : answer);
  } else if (answer === undefined) res.status(204).end();
  else res.status(status).json(answer);
}

/** Sends an answer with an ETag, or 304 if the client has it already (RFC 9110, section 13.1.2). */
function sendTagged(req: Request, res: Response, answer: unknown): void {
  const text = JSON.stringify(answer);
  // Weak: it may be compressed.
  const tag = `W/"${createHash('sha256').update(text).digest('base64url')}"`;
  res.setHeader('ETag', tag);
  // Browsers send "Cache-Control: no-cache" with a tag that a script has set; here that asks for no new answer.
  const held = (req.get('if-none-match') ?? '').split(',').map((one) => one.trim());
  if (held.includes(tag)) res.status(304).end();
  else res.type('json').send(text);
}

function changeKeyOf(req: Request): string | null {
  const sent = req.get('x-change-id');
  if (sent === undefined) return null;
  if (!CHANGE_ID.test(sent))
    throw new Problem('request-malformed', { reason: 'X-Change-Id is 16 to 64 letters, digits, _ and -' });
  return sent;
}

function printOf(req: Request): string {
  const body: unknown = req.body;
  const hash = createHash('sha256');
  // A file as JSON would be a text many times as long.
  if (Buffer.isBuffer(body)) hash.update(JSON.stringify([req.method, req.originalUrl])).update(body);
  else hash.update(JSON.stringify([req.method, req.originalUrl, body]));
  return hash.digest('base64url');
}
