import fresh from 'fresh';
import { LRUCache } from 'lru-cache';
import Negotiator from 'negotiator';
import type { IncomingHttpHeaders, IncomingMessage, ServerResponse } from 'node:http';
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
  if (isHeld(req.headers, doc)) {
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

/**
 * Whether a reader has a document already: by If-None-Match in either encoding, compared weakly, or by
 * If-Modified-Since where no ETag is asked for (RFC 9110 sections 13.1.2 and 13.1.3).
 */
function isHeld(
  { 'if-none-match': tags, 'if-modified-since': since }: IncomingHttpHeaders,
  { etag, gzipEtag, dated }: Document,
): boolean {
  // Most programs send back what they got.
  if (tags === etag || tags === gzipEtag) return true;
  if (tags === undefined && (since === undefined || dated === null)) return false;
  // Only these count: a reader's own Cache-Control is for the caches between (RFC 9111 section 5.2.1).
  const asked = { 'if-none-match': tags, ...(tags === undefined ? { 'if-modified-since': since } : {}) };
  const modified = dated === null ? {} : { 'last-modified': new Date(dated).toUTCString() };
  return [etag, gzipEtag].some((tag) => fresh(asked, { ...modified, etag: tag }));
}

/** What programs send is one of a few texts. */
const encodings = new LRUCache<string, boolean>({ max: 200 });

/** Whether a reader takes gzip, and likes it no less than plain bytes (RFC 9110 section 12.5.3). */
function acceptsGzip(header: string | string[] | undefined): boolean {
  if (typeof header !== 'string') return false;
  let takes = encodings.get(header);
  if (takes === undefined) {
    const asked = new Negotiator({ headers: { 'accept-encoding': header } });
    takes = asked.encoding(['gzip', 'identity']) === 'gzip';
    encodings.set(header, takes);
  }
  return takes;
}
