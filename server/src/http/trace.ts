import type { IncomingMessage } from 'node:http';

/** Letters of each part of a trace: longer ones come from nobody's calendar program. */
const LONGEST = 300;

/** Returns where a request comes from, and of which program: put together cheaply, as it is done at each poll. */
export function traceOf({ socket, headers }: IncomingMessage): string {
  const forwarded = headers['x-forwarded-for'];
  const program = headers['user-agent'];
  return `${socket.remoteAddress ?? ''}\n${cut(forwarded)}\n${cut(program)}`;
}

function cut(header: string | string[] | undefined): string {
  return typeof header === 'string' ? header.slice(0, LONGEST) : '';
}
