import { HeldAnswers } from './heldAnswers';
import type { AnswerOf, ApiProblem, BodyOf, CallName, PathPart, QueryOf } from '@zonal/core/api';
import { t } from '../texts/base';
import { LANGUAGE } from '../texts/language';

/** What a call is sent with: the parts of its path, its query and its body, as far as it has them. */
export type Sent<N extends CallName> = ([PathPart<N>] extends [never]
  ? unknown
  : { readonly path: Readonly<Record<PathPart<N>, string | number>> }) &
  (QueryOf<N> extends object ? { readonly query: QueryOf<N> } : unknown) &
  (BodyOf<N> extends object ? { readonly body: BodyOf<N> } : unknown);

/** A call that is ready to be sent. */
export interface Asking {
  readonly name: CallName;
  readonly path?: Readonly<Record<string, string | number>>;
  readonly query?: object;
  readonly body?: object;
  /** A file that is sent as the body. */
  readonly file?: Blob;
}

/** Why a call was refused, with the HTTP status of the answer; 0 if there was no answer. */
export interface CallProblem extends ApiProblem {
  readonly status: number;
}

/** What came of a call: its answer with the headers that stood above it, or why it was refused. */
export type Reply =
  | { readonly answer: unknown; readonly headers: Headers }
  | { readonly problem: CallProblem; readonly lost: boolean };

const answers = new HeldAnswers();

const AWAY = t('noAnswer');

/** Returns a problem for what is no answer of the API: `lost` where nobody knows what became of the call. */
function unanswered(status: number, lost: boolean): Reply {
  return { problem: { code: 'unexpected', message: AWAY, details: {}, status }, lost };
}

interface SendSetting {
  /** The session's token. */
  readonly csrf?: string;
  /** An id of the change, by which sending it again does it once. */
  readonly changeId?: string;
}

/** Sends a call. An answer that comes in pages is put together. */
export async function sendCall(asking: Asking, setting: SendSetting = {}): Promise<Reply> {
  let page = await sendPage(asking, setting);
  const items: unknown[] = [];
  for (;;) {
    if ('problem' in page || !Array.isArray(page.answer)) return page;
    const query = nextPageQuery(page.headers);
    // What is held of an answer stays the same object, so that nothing is drawn again without need.
    if (!query && !items.length) return page;
    items.push(...(page.answer as unknown[]));
    if (!query) return { answer: items, headers: page.headers };
    page = await sendPage({ ...asking, query }, setting);
  }
}

/** Returns the query of the next page that an answer names in its header Link (RFC 8288), or null. */
function nextPageQuery(headers: Headers): Record<string, string> | null {
  const next = /<[^>]*\?([^>]*)>; rel="next"/.exec(headers.get('link') ?? '')?.[1];
  return next === undefined ? null : Object.fromEntries(new URLSearchParams(next));
}

async function sendPage(
  { name, path = {}, query = {}, body, file }: Asking,
  { csrf = '', changeId }: SendSetting,
): Promise<Reply> {
  const [method, form] = name.split(' ') as [string, string];
  const at = form.replace(/:(\w+)/g, (_, part: string) => encodeURIComponent(path[part]!));
  const params = new URLSearchParams(
    Object.entries(query as Record<string, string | undefined>).filter(
      (pair): pair is [string, string] => pair[1] !== undefined,
    ),
  ).toString();
  const address = `/api${at}${params && `?${params}`}`;
  const held = method === 'GET' ? answers.get(csrf, address) : undefined;
  const headers: Record<string, string> = { 'x-csrf-token': csrf, 'accept-language': LANGUAGE };
  if (held) headers['if-none-match'] = held.tag;
  if (body) headers['content-type'] = 'application/json';
  if (file) headers['content-type'] = file.type || 'application/octet-stream';
  if (changeId) headers['x-change-id'] = changeId;
  let response: Response;
  let text: string;
  try {
    response = await fetch(address, {
      method,
      headers,
      ...(body ? { body: JSON.stringify(body) } : file ? { body: file } : {}),
    });
    text = await response.text();
  } catch {
    return unanswered(0, true);
  }
  if (held && response.status === 304) return { answer: held.answer, headers: response.headers };
  let answer: unknown;
  try {
    answer = text ? JSON.parse(text) : undefined;
  } catch {
    return unanswered(response.status, false);
  }
  if (response.ok) {
    if (method === 'GET') answers.set(csrf, address, response.headers.get('etag'), answer);
    return { answer, headers: response.headers };
  }
  const isProblem = typeof answer === 'object' && answer !== null && 'code' in answer;
  if (!isProblem) return unanswered(response.status, false);
  return { problem: { ...(answer as ApiProblem), status: response.status }, lost: false };
}

/** Returns the bytes at an address of the API. Throws an Error if they are not to be had. For workers. */
export async function fetchBytes(path: string): Promise<Uint8Array> {
  const response = await fetch(`/api${path}`);
  if (!response.ok) throw new Error(AWAY);
  return new Uint8Array(await response.arrayBuffer());
}

/** Returns the answer of a call. Throws an Error with the sentence of the problem. For workers. */
export async function call<N extends CallName>(name: N, sent: Sent<N>, csrf = ''): Promise<AnswerOf<N>> {
  const reply = await sendCall({ name, ...(sent as object) }, { csrf });
  if ('problem' in reply) throw new Error(reply.problem.message);
  return reply.answer as AnswerOf<N>;
}
