import fresh from 'fresh';
import { LRUCache } from 'lru-cache';
import Negotiator from 'negotiator';
import type { IncomingHttpHeaders, IncomingMessage, ServerResponse } from 'node:http';
import { promisify } from 'node:util';
import { brotliCompress, constants } from 'node:zlib';
import { STRICT_POLICY } from '../http/policy';
import type { Written, WrittenBody } from './outside';

/** The bytes of a document in one encoding, ready to be sent: one piece after the other, so that keys share them. */
interface Encoded {
  readonly pieces: readonly Uint8Array[];
  /** A strong validator (RFC 9110 section 8.8.3): one for each encoding, as their bytes differ. */
  readonly etag: string;
  /** All headers of a 200 and of a 304, names and values in turn. */
  readonly headers: string[];
  readonly unchanged: string[];
}

/** One outward form as it is sent. */
export interface Document {
  readonly identity: Encoded;
  readonly gzip: Encoded;
  /** Made when somebody asks for it; see {@link withBrotli}. */
  br: Encoded | null;
  /** Instant of the revision, in whole seconds, where the bytes follow from it alone; else null. */
  readonly dated: number | null;
  readonly status: number;
  readonly learns: Written['learns'];
  /** Its headers that say nothing of bytes, and what of a request it depends on. */
  readonly own: readonly string[];
  readonly vary: string;
  /** Bytes that it takes by itself, without what it shares. */
  readonly weight: number;
}

type Encoding = 'identity' | 'gzip' | 'br';

/** Documents with a body smaller than this have it to themselves: they are sent faster in one piece. */
const SHARED = 24_000;

/** Returns a document of what was written. `label` starts its ETag, such as the number of the revision. */
export function documentOf(written: Written, body: WrittenBody, label: string): Document {
  const { head, print, headers, dated, vary, status, tag, learns } = written;
  const shares = body.deflated.length >= SHARED;
  const pieces = (list: Uint8Array[]) => (shares ? list.filter((p) => p.length) : [Buffer.concat(list)]);
  const etag = tag ?? `"${label}-${print}"`;
  const own = Object.entries(headers).flat();
  const identity = encoded(pieces([head.plain, body.plain]), etag, own, vary);
  const packed = () =>
    encoded(
      pieces([head.gzip, body.deflated, head.tail]),
      `"${label}-${print}-gz"`,
      [...own, 'Content-Encoding', 'gzip'],
      vary,
    );
  const gzip = tag === undefined ? packed() : identity;
  const apart = lengthOf(identity.pieces) + lengthOf(gzip.pieces);
  return {
    identity,
    gzip,
    br: tag === undefined ? null : identity,
    dated,
    status,
    learns,
    own,
    vary,
    weight: 2_000 + head.plain.length + head.gzip.length + (shares ? 0 : apart),
  };
}

function encoded(pieces: readonly Uint8Array[], etag: string, own: readonly string[], vary: string): Encoded {
  const unchanged = ['ETag', etag, 'Vary', vary, 'Cache-Control', CACHE];
  const length = ['Content-Length', String(lengthOf(pieces)), 'X-Content-Type-Options', 'nosniff'];
  const isPage = own.some((value) => value.startsWith('text/html'));
  const policy = isPage ? [] : ['Content-Security-Policy', STRICT_POLICY];
  return { pieces, etag, unchanged, headers: [...own, ...unchanged, ...length, ...policy] };
}

function lengthOf(pieces: readonly Uint8Array[]): number {
  return pieces.reduce((sum, piece) => sum + piece.length, 0);
}

function brotliTag({ etag }: Encoded): string {
  return etag.replace(/"$/, '-br"');
}

const compress = promisify(brotliCompress);
const QUALITY = 5;
/** What is being compressed just now. */
const compressing = new WeakMap<Document, Promise<void>>();

/** Returns whether a reader asks for an encoding that a document is not there in yet (RFC 7932). */
export function lacksBrotli({ headers }: IncomingMessage, document: Document): boolean {
  return document.br === null && encodingFor(headers['accept-encoding']) === 'br';
}

/** Makes the bytes of a document in Brotli (RFC 7932), away from the thread that answers. */
export function withBrotli(document: Document): Promise<void> {
  let made = compressing.get(document);
  if (!made) {
    made = compress(Buffer.concat(document.identity.pieces), {
      params: { [constants.BROTLI_PARAM_QUALITY]: QUALITY },
    }).then((bytes) => {
      const { own, vary, identity } = document;
      document.br = encoded([bytes], brotliTag(identity), [...own, 'Content-Encoding', 'br'], vary);
    });
    compressing.set(document, made);
  }
  return made;
}

/** Answers with a document: 304 when the reader has these bytes already, else in an encoding that it takes. */
export function sendDocument(req: IncomingMessage, res: ServerResponse, doc: Document): number {
  if (doc.status === 200 && isHeld(req.headers, doc)) {
    sendUnchanged(req, res, doc);
    return 304;
  }
  const { headers, pieces } = doc[encodingFor(req.headers['accept-encoding'])] ?? doc.identity;
  res.writeHead(doc.status, headers);
  const last = pieces.length - 1;
  if (req.method === 'HEAD') res.end();
  else {
    for (let i = 0; i < last; i++) res.write(pieces[i]);
    res.end(pieces[last]);
  }
  return doc.status;
}

/** Answers 304 to a reader who has a document already. */
export function sendUnchanged(req: IncomingMessage, res: ServerResponse, doc: Document): void {
  const { unchanged } = doc[encodingFor(req.headers['accept-encoding'])] ?? doc.identity;
  res.writeHead(304, unchanged);
  res.end();
}

/** Caches may keep a document, and must ask before each use: a change shows at once. */
const CACHE = 'public, no-cache';

/**
 * Whether a reader has a document already: by If-None-Match in any encoding, compared weakly, or by If-Modified-Since
 * where no ETag is asked for (RFC 9110 sections 13.1.2 and 13.1.3).
 */
function isHeld(
  { 'if-none-match': tags, 'if-modified-since': since }: IncomingHttpHeaders,
  { identity, gzip, dated }: Document,
): boolean {
  // Most programs send back what they got.
  if (tags === identity.etag || tags === gzip.etag) return true;
  if (tags === undefined && (since === undefined || dated === null)) return false;
  // Only these count: a reader's own Cache-Control is for the caches between (RFC 9111 section 5.2.1).
  const asked = { 'if-none-match': tags, ...(tags === undefined ? { 'if-modified-since': since } : {}) };
  const modified = dated === null ? {} : { 'last-modified': new Date(dated).toUTCString() };
  return [identity.etag, gzip.etag, brotliTag(identity)].some((tag) =>
    fresh(asked, { ...modified, etag: tag }),
  );
}

/** What programs send is one of a few texts. */
const encodings = new LRUCache<string, Encoding>({ max: 200 });

/** Returns what a reader takes most gladly of what there is (RFC 9110 section 12.5.3). */
function encodingFor(header: string | string[] | undefined): Encoding {
  if (typeof header !== 'string') return 'identity';
  let best = encodings.get(header);
  if (best === undefined) {
    const asked = new Negotiator({ headers: { 'accept-encoding': header } });
    best = (asked.encoding(['gzip', 'br', 'identity']) as Encoding | undefined) ?? 'identity';
    encodings.set(header, best);
  }
  return best;
}
