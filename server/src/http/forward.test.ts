import { createServer, request, type IncomingMessage, type RequestListener, type Server } from 'node:http';
import { mkdtempSync, rmSync } from 'node:fs';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { forwardTo } from './forward';

let folder: string;
let socketPath: string;
let behind: Server;
let answer: RequestListener;
const fronts: Server[] = [];

beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), 'zonal-test-'));
  socketPath = join(folder, 'desk.sock');
  behind = createServer((req, res) => answer(req, res));
  await new Promise<void>((resolve) => behind.listen(socketPath, resolve));
});
afterAll(() => {
  for (const server of [behind, ...fronts]) {
    server.closeAllConnections();
    server.close();
  }
  rmSync(folder, { recursive: true, force: true });
});

async function front(proxies: number, path = socketPath): Promise<number> {
  const server = createServer(forwardTo(path, proxies));
  fronts.push(server);
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  return (server.address() as AddressInfo).port;
}

async function textOf(stream: IncomingMessage): Promise<string> {
  const parts: Buffer[] = [];
  for await (const part of stream) parts.push(part as Buffer);
  return Buffer.concat(parts).toString();
}

function ask(port: number, method: string, headers: Record<string, string> = {}, body = '') {
  return new Promise<{ status: number; headers: IncomingMessage['headers']; text: string }>(
    (resolve, reject) => {
      request({ port, host: '127.0.0.1', method, path: '/api/a?b=c', headers }, (res) => {
        textOf(res).then((text) => resolve({ status: res.statusCode!, headers: res.headers, text }), reject);
      })
        .on('error', reject)
        .end(Buffer.from(body));
    },
  );
}

describe('a request that is handed on', () => {
  it('comes as it was sent, and so does its answer', async () => {
    answer = (req, res) => {
      void textOf(req).then((text) => {
        res.setHeader('Set-Cookie', ['a=1', 'b=2']);
        res.writeHead(201, { 'X-Own': 'ä' });
        res.end(JSON.stringify([req.method, req.url, req.headers['x-own'], text.length]));
      });
    };
    const port = await front(0);
    const sent = 'x'.repeat(1_500_000);
    for (const headers of [{ 'content-length': String(sent.length) }, { 'transfer-encoding': 'chunked' }]) {
      const {
        status,
        headers: told,
        text,
      } = await ask(port, 'POST', { ...headers, 'x-own': 'é' } as never, sent);
      expect(status).toBe(201);
      expect(JSON.parse(text)).toEqual(['POST', '/api/a?b=c', 'é', sent.length]);
      expect(told['set-cookie']).toEqual(['a=1', 'b=2']);
      expect(told['x-own']).toBe('ä');
    }
    answer = (_req, res) => res.writeHead(204).end();
    expect(await ask(port, 'DELETE')).toMatchObject({ status: 204, text: '' });
  });

  it('says whose it is, and believes in that only proxies that are known', async () => {
    const heard = ['x-forwarded-for', 'x-forwarded-proto', 'x-forwarded-host', 'forwarded', 'connection'];
    answer = (req, res) => void res.end(JSON.stringify(heard.map((name) => req.headers[name] ?? null)));
    const forged = { 'x-forwarded-for': '9.9.9.9', 'x-forwarded-proto': 'https', forwarded: 'for=9.9.9.9' };
    const told = async (proxies: number) => JSON.parse((await ask(await front(proxies), 'GET', forged)).text);
    expect(await told(0)).toEqual(['127.0.0.1', null, null, null, expect.any(String)]);
    expect(await told(1)).toEqual(['9.9.9.9, 127.0.0.1', 'https', null, 'for=9.9.9.9', expect.any(String)]);
  });

  it('is given up when whoever asked has gone', async () => {
    const gone = new Promise<void>((resolve) => {
      answer = (_req, res) => {
        res.write('begun');
        res.on('close', () => resolve());
      };
    });
    const port = await front(0);
    const client = request({ port, host: '127.0.0.1', path: '/api/changes' }, (res) =>
      res.once('data', () => client.destroy()),
    );
    client.on('error', () => undefined).end();
    await gone;
  });

  it('is asked again where a connection that was kept ends as it is used', async () => {
    const used = new WeakSet<object>();
    let asked = 0;
    answer = (req, res) => {
      asked++;
      // A connection answers once, and then no more.
      if (used.has(req.socket)) return void req.socket.destroy();
      used.add(req.socket);
      res.end('answered');
    };
    const port = await front(0);
    for (let n = 0; n < 4; n++)
      expect(await ask(port, 'GET')).toMatchObject({ status: 200, text: 'answered' });
    expect(asked).toBeGreaterThan(4);
    // What may change something is never sent twice by itself.
    const codes = [];
    for (let n = 0; n < 3; n++) codes.push((await ask(port, 'POST')).status);
    expect(codes).toContain(503);
  });

  it('is refused with a sentence where nobody answers, and what was done is not made out to be nothing', async () => {
    const nobody = await ask(await front(0, join(folder, 'nobody.sock')), 'POST');
    expect([nobody.status, JSON.parse(nobody.text).code]).toEqual([503, 'desk-away']);
    answer = (_req, res) => void res.destroy();
    const port = await front(0);
    expect(JSON.parse((await ask(port, 'GET')).text).code).toBe('desk-away');
    expect(JSON.parse((await ask(port, 'POST')).text).code).toBe('outcome-unknown');
  });
});
