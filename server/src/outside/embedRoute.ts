import { fitScript, oEmbed, oEmbedXml } from '@zonal/core/forms';
import type { Request, Response } from 'express';
import { addressesOf } from '../glass/addresses';
import type { Door, Publisher } from './publisher';

/** The secret part of an address of ours: of a page, or of an embed. */
const ADDRESS = /^\/(?:see|embed)\/([\w-]{1,200})$/;

/** Answers a site that was given the address of a page alone (oEmbed 1.0); `refuse` tells why it leads nowhere. */
export function embedRoute(
  publisher: Publisher,
  publicUrl: string,
  refuse: (req: Request, res: Response, door: Door | null) => void,
): (req: Request, res: Response) => void {
  return (req, res) => {
    const format = req.query['format'] ?? 'json';
    if (format !== 'json' && format !== 'xml') {
      res.status(501).type('text').send('Only the formats json and xml are known. Ask for one of them.\n');
      return;
    }
    const token = tokenIn(req.query['url'], publicUrl);
    const door = token === null ? null : publisher.door(token);
    if (door?.state !== 'open' && door?.state !== 'waiting') return refuse(req, res, door);
    // An address that was turned leads on to the one that takes its place.
    const lasting = door.state === 'open' ? (door.place.moved?.token ?? token!) : token!;
    const { embed, see } = addressesOf(publicUrl, lasting);
    const told = oEmbed(
      { name: publisher.nameOf(token!) ?? '', embed, see, origin: publicUrl, script: fitScript(publicUrl) },
      most(req.query['maxwidth']),
      most(req.query['maxheight']),
    );
    res.set({
      'Cache-Control': 'no-cache',
      'X-Robots-Tag': 'noindex, nofollow',
      'Access-Control-Allow-Origin': '*',
    });
    if (format === 'json') res.json(told);
    else res.type('text/xml; charset=utf-8').send(oEmbedXml(told));
  };
}

function tokenIn(url: unknown, publicUrl: string): string | null {
  if (typeof url !== 'string' || !URL.canParse(url)) return null;
  const { origin, pathname } = new URL(url);
  if (origin !== new URL(publicUrl).origin) return null;
  return ADDRESS.exec(pathname)?.[1] ?? null;
}

/** What is no whole number of pixels asks for nothing. */
function most(text: unknown): number {
  return typeof text === 'string' && /^[1-9]\d{0,5}$/.test(text) ? Number(text) : Infinity;
}
