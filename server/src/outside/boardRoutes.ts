import { ORDERS, boardAtom, boardOpml, boardPage, sitemap } from '@zonal/core/forms';
import { Router, type Request, type Response } from 'express';
import { LRUCache } from 'lru-cache';
import { documentOf, lacksBrotli, sendDocument, withBrotli, type Document } from './document';
import type { Publisher } from './publisher';
import { acceptedBy, pageHeaders, textIn } from './reader';
import { refuse } from './refuse';
import { noBody, writeHead } from './writing';

interface Kept {
  readonly version: string;
  readonly document: Document;
}

/** Bytes of what was asked for of the board, more or less. */
const ROOM = 16 * 1024 * 1024;
const LONGEST = 100;

/** Returns the routes of the notice board: all that they tell is what listed windows say of themselves. */
export function boardRoutes(publisher: Publisher, publicUrl: string): Router {
  const router = Router();
  const kept = new LRUCache<string, Kept>({
    maxSize: ROOM,
    sizeCalculation: ({ document }) => document.weight,
  });

  /** Sends what is kept as long as the board is the same. */
  const send = async (req: Request, res: Response, name: string, type: string, write: () => string) => {
    if (!publisher.canVouch) return refuse(req, res, 'unheard', type === 'text/html');
    const { version } = publisher.board;
    let known = kept.get(name);
    if (known?.version !== version) {
      const headers = { 'Content-Type': `${type}; charset=utf-8` };
      const written = { ...writeHead(write(), noBody()), body: noBody(), headers, dated: null };
      const vary = 'Accept-Encoding, Accept-Language';
      known = {
        version,
        document: documentOf({ ...written, vary, status: 200, learns: null }, noBody(), 'b'),
      };
      kept.set(name, known);
    }
    if (lacksBrotli(req, known.document)) await withBrotli(known.document);
    // As it is now: something may have been taken off meanwhile.
    if (publisher.board.version !== version) return send(req, res, name, type, write);
    sendDocument(req, res, known.document);
  };

  router.get('/board', pageHeaders, (req, res) => {
    const find = (textIn(req, 'find') ?? '').slice(0, LONGEST).trim();
    const skip = Math.max(0, Math.floor(Number(textIn(req, 'skip')) || 0));
    const order = ORDERS.find((by) => by === textIn(req, 'by')) ?? 'topic';
    const lang = textIn(req, 'lang')?.slice(0, LONGEST);
    const accepted = acceptedBy(req);
    const options = { find, skip, order, lang, accepted, origin: publicUrl, assets: '/outside/' };
    return send(req, res, JSON.stringify(['page', find, skip, order, lang, accepted]), 'text/html', () =>
      boardPage(publisher.board.windows, options),
    );
  });
  for (const [path, type, write] of [
    ['/board.opml', 'text/x-opml', boardOpml],
    ['/board.atom', 'application/atom+xml', (w) => boardAtom(w, publicUrl)],
    ['/sitemap.xml', 'application/xml', (w) => sitemap(w, publicUrl)],
  ] satisfies [string, string, typeof boardOpml][])
    router.get(path, (req, res) => send(req, res, path, type, () => write(publisher.board.windows)));
  router.get('/robots.txt', (_req, res) => {
    res.type('text').send(`User-agent: *\nDisallow: /api/\nSitemap: ${publicUrl}/sitemap.xml\n`);
  });
  return router;
}
