import { createServer, request, type IncomingHttpHeaders } from 'node:http';
import type { AddressInfo } from 'node:net';
import { brotliDecompressSync, gunzipSync } from 'node:zlib';
import { randomBytes } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { documentOf, sendDocument, withBrotli, type Document } from './document';
import { BodyWriter, writeHead } from './writing';

/** A document of blocks behind a head. */
function make(
  blocks: readonly string[],
  {
    head = '',
    dated = null,
    writer = new BodyWriter(),
  }: { head?: string; dated?: number | null; writer?: BodyWriter } = {},
): Document {
  const body = writer.write(blocks);
  const headers = { 'Content-Type': 'text/calendar; charset=utf-8' };
  const written = { ...writeHead(head, body), body, headers, dated, vary: 'Accept-Encoding' };
  return documentOf({ ...written, status: 200, learns: null }, body, 'r7');
}

const bytes = (pieces: readonly Uint8Array[]) => Buffer.concat(pieces);

let doc: Document;
let served: Document;
const server = createServer((req, res) => sendDocument(req, res, served));

beforeAll(async () => {
  doc = make(['BEGIN:VCALENDAR\r\n'.repeat(50)]);
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
});
afterAll(() => server.close());

function ask(headers: Record<string, string>, method = 'GET', what = doc) {
  served = what;
  const { port } = server.address() as AddressInfo;
  return new Promise<{ status: number; headers: IncomingHttpHeaders; body: Buffer }>((resolve, reject) => {
    request({ port, host: '127.0.0.1', method, headers }, (res) => {
      const parts: Buffer[] = [];
      res.on('data', (part: Buffer) => parts.push(part));
      res.on('end', () =>
        resolve({ status: res.statusCode!, headers: res.headers, body: Buffer.concat(parts) }),
      );
    })
      .on('error', reject)
      .end();
  });
}

describe('a document', () => {
  it('has the same ETag for the same bytes, named after its revision', () => {
    expect(make(['BEGIN:VCALENDAR\r\n'.repeat(50)]).identity.etag).toBe(doc.identity.etag);
    expect(doc.identity.etag).toMatch(/^"r7-[\w-]{22}"$/);
    expect(make(['other']).identity.etag).not.toBe(doc.identity.etag);
    expect(make(['other'], { head: 'a' }).identity.etag).not.toBe(
      make(['other'], { head: 'b' }).identity.etag,
    );
  });

  it('is one compressed stream of a head of its own and a body that others have too', async () => {
    const blocks = Array.from({ length: 40 }, () => randomBytes(3000).toString('base64'));
    const writer = new BodyWriter();
    for (const head of ['', 'For the town', 'For the ferry line: ÄÖÜ']) {
      const text = head + blocks.join('');
      const document = make(blocks, { head, writer });
      expect(bytes(document.identity.pieces).toString()).toBe(text);
      const { status, body, headers } = await ask({ 'accept-encoding': 'gzip' }, 'GET', document);
      expect([status, Number(headers['content-length'])]).toEqual([200, body.length]);
      expect(gunzipSync(body).toString()).toBe(text);
      // Some programs read the first member of a gzip file only.
      expect(body.subarray(4).includes(Buffer.from([0x1f, 0x8b, 8, 0, 0, 0, 0, 0]))).toBe(false);
    }
  });

  it('is the same bytes whatever was written before it', () => {
    const blocks = Array.from({ length: 9 }, (_, i) => `Block ${i}\n`.repeat(400));
    const writer = new BodyWriter();
    for (const before of [blocks.slice(3), [...blocks].reverse(), [...blocks, ...blocks]])
      writer.write(before);
    const [again, fresh] = [writer.write(blocks), new BodyWriter().write(blocks)];
    expect(Buffer.compare(again.deflated, fresh.deflated)).toBe(0);
    expect(again.print).toBe(fresh.print);
    // What goes to another thread takes nothing else with it.
    for (const piece of [again.plain, again.deflated]) expect(piece.buffer.byteLength).toBe(piece.length);
  });

  it('is compressed for those that take it', async () => {
    const unpack = { gzip: gunzipSync, br: brotliDecompressSync, identity: (body: Buffer) => body };
    await withBrotli(doc);
    for (const [accept, encoding] of [
      ['gzip', 'gzip'],
      ['gzip, deflate, br', 'gzip'],
      ['br', 'br'],
      ['deflate, gzip;q=0.5, br', 'br'],
      ['*', 'gzip'],
      ['gzip;q=0', 'identity'],
      ['identity', 'identity'],
      ['', 'identity'],
    ] as const) {
      const answer = await ask({ 'accept-encoding': accept });
      expect(answer.headers['content-encoding'] ?? 'identity', accept).toBe(encoding);
      expect(unpack[encoding](answer.body).equals(bytes(doc.identity.pieces))).toBe(true);
      expect(answer.headers.etag).toBe(doc[encoding]!.etag);
      expect(Number(answer.headers['content-length'])).toBe(answer.body.length);
    }
  });

  it('is not sent again to those that hold it', async () => {
    for (const tag of [
      doc.identity.etag,
      doc.gzip.etag,
      `W/${doc.identity.etag}`,
      doc.br!.etag,
      '*',
      `"a", W/${doc.gzip.etag}`,
    ]) {
      const answer = await ask({ 'if-none-match': tag });
      expect(answer.status, tag).toBe(304);
      expect(answer.headers.etag).toBe(doc.identity.etag);
    }
    for (const tag of ['"r7"', 'r7', '', doc.identity.etag.slice(0, -2)])
      expect((await ask({ 'if-none-match': tag })).status).toBe(200);
  });

  it('is not sent again to those that have it since then, where it follows from its revision alone', async () => {
    const at = Date.UTC(2026, 5, 10, 12);
    const [dated, undated] = [make(['a'], { dated: at }), make(['a'])];
    const since = (ms: number, more: Record<string, string> = {}) => ({
      'if-modified-since': new Date(ms).toUTCString(),
      ...more,
    });
    expect((await ask(since(at), 'GET', dated)).status).toBe(304);
    expect((await ask(since(at - 1000), 'GET', dated)).status).toBe(200);
    expect((await ask(since(at), 'GET', undated)).status).toBe(200);
    // An ETag says more than a time.
    expect((await ask(since(at, { 'if-none-match': '"other"' }), 'GET', dated)).status).toBe(200);
    expect((await ask({ 'if-modified-since': 'yesterday' }, 'GET', dated)).status).toBe(200);
  });

  it('tells its length to HEAD and sends nothing', async () => {
    const answer = await ask({}, 'HEAD');
    expect(answer.body.length).toBe(0);
    expect(Number(answer.headers['content-length'])).toBe(bytes(doc.identity.pieces).length);
  });
});
