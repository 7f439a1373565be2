import { plainPage, readingOf, refusalWords, speechOf, type Closing, type Refusal } from '@zonal/core/forms';
import type { Request, Response } from 'express';
import { acceptedBy, textIn } from './reader';

const STATUS: Readonly<Record<Refusal, number>> = {
  unknown: 404,
  closed: 410,
  expired: 410,
  withdrawn: 410,
  turned: 410,
  unlisted: 410,
  many: 429,
  stopped: 503,
  unheard: 503,
  waiting: 503,
};

/** Says in the reader's language why there is nothing: on a page, or in a line of text. */
export function refuse(
  req: Request,
  res: Response,
  why: Refusal,
  page: boolean,
  closing: Closing | null = null,
): void {
  const lang = textIn(req, 'lang');
  const speech = speechOf(readingOf({ lang, accepted: acceptedBy(req) }));
  const { title, say } = refusalWords(speech, why, closing);
  if (STATUS[why] === 503) res.set('Retry-After', '5');
  res.status(STATUS[why]).set({
    'X-Robots-Tag': 'noindex, nofollow',
    'Cache-Control': 'no-cache',
    Vary: 'Accept-Language',
  });
  if (page) res.type('html').send(plainPage(title, say, speech.locale));
  else res.type('text').send(`${title}. ${say}\n`);
}
