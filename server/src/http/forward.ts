import { Problem } from '@zonal/core/problems';
import { Agent, request, type ClientRequest, type IncomingMessage, type ServerResponse } from 'node:http';
import { log } from '../log';
import type { ErrorBody } from './errors';

/** Headers of one connection, which the next one has of its own (RFC 9110 section 7.6.1). */
const OF_CONNECTION = new Set(['connection', 'keep-alive', 'proxy-connection', 'te', 'upgrade', 'expect']);
/** What only a proxy in front may say. */
const OF_PROXIES = new Set(['forwarded', 'x-forwarded-for', 'x-forwarded-proto', 'x-forwarded-host']);

/**
 * Returns a function that hands requests on to the server that listens on a socket of this machine, and its answers back.
 * Who asks is told in X-Forwarded-For, behind what `proxies` many proxies in front have said.
 */
export function forwardTo(
  socketPath: string,
  proxies: number,
): (req: IncomingMessage, res: ServerResponse) => void {
  const agent = new Agent({ keepAlive: true });
  return (req, res) => {
    const { method, url: path } = req;
    const headers = forwarded(req, proxies);
    const onlyAsks = method === 'GET' || method === 'HEAD';
    const empty = !('content-length' in req.headers) && !('transfer-encoding' in req.headers);
    let ask: ClientRequest;
    const send = (by: Agent | false) => {
      ask = request({ socketPath, agent: by, method, path, headers });
      ask.on('response', (answer) => {
        res.writeHead(answer.statusCode!, withoutConnection(answer.rawHeaders));
        answer.on('error', () => res.destroy());
        answer.pipe(res);
      });
      ask.on('error', (error: NodeJS.ErrnoException) => {
        if (res.destroyed) return;
        // A connection that was kept had ended meanwhile: asking changes nothing, so it is asked again.
        if (onlyAsks && empty && ask.reusedSocket && !res.headersSent && by) return send(false);
        log.warn({ err: error }, 'a request could not be handed on');
        if (res.headersSent) res.destroy();
        else refuse(res, error.code, onlyAsks);
      });
      if (by) req.pipe(ask);
      else ask.end();
    };
    res.on('close', () => {
      if (!res.writableFinished) ask.destroy();
    });
    req.on('error', () => ask.destroy());
    send(agent);
  };
}

/** Nobody listened, or whoever did ended before it had answered: then what it did meanwhile is not known. */
function refuse(res: ServerResponse, reason: string | undefined, onlyAsks: boolean): void {
  const nothingDone = reason === 'ENOENT' || reason === 'ECONNREFUSED' || onlyAsks;
  answerWith(res, new Problem(nothingDone ? 'desk-away' : 'outcome-unknown'));
}

/** Answers that the organisers' side is not there yet, and when to ask again. */
export function answerStarting(_req: IncomingMessage, res: ServerResponse): void {
  answerWith(res, new Problem('desk-away'));
}

function answerWith(res: ServerResponse, { code, message, details, status }: Problem): void {
  const body: ErrorBody = { code, message, details };
  res.writeHead(status, {
    'Content-Type': 'application/json; charset=utf-8',
    'Cache-Control': 'no-store',
    ...(status === 503 ? { 'Retry-After': '2' } : {}),
  });
  res.end(JSON.stringify(body));
}

function withoutConnection(raw: readonly string[], left: ReadonlySet<string> = OF_CONNECTION): string[] {
  const out: string[] = [];
  for (let i = 0; i < raw.length; i += 2)
    if (!left.has(raw[i]!.toLowerCase())) out.push(raw[i]!, raw[i + 1]!);
  return out;
}

function forwarded(req: IncomingMessage, proxies: number): string[] {
  const client = req.socket.remoteAddress ?? '';
  const said = proxies ? [req.headers['x-forwarded-for']].flat().filter(Boolean) : [];
  const left = proxies
    ? new Set([...OF_CONNECTION, 'x-forwarded-for'])
    : new Set([...OF_CONNECTION, ...OF_PROXIES]);
  return [...withoutConnection(req.rawHeaders, left), 'X-Forwarded-For', [...said, client].join(', ')];
}
