import { pino } from 'pino';

/** The secret part of an outward address, wherever it stands in a text. */
const KEY = /(\/(?:see|embed|feed|copy|dav)\/)[^/?#\s.]+/g;

/** Returns an address without the secret of a key in it. */
export function withoutKey(address: string): string {
  return address.replace(KEY, '$1…');
}

/** The process's structured log: one JSON object a line. LOG_LEVEL sets how much is told. It holds no cookie and no key. */
export const log = pino({
  level: process.env['LOG_LEVEL'] ?? 'info',
  serializers: {
    // Of a request its method and where it goes; never a header: cookies, tokens and addresses stand there.
    req: ({ method, url }: { method: string; url: string }) => ({ method, url: withoutKey(url) }),
    res: ({ statusCode }: { statusCode: number }) => ({ statusCode }),
  },
});
