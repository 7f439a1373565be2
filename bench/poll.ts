import { outwardView } from '@zonal/core/glass';
import { nextRevision } from '@zonal/core/reach';
import type { Compiling, DocumentOrder, Order } from '@zonal/server/outside/outside';
import { pollPath } from '@zonal/server/outside/pollPath';
import { Publisher } from '@zonal/server/outside/publisher';
import { renderDocument } from '@zonal/server/outside/renderDocument';
import { bodyWriters } from '@zonal/server/outside/renderer';
import type { RenderedView } from '@zonal/server/outside/viewDelta';
import { PollLog, type Storing } from '@zonal/server/reach/pollLog';
import { fork } from 'node:child_process';
import { once } from 'node:events';
import { createServer, type RequestListener } from 'node:http';
import type { AddressInfo } from 'node:net';
import { fileURLToPath } from 'node:url';
import type { Figure } from './figure';
import { RANGE, RULES, manyEntries } from './material';

/** What is counted is handed over as to another thread, and stored nowhere here. */
const NOWHERE: Storing = {
  take: (batch) => {
    structuredClone(batch);
    return Promise.resolve();
  },
  close: () => Promise.resolve(),
};

const TOKEN = 'vvZe3baPhd3i-HKnmUqP8XLc2bI';
const [CONNECTIONS, SECONDS] = [64, 2];

/** Polls for two seconds from another process of this machine and returns the answers a second. */
async function load(listener: RequestListener, headers: Readonly<Record<string, string>>): Promise<number> {
  const server = createServer(listener);
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  const { port } = server.address() as AddressInfo;
  const told = Object.entries(headers).map(([name, value]) => `${name}: ${value}`);
  const args = [port, `/feed/${TOKEN}.ics`, CONNECTIONS, SECONDS].map(String);
  const client = fork(fileURLToPath(new URL('client.js', import.meta.url)), [...args, ...told]);
  const [answers] = (await Promise.race([
    once(client, 'message'),
    once(client, 'exit').then(() => Promise.reject(new Error('The load met an error.'))),
  ])) as [number];
  server.closeAllConnections();
  server.close();
  return answers;
}

/** Returns a publisher of one window, worked out here. */
async function publisherOf(state: RenderedView): Promise<Publisher> {
  const bodies = bodyWriters();
  const [windowId, viewId] = ['w', 'v'];
  const place = {
    publicUrl: 'https://w.example',
    asOf: 1_000_000,
    hub: '',
    mayMail: false,
    listed: 'bridge',
  };
  const publisher = new Publisher((outside) => {
    const compiling: Compiling = {
      start: async () => {
        const key = {
          token: TOKEN,
          keyId: TOKEN,
          viewId,
          expiresAt: null,
          ends: 'expired',
          look: {},
          hosts: [],
          moved: null,
          farewell: null,
        } as const;
        const closing = { at: null, zone: 'UTC', contact: '' };
        const window = {
          id: windowId,
          name: 'Bridge',
          closed: false,
          closing,
          calendarIds: ['a'],
          closesAt: null,
          board: null,
        };
        await outside.windows([{ window, keys: [key] }]);
        const { number } = state.revision;
        await outside.view({ viewId, number, fingerprint: '', day: 0, listed: true });
      },
      catchUp: () => Promise.resolve(1),
      rest: () => Promise.resolve(),
      nextTurn: () => Promise.resolve(Infinity),
      bring: () => Promise.resolve(),
      write: (order: Order) => Promise.resolve(renderDocument(order as DocumentOrder, state, bodies, place)),
      close: () => Promise.resolve(),
    };
    return compiling;
  });
  await publisher.start();
  return publisher;
}

/** Compares the poll path with a bare server that answers the same bytes. */
export async function pollFigures(): Promise<Figure[]> {
  const figures: Figure[] = [];
  for (const [size, count] of [
    ['small', 250],
    ['large', 6_000],
  ] as const) {
    const view = outwardView(manyEntries(count), RULES, RANGE, { audience: 'street', cap: null });
    const revision = nextRevision(null, view, 1_000_000);
    const publisher = await publisherOf({ view, revision });
    const document = (await publisher.document(TOKEN, 'feed'))!;
    const poll = pollPath(publisher, new PollLog(NOWHERE));
    const ours: RequestListener = (req, res) => {
      if (!poll(req, res)) res.writeHead(404).end();
    };
    const body = Buffer.concat(document.gzip.pieces);
    const headers = Object.fromEntries(
      document.gzip.headers.flatMap((name, i, all) => (i % 2 ? [] : [[name, all[i + 1]!]])),
    );
    const { ETag, Vary, 'Cache-Control': cache } = headers;
    const bare304: RequestListener = (_req, res) => {
      res.writeHead(304, { ETag, Vary, 'Cache-Control': cache });
      res.end();
    };
    const bare200: RequestListener = (_req, res) => {
      res.writeHead(200, headers);
      res.end(body);
    };
    for (const [what, asked, bare] of [
      ['304', { 'accept-encoding': 'gzip', 'if-none-match': document.gzip.etag }, bare304],
      ['gzip 200', { 'accept-encoding': 'gzip' }, bare200],
    ] as const) {
      // One after the other and twice, the second time in the other order: the machine is not always the same.
      const a = await load(bare, asked);
      const b = await load(ours, asked);
      const c = await load(ours, asked);
      const d = await load(bare, asked);
      const ratio = (b + c) / (a + d);
      figures.push({
        what: `warm ${what} of a ${size} feed (${(body.length / 1000).toFixed(0)} kB) against a bare node:http server`,
        measured: `${Math.round((b + c) / 2)} and ${Math.round((a + d) / 2)} answers a second, ${CONNECTIONS} connections; counting on`,
        ratio,
        budget: '≥ 0.9',
        kept: ratio >= 0.9,
      });
    }
  }
  return figures;
}
