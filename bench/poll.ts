import { FORMS } from '@zonal/core/forms';
import { outwardView } from '@zonal/core/glass';
import { nextRevision } from '@zonal/core/reach';
import { makeDocument } from '@zonal/server/outward/document';
import { pollPath } from '@zonal/server/outward/pollPath';
import type { Publisher, Shown } from '@zonal/server/outward/publisher';
import { KeyUses } from '@zonal/server/outward/keyUses';
import autocannon from 'autocannon';
import { createServer, type RequestListener } from 'node:http';
import type { AddressInfo } from 'node:net';
import type { Sequelize } from 'sequelize';
import type { Figure } from './main';
import { RANGE, RULES, manyEntries } from './material';

/** Counts are stored nowhere here. */
const NOWHERE = { query: () => Promise.resolve([[], 0]) } as unknown as Sequelize;

const TOKEN = 'vvZe3baPhd3i-HKnmUqP8XLc2bI';

/** Polls for two seconds from 20 connections of this machine and returns the answers a second. */
async function load(listener: RequestListener, headers: Record<string, string>): Promise<number> {
  const server = createServer(listener);
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  const url = `http://127.0.0.1:${(server.address() as AddressInfo).port}/feed/${TOKEN}.ics`;
  const result = await autocannon({ url, headers, connections: 20, duration: 2 });
  server.close();
  if (result.errors || result.non2xx - result['3xx']) throw new Error('The load met errors.');
  return result.requests.average;
}

/** Compares the poll path with a bare server that answers the same bytes. */
export async function pollFigures(): Promise<Figure[]> {
  const view = outwardView(manyEntries(300), RULES, RANGE, { audience: 'street', cap: null });
  const revision = nextRevision(null, view, 1_000_000);
  const addresses = { see: 'https://w.example/see/k', feed: 'https://w.example/feed/k.ics' };
  const text = FORMS.feed.write(view, revision, { addresses, now: 0 });
  const document = await makeDocument(text, 'r1', { 'Content-Type': 'text/calendar; charset=utf-8' });
  const shown: Shown = { view, revision, listed: true, documents: new Map([[`feed|${TOKEN}`, document]]) };
  const publisher = {
    door: (token: string) => (token === TOKEN ? { state: 'open', shown, keyId: TOKEN } : null),
    ready: (s: Shown, token: string, form: string) => s.documents.get(`${form}|${token}`),
  } as unknown as Publisher;
  const uses = new KeyUses(NOWHERE);
  const poll = pollPath(publisher, uses);
  const ours: RequestListener = (req, res) => {
    if (!poll(req, res)) res.writeHead(404).end();
  };
  const bare304: RequestListener = (_req, res) => {
    res.writeHead(304, {
      ETag: document.gzipEtag,
      Vary: 'Accept-Encoding',
      'Cache-Control': 'public, no-cache',
    });
    res.end();
  };
  const bare200: RequestListener = (_req, res) => {
    res.writeHead(200, {
      ...document.headers,
      ETag: document.gzipEtag,
      Vary: 'Accept-Encoding',
      'Cache-Control': 'public, no-cache',
      'Content-Length': document.gzip.length,
      'X-Content-Type-Options': 'nosniff',
      'Content-Encoding': 'gzip',
    });
    res.end(document.gzip);
  };
  const figures: Figure[] = [];
  for (const [what, headers, bare] of [
    ['warm 304', { 'accept-encoding': 'gzip', 'if-none-match': document.gzipEtag }, bare304],
    ['warm gzip 200', { 'accept-encoding': 'gzip' }, bare200],
  ] as const) {
    // One after the other and twice, the second time in the other order: the machine is not always the same.
    const a = await load(bare, headers);
    const b = await load(ours, headers);
    const c = await load(ours, headers);
    const d = await load(bare, headers);
    const ratio = (b + c) / (a + d);
    figures.push({
      what: `${what} on the poll path against a bare node:http server`,
      measured: `${Math.round((b + c) / 2)} and ${Math.round((a + d) / 2)} answers a second; counting on`,
      ratio,
      budget: '≥ 0.7',
      kept: ratio >= 0.7,
    });
  }
  return figures;
}
