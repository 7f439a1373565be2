import type { IncomingMessage, ServerResponse } from 'node:http';
import type { Written, WrittenBody } from './outside';

/** The bytes of one outward form, plain and compressed, ready to be sent: one after the other, so that keys share them. */
export interface Document {
  readonly plain: readonly Uint8Array[];
  readonly gzip: readonly Uint8Array[];
  /** Strong validators (RFC 9110 section 8.8.3): one for each encoding, as their bytes differ. */
  readonly etag: string;
  readonly gzipEtag: string;
  /** All headers of a 200 and of a 304 for both encodings, names and values in turn. */
  readonly plainHeaders: string[];
  readonly gzipHeaders: string[];
  readonly plainUnchanged: string[];
  readonly gzipUnchanged: string[];
  /** Instant of the revision, in whole seconds, where the bytes follow from it alone; else null. */
  readonly dated: number | null;
  /** Bytes that it takes by itself, without what it shares. */
  readonly weight: number;
}

/** Documents with a body smaller than this have it to themselves: they are sent faster in one piece. */
const SHARED = 24_000;

/** Returns a document of what was written. `label` starts its ETag, such as the number of the revision. */
export function documentOf(written: Written, body: WrittenBody, label: string): Document {
  const { head, print, headers, dated } = written;
  const shares = body.deflated.length >= SHARED;
  const pieces = (list: Uint8Array[]) => (shares ? list.filter((p) => p.length) : [Buffer.concat(list)]);
  const plain = pieces([head.plain, body.plain]);
  const gzip = pieces([head.gzip, body.deflated, head.tail]);
  const etag = `"${label}-${print}"`;
  const gzipEtag = `"${label}-${print}-gz"`;
  const own = Object.entries(headers).flat();
  const unchanged = (tag: string) => ['ETag', tag, 'Vary', 'Accept-Encoding', 'Cache-Control', CACHE];
  const sent = (of: readonly Uint8Array[], tag: string) => [
    ...own,
    ...unchanged(tag),
    ...['Content-Length', String(lengthOf(of)), 'X-Content-Type-Options', 'nosniff'],
  ];
  return {
    plain,
    gzip,
    etag,
    gzipEtag,
    plainHeaders: sent(plain, etag),
    gzipHeaders: [...sent(gzip, gzipEtag), 'Content-Encoding', 'gzip'],
    plainUnchanged: unchanged(etag),
    gzipUnchanged: unchanged(gzipEtag),
    dated,
    weight: 2_000 + head.plain.length + head.gzip.length + (shares ? 0 : lengthOf(plain) + lengthOf(gzip)),
  };
}

function lengthOf(pieces: readonly Uint8Array[]): number {
  return pieces.reduce((sum, piece) => sum + piece.length, 0);
}

/** Answers with a document: 304 when the reader has these bytes already, else 200 in an encoding that it takes. */
export function sendDocument(req: IncomingMessage, res: ServerResponse, doc: Document): 200 | 304 {
  const compressed = acceptsGzip(req.headers['accept-encoding']);
  const asked = req.headers['if-none-match'];
  if (asked !== undefined ? holds(asked, doc) : isUnmodified(req, doc)) {
    res.writeHead(304, compressed ? doc.gzipUnchanged : doc.plainUnchanged);
    res.end();
    return 304;
  }
  res.writeHead(200, compressed ? doc.gzipHeaders : doc.plainHeaders);
  const pieces = compressed ? doc.gzip : doc.plain;
  const last = pieces.length - 1;
  if (req.method === 'HEAD') res.end();
  else {
    for (let i = 0; i < last; i++) res.write(pieces[i]);
    res.end(pieces[last]);
  }
  return 200;
}

/** Caches may keep a document, and must ask before each use: a change shows at once. */
const CACHE = 'public, no-cache';

/** If-Modified-Since counts only where no ETag is asked for (RFC 9110 section 13.1.3). */
function isUnmodified(req: IncomingMessage, { dated }: Document): boolean {
  const since = req.headers['if-modified-since'];
  return dated !== null && since !== undefined && Date.parse(since) >= dated;
}

/** If-None-Match is compared weakly (RFC 9110 section 13.1.2). */
function holds(asked: string, doc: Document): boolean {
  if (asked === doc.etag || asked === doc.gzipEtag || asked.trim() === '*') return true;
  return asked.split(',').some((tag) => {
    const plain = tag.trim().replace(/^W\//, '');
    return plain === doc.etag || plain === doc.gzipEtag;
  });
}

function acceptsGzip(header: string | string[] | undefined): boolean {
  if (typeof header !== 'string') return false;
  return /(^|,)\s*(gzip|\*)\s*(;\s*q=(?!0(\.0+)?\s*(,|$))[\d.]+\s*)?(,|$)/i.test(header);
}
