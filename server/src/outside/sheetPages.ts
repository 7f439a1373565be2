import {
  outwardSheet,
  plainName,
  readingOf,
  sheetCsv,
  sheetJson,
  sheetMail,
  sheetOpml,
  sheetPage,
  speechOf,
  type LinkSheet,
} from '@zonal/core/forms';
import { Router, type ErrorRequestHandler, type Request, type Response } from 'express';
import { SheetRow } from '../db/models';
import type { Publishing } from '../glass/publishWindow';
import { unknownKeyLimit } from '../http/limits';
import { log } from '../log';
import { acceptedBy, isReadable, pageHeaders, textIn } from './reader';
import { refuse } from './refuse';
import { sheetTold, tokenPrint } from './sheetStore';

type Write = (sheet: LinkSheet, req: Request) => string;

const reading = (req: Request) => ({ lang: textIn(req, 'lang')?.slice(0, 100), accepted: acceptedBy(req) });

/** The forms of a link sheet by the ending of its address: what type each is of, and how it is written. */
const SHEET_FORMS: Readonly<Record<string, { readonly type: string; readonly write: Write }>> = {
  csv: { type: 'text/csv', write: sheetCsv },
  json: { type: 'application/json', write: sheetJson },
  opml: { type: 'text/x-opml', write: sheetOpml },
  txt: {
    type: 'text/plain',
    write: (sheet, req) => sheetMail(sheet, speechOf(readingOf(reading(req)))),
  },
  // The last: it would take the endings of the others for a part of the address.
  '': {
    type: 'text/html',
    write: (sheet, req) => sheetPage(sheet, { ...reading(req), assets: '/outside/' }),
  },
};

/**
 * Returns the routes of link sheets for whoever has their address. Each is put together anew when it is asked for, so that
 * what was withdrawn is not on it from that moment on, whichever process answers.
 */
export function sheetPages(publishing: Publishing): Router {
  const router = Router();
  router.use('/links', pageHeaders);
  const limit = unknownKeyLimit();
  /** Who tries many addresses that nobody has is slowed down. */
  const nowhere = (req: Request, res: Response) =>
    limit(req, res, (error?: unknown) =>
      refuse(req, res, error ? 'many' : 'unknown', !/\.\w+$/.test(req.path)),
    );
  router.use('/links', (req, res, next) => (isReadable(req.path) ? next() : nowhere(req, res)));
  for (const [ending, { type, write }] of Object.entries(SHEET_FORMS))
    router.get(ending ? `/links/:token.${ending}` : '/links/:token', async (req, res) => {
      const row = await SheetRow.findOne({ where: { tokenPrint: tokenPrint(String(req.params['token'])) } });
      if (!row) return nowhere(req, res);
      if (row.withdrawnAt) return refuse(req, res, 'withdrawn', !ending);
      const sheet = outwardSheet(await sheetTold(publishing, row));
      res.set({
        'X-Robots-Tag': 'noindex, nofollow',
        'Cache-Control': 'no-store',
        Vary: 'Accept-Language',
        ...(['csv', 'opml', 'json'].includes(ending)
          ? { 'Content-Disposition': `attachment; filename="${plainName(sheet.name, 'links')}.${ending}"` }
          : {}),
      });
      res.type(`${type}; charset=utf-8`).send(write(sheet, req));
    });
  router.use('/links', nowhere);
  // No old copy is kept: it could tell of what was withdrawn.
  const trouble: ErrorRequestHandler = (error, req, res, _next) => {
    log.warn({ err: error as unknown }, 'a link sheet could not be told');
    refuse(req, res, 'unheard', true);
  };
  router.use('/links', trouble);
  return router;
}
