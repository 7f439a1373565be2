import { headLinks, html, type Html } from '../page/html';
import { followAddress, windowHead } from '../page/windowLine';
import { zoneText } from '../page/words';
import { readingOf } from '../speech/reading';
import { speechOf, type Speech } from '../speech/speech';
import type { LinkSheet, SheetLink } from './linkSheet';
import { SHOWS_SAY } from './sheetFiles';

export interface SheetPageOptions {
  readonly lang?: string | undefined;
  /** Languages that the reader's program accepts, best first. */
  readonly accepted: readonly string[];
  /** Folder of the style sheet, ending in `/`. */
  readonly assets: string;
}

/** Returns a link sheet as a page: each calendar with its page, its feed, and what is to be known of it. */
export function sheetPage({ name, note, address, links }: LinkSheet, options: SheetPageOptions): string {
  const { lang, accepted, assets } = options;
  const speech = speechOf(readingOf({ lang, accepted }));
  const languages = lang === undefined ? accepted : [lang];
  return html`<!doctype html>
<html lang="${speech.locale}" data-theme="auto" class="page">
<head>
<meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1">
<meta name="robots" content="noindex, nofollow">
<title>${name}</title>
${headLinks(assets)}
</head>
<body>
<header><h1 dir="auto">${name}</h1>
${note && html`<p class="about" dir="auto">${note}</p>`}</header>
<main>
${!links.length && html`<p class="none">${speech.say('sheetEmpty')}</p>`}
<ul class="topics">${links.map((link) => line(link, speech, languages))}</ul>
</main>
<footer><p>${speech.say('sheetLasting', { address })}</p>
<p>${speech.say('sheetCare')}</p>
<p>${speech.say('sheetFiles')} <a href="${address}.csv" download>CSV</a> <a href="${address}.json" download>JSON</a> <a href="${address}.opml" download>OPML</a></p></footer>
</body>
</html>
`.text;
}

function line(link: SheetLink, speech: Speech, languages: readonly string[]): Html {
  const say = link.shows && SHOWS_SAY[link.shows];
  return html`<li>${windowHead(link, 'h2', languages)}
${say && html`<p><strong>${speech.say(say)}</strong></p>`}
<p class="place">${speech.say('boardZone', { zone: zoneText(link.zone) })} · <a href="${followAddress(link)}">${speech.say('follow')}</a></p>
<p class="place">${speech.say('sheetFeed', { address: link.feed })}</p></li>`;
}
