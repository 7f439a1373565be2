import { createServer, request, type IncomingHttpHeaders } from 'node:http';
import type { AddressInfo } from 'node:net';
import { gunzipSync } from 'node:zlib';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { makeDocument, sendDocument, type Document } from './document';

let doc: Document;
let served: Document;
const server = createServer((req, res) => sendDocument(req, res, served));

beforeAll(async () => {
  doc = await makeDocument('BEGIN:VCALENDAR\r\n'.repeat(50), 'r7', {
    'Content-Type': 'text/calendar; charset=utf-8',
  });
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
  it('has the same ETag for the same bytes, named after its revision', async () => {
    const again = await makeDocument('BEGIN:VCALENDAR\r\n'.repeat(50), 'r7', {});
    expect(again.etag).toBe(doc.etag);
    expect(doc.etag).toMatch(/^"r7-[\w-]{22}"$/);
    expect((await makeDocument('other', 'r7', {})).etag).not.toBe(doc.etag);
  });

  it('is compressed for those that take it', async () => {
    for (const [accept, packed] of [
      ['gzip', true],
      ['deflate, gzip;q=0.5, br', true],
      ['*', true],
      ['gzip;q=0', false],
      ['identity', false],
      ['', false],
    ] as const) {
      const answer = await ask({ 'accept-encoding': accept });
      expect(answer.headers['content-encoding'], accept).toBe(packed ? 'gzip' : undefined);
      expect((packed ? gunzipSync(answer.body) : answer.body).equals(doc.plain)).toBe(true);
      expect(Number(answer.headers['content-length'])).toBe(answer.body.length);
    }
  });

  it('is not sent again to those that hold it', async () => {
    for (const tag of [doc.etag, doc.gzipEtag, `W/${doc.etag}`, '*', `"a", W/${doc.gzipEtag}`]) {
      const answer = await ask({ 'if-none-match': tag });
      expect(answer.status, tag).toBe(304);
      expect(answer.headers.etag).toBe(doc.etag);
    }
    for (const tag of ['"r7"', 'r7', '', doc.etag.slice(0, -2)])
      expect((await ask({ 'if-none-match': tag })).status).toBe(200);
  });

  it('is not sent again to those that have it since then, where it follows from its revision alone', async () => {
    const at = Date.UTC(2026, 5, 10, 12);
    const [dated, undated] = [await makeDocument('a', 'r1', {}, at), await makeDocument('a', 'r1', {})];
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
    expect(Number(answer.headers['content-length'])).toBe(doc.plain.length);
  });
});
