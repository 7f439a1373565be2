import { pino } from 'pino';

/** The secret part of an outward address, wherever it stands in a text. */
const KEY = /(\/(?:see|embed|feed|copy|dav|links|notices\/confirm|notices\/stop)\/)[^/?#\s.]+/g;

/** Returns an address without the secret of a key in it. */
export function withoutKey(address: string): string {
  return address.replace(KEY, '$1…');
}

interface Logged {
  readonly type?: string;
  readonly name?: string;
  readonly message?: string;
  readonly stack?: string;
  readonly code?: string | number;
  readonly original?: { readonly code?: string };
}

/** What the log holds of requests, answers and errors: never a header, a key, a statement or its values. */
export const SERIALIZERS = {
  req: ({ method, url }: { method: string; url: string }) => ({ method, url: withoutKey(url) }),
  res: ({ statusCode }: { statusCode: number }) => ({ statusCode }),
  err: (error: Logged) => ({
    type: error.name ?? error.type,
    message: withoutKey(error.message ?? ''),
    code: error.code ?? error.original?.code,
    stack: withoutKey(error.stack ?? ''),
  }),
};

/** The process's structured log: one JSON object a line. LOG_LEVEL sets how much is told. It holds no cookie and no key. */
export const log = pino({
  level: process.env['LOG_LEVEL'] ?? 'info',
  serializers: SERIALIZERS,
});
