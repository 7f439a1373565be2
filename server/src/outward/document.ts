import type { IncomingMessage, ServerResponse } from 'node:http';
import { promisify } from 'node:util';
import { gzip as gzipCallback } from 'node:zlib';
import { createHash } from 'node:crypto';

const gzip = promisify(gzipCallback);

/** The bytes of one outward form, plain and compressed, ready to be sent. */
export interface Document {
  readonly plain: Buffer;
  readonly gzip: Buffer;
  /** Strong validators (RFC 9110 section 8.8.3): one for each encoding, as their bytes differ. */
  readonly etag: string;
  readonly gzipEtag: string;
  /** Headers that go with a 200, apart from length, encoding and ETag. */
  readonly headers: Readonly<Record<string, string>>;
  /** Instant of the revision, in whole seconds, where the bytes follow from it alone; else null. */
  readonly dated: number | null;
}

/** Returns a document of a text. `label` starts its ETag, such as the number of the revision. */
export async function makeDocument(
  text: string,
  label: string,
  headers: Readonly<Record<string, string>>,
  dated: number | null = null,
): Promise<Document> {
  const plain = Buffer.from(text, 'utf8');
  const print = createHash('sha256').update(plain).digest('base64url').slice(0, 22);
  return {
    plain,
    gzip: await gzip(plain, { level: 6 }),
    etag: `"${label}-${print}"`,
    gzipEtag: `"${label}-${print}-gz"`,
    headers,
    dated,
  };
}

/** Answers with a document: 304 when the reader has these bytes already, else 200 in an encoding that it takes. */
export function sendDocument(req: IncomingMessage, res: ServerResponse, doc: Document): 200 | 304 {
  const compressed = acceptsGzip(req.headers['accept-encoding']);
  const etag = compressed ? doc.gzipEtag : doc.etag;
  const asked = req.headers['if-none-match'];
  if (asked !== undefined ? holds(asked, doc) : isUnmodified(req, doc)) {
    res.writeHead(304, { ETag: etag, Vary: 'Accept-Encoding', 'Cache-Control': CACHE });
    res.end();
    return 304;
  }
  const body = compressed ? doc.gzip : doc.plain;
  res.writeHead(200, {
    ...doc.headers,
    ETag: etag,
    Vary: 'Accept-Encoding',
    'Cache-Control': CACHE,
    'Content-Length': body.length,
    'X-Content-Type-Options': 'nosniff',
    ...(compressed ? { 'Content-Encoding': 'gzip' } : {}),
  });
  res.end(req.method === 'HEAD' ? undefined : body);
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
