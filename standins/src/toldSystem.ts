import express, { Router } from 'express';
import { Webhook } from 'standardwebhooks';
import { escape } from './html';

/** A request that came, and whether its signature was that of the secret which was set. */
export interface ToldRequest {
  readonly at: string;
  readonly id: string;
  readonly signed: 'right' | 'wrong' | 'not checked';
  readonly body: string;
  readonly answered: number;
}

const STYLE = `
body { margin: 0; font: 16px/1.5 Georgia, serif; background: #e7e9ee; color: #1f2330; }
header { background: #33405c; color: #fff; padding: 14px 24px; }
main { max-width: 900px; margin: 0 auto; padding: 16px 24px 48px; }
input { font: inherit; padding: 4px 8px; width: 26rem; max-width: 100%; }
button { font: inherit; padding: 4px 12px; }
button[aria-pressed=true] { background: #33405c; color: #fff; }
article { background: #fff; border: 1px solid #b3bac9; padding: 8px 14px; margin: 10px 0; }
pre { white-space: pre-wrap; overflow-wrap: anywhere; margin: 6px 0 0; }
`;

/** So many of the newest requests are kept. */
const KEPT = 30;
const ANSWERS = { 204: 'takes it', 503: 'says “not now”', 410: 'wants no more' } as const;

/**
 * Returns a system of somebody else that is told of changes by signed requests (Standard Webhooks), at `/told`; its page shows
 * what came, checks it by the secret that is given, and lets it answer otherwise.
 */
export function toldSystem(): Router {
  const requests: ToldRequest[] = [];
  let [secret, answer] = ['', 204];
  const router = Router();
  router.post('/told', express.text({ type: () => true, limit: '200kb' }), (req, res) => {
    const body = typeof req.body === 'string' ? req.body : '';
    const { 'webhook-id': id } = req.headers;
    requests.unshift({
      at: new Date().toISOString(),
      id: typeof id === 'string' ? id : '',
      signed: signed(secret, body, req.headers),
      body,
      answered: answer,
    });
    requests.splice(KEPT);
    res.status(answer).end();
  });
  router.get('/told.json', (_req, res) => {
    res.json({ answer, requests });
  });
  router.get('/told', (_req, res) => {
    res.type('html').send(page(requests, secret, answer));
  });
  router.post('/told/set', express.urlencoded({ extended: false }), (req, res) => {
    const { secret: given, answer: wanted } = req.body as Readonly<Record<string, unknown>>;
    if (typeof given === 'string') secret = given.trim();
    if (Object.hasOwn(ANSWERS, String(wanted))) answer = Number(wanted);
    res.redirect(303, '/told');
  });
  return router;
}

function signed(secret: string, body: string, headers: object): ToldRequest['signed'] {
  if (!secret) return 'not checked';
  try {
    new Webhook(secret).verify(body, headers as Record<string, string>);
    return 'right';
  } catch {
    return 'wrong';
  }
}

const page = (requests: readonly ToldRequest[], secret: string, answer: number) => `<!doctype html>
<html lang="en">
<head>
<meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1">
<title>A system that is told of changes</title>
<style>${STYLE}</style>
</head>
<body>
<header><strong>A system of somebody else</strong> that is told of changes by signed requests to this address.</header>
<main>
<form method="post" action="/told/set"><p><label>Secret by which it checks them<br><input name="secret" value="${escape(secret)}"></label> <button>Keep</button></p></form>
<form method="post" action="/told/set"><p>It ${Object.entries(ANSWERS)
  .map(
    ([status, words]) =>
      `<button name="answer" value="${status}" aria-pressed="${Number(status) === answer}">${words} (${status})</button>`,
  )
  .join(' ')}</p></form>
<h1>What it was told</h1>
${requests.map(one).join('\n') || '<p>Nothing yet.</p>'}
</main>
</body>
</html>
`;

const one = ({ at, id, signed: how, body, answered }: ToldRequest) =>
  `<article><strong>${at.slice(0, 19).replace('T', ' ')} UTC</strong>, ${escape(id)}: signature ${how}, answered ${answered}<pre>${escape(body)}</pre></article>`;
