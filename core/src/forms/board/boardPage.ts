import { readingOf } from '../speech/reading';
import type { Message } from '../speech/catalogue';
import { speechOf, type Speech } from '../speech/speech';
import { textFor } from '../page/choice';
import { headLinks, html, type Html } from '../page/html';
import { followAddress, windowHead } from '../page/windowLine';
import { zoneText } from '../page/words';
import { outwardText } from '../../glass';
import { ORDERS, findOnBoard, grouped, type BoardWindow, type Order } from './board';

export interface BoardOptions {
  /** Words that are looked for, and how many windows come before those shown. */
  readonly find: string;
  readonly skip: number;
  readonly order: Order;
  readonly lang?: string | undefined;
  readonly accepted: readonly string[];
  /** Of the house, without a slash at its end. */
  readonly origin: string;
  readonly assets: string;
}

const ORDER_SAY = { topic: 'boardByTopic', place: 'boardByPlace' } as const satisfies Record<Order, Message>;

/** A page of the board shows so many windows. */
const MOST = 100;

/** Returns the notice board: listed windows by topic or place, each with its place, its page and its feed. */
export function boardPage(windows: readonly BoardWindow[], options: BoardOptions): string {
  const { skip, order, accepted, origin, assets } = options;
  const find = outwardText(options.find);
  const lang = options.lang && outwardText(options.lang);
  const speech = speechOf(readingOf({ lang, accepted }));
  const languages = lang === undefined ? accepted : [lang];
  const found = findOnBoard(windows, find);
  const all = grouped(found, languages, order).flatMap(({ heading, windows: own }) =>
    own.map((w) => ({ heading, window: w })),
  );
  const shown = all.slice(skip, skip + MOST);
  const next = skip + MOST < all.length ? skip + MOST : null;
  const address = (by: Order, from: number) => {
    const said = { find, lang, by: by === 'topic' ? '' : by, skip: from ? String(from) : '' };
    const query = Object.entries(said).filter((pair): pair is [string, string] => Boolean(pair[1]));
    return query.length ? `/board?${new URLSearchParams(query).toString()}` : '/board';
  };
  const headings = [...new Set(shown.map((s) => s.heading))];
  return html`<!doctype html>
<html lang="${speech.locale}" data-theme="auto" class="page">
<head>
<meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1">
<title>${speech.say('board')}</title>
<meta name="description" content="${speech.say('boardSay')}">
${headLinks(assets)}
<link rel="alternate" type="application/atom+xml" href="/board.atom" title="${speech.say('board')}">
<link rel="canonical" href="${origin}/board">
</head>
<body>
<a class="skip" href="#calendars">${speech.say('skip')}</a>
<header><h1>${speech.say('board')}</h1><p class="about">${speech.say('boardSay')}</p></header>
<nav aria-label="${speech.say('boardFind')}"><form role="search" method="get" action="/board"><label><span class="unseen">${speech.say('boardFind')}</span><input type="search" name="find" value="${find}" maxlength="100" placeholder="${speech.say('boardFind')}"></label>${lang !== undefined && html`<input type="hidden" name="lang" value="${lang}">`}${order !== 'topic' && html`<input type="hidden" name="by" value="${order}">`}<button>${speech.say('find')}</button></form>
<span>${ORDERS.map((by) => html`<a href="${address(by, 0)}"${by === order && html` aria-current="true"`}>${speech.say(ORDER_SAY[by])}</a> `)}</span></nav>
<main id="calendars">
${!shown.length && html`<p class="none">${find ? speech.say('boardNotFound', { words: find }) : speech.say('boardEmpty')}</p>`}
${headings.map(
  (heading) => html`<section class="topics"><h2 dir="auto">${heading || speech.say('boardOthers')}</h2>
<ul>${shown.filter((s) => s.heading === heading).map((s) => line(s.window, speech, languages))}</ul></section>`,
)}
${next !== null && html`<p><a href="${address(order, next)}" rel="next">${speech.say('boardNext')}</a></p>`}
</main>
<footer><p>${speech.say('boardFollow')} <a href="/board.atom">Atom</a> <a href="/board.opml" download>OPML</a></p></footer>
</body>
</html>
`.text;
}

function line(window: BoardWindow, speech: Speech, languages: readonly string[]): Html {
  const { topic } = textFor(window.wording, languages);
  return html`<li>${windowHead(window, 'h3', languages)}
<p class="place">${[topic, window.wording.place].filter(Boolean).map((text) => html`<bdi>${text}</bdi> · `)}${speech.say('boardZone', { zone: zoneText(window.zone) })} · <a href="${followAddress(window)}">${speech.say('follow')}</a></p></li>`;
}
