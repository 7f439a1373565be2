import type { AnswerOf, ApiProblem, BodyOf, CallName, PathPart, QueryOf } from '@zonal/core/api';

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
}

/** What came of a call: its answer with the headers that stood above it, or why it was refused. */
export type Reply =
  | { readonly answer: unknown; readonly headers: Headers }
  | { readonly problem: ApiProblem; readonly lost: boolean };

const AWAY = 'The server does not answer. What you wrote is still here; try again in a moment.';

/** Returns a problem for what is no answer of the API: `lost` where nobody knows what became of the call. */
function unanswered(status: number | string, lost: boolean): Reply {
  return { problem: { code: 'unexpected', message: AWAY, details: { status } }, lost };
}

/** Sends a call. Changing ones carry the session's token; an id of the change makes sending it again do it once. */
export async function sendCall(
  { name, path = {}, query = {}, body }: Asking,
  { csrf = '', changeId }: { csrf?: string; changeId?: string } = {},
): Promise<Reply> {
  const [method, form] = name.split(' ') as [string, string];
  const at = form.replace(/:(\w+)/g, (_, part: string) => encodeURIComponent(path[part]!));
  const params = new URLSearchParams(
    Object.entries(query as Record<string, string | undefined>).filter(
      (pair): pair is [string, string] => pair[1] !== undefined,
    ),
  ).toString();
  const headers: Record<string, string> = { 'x-csrf-token': csrf };
  if (body) headers['content-type'] = 'application/json';
  if (changeId) headers['x-change-id'] = changeId;
  let response: Response;
  let text: string;
  try {
    response = await fetch(`/api${at}${params && `?${params}`}`, {
      method,
      headers,
      ...(body ? { body: JSON.stringify(body) } : {}),
    });
    text = await response.text();
  } catch {
    return unanswered('FETCH_ERROR', true);
  }
  let answer: unknown;
  try {
    answer = text ? JSON.parse(text) : undefined;
  } catch {
    return unanswered(response.status, false);
  }
  if (response.ok) return { answer, headers: response.headers };
  const told = typeof answer === 'object' && answer !== null && 'code' in answer;
  return told ? { problem: answer as ApiProblem, lost: false } : unanswered(response.status, false);
}

/** Returns the answer of a call. Throws an Error with the sentence of the problem. For workers. */
export async function call<N extends CallName>(name: N, sent: Sent<N>, csrf = ''): Promise<AnswerOf<N>> {
  const reply = await sendCall({ name, ...(sent as object) }, { csrf });
  if ('problem' in reply) throw new Error(reply.problem.message);
  return reply.answer as AnswerOf<N>;
}
