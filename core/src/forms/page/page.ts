import type { OutwardView, Wording, WordingText } from '../../glass';
import type { Revision } from '../../reach';
import {
  DAY,
  allZones,
  dayFromParts,
  dayFromText,
  dayToText,
  partsOfDay,
  wallAt,
  weekdayOf,
  zoneNamed,
  type Day,
  type Instant,
  type ZoneName,
  dayAt,
} from '../../zones';
import { agendaOf } from './agenda';
import { grid, list } from './entryLists';
import { Html, html } from './html';
import { noticeWords, type Notice } from '../notice';
import { clockChangeText, dayText, monthText, timeText, zoneText, zoneWithOffset } from './words';

export const SHOWINGS = ['list', 'week', 'month'] as const;
export type Showing = (typeof SHOWINGS)[number];

/** What a reader chose in the query string; anything not understood falls back to the default. */
export interface PageQuery {
  readonly show?: string | undefined;
  readonly from?: string | undefined;
  readonly tz?: string | undefined;
  readonly theme?: string | undefined;
  readonly lang?: string | undefined;
}

export interface PageOptions {
  readonly form: 'page' | 'embed';
  readonly query: PageQuery;
  readonly now: Instant;
  /** Addresses of the other forms; absolute where programs use them. */
  readonly addresses: PageAddresses;
  /** Folder of style sheet, script and typeface, ending in `/`. */
  readonly assets: string;
  /** What readers with this address have to be told besides, such as a new one. */
  readonly notice?: Notice | null;
}

export interface PageAddresses {
  readonly self: string;
  readonly see: string;
  readonly feed: string;
  readonly copy: string;
  /** Where sites learn how to embed the page (oEmbed), with its own address at the end; left out where there is none. */
  readonly oEmbed?: string;
}

const LIST_DAYS = 30;

interface Choice {
  readonly show: Showing;
  readonly from: Day;
  readonly zone: ZoneName;
  readonly zoneAsked: boolean;
}

/** Returns the HTML document of a view: readable without script, from 240 px up, and on paper. */
export function writePage(view: OutwardView, revision: Revision, options: PageOptions): string {
  const choice = choiceOf(view, options);
  const embed = options.form === 'embed';
  const theme = ['light', 'dark'].includes(options.query.theme ?? '') ? options.query.theme! : 'auto';
  const { colour, contact } = view.wording;
  const text = textIn(view.wording, options.query.lang);
  const { name, description, topic } = text;
  const marked = text.language ? new Html(` lang="${text.language}"`) : '';
  const page = html`<!doctype html>
<html lang="en" data-theme="${theme}" class="${options.form}">
<head>
<meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1">
<title>${name}</title>
${description && html`<meta name="description" content="${description}">`}
<link rel="stylesheet" href="${options.assets}outside.css">
<link rel="alternate" type="text/calendar" href="${options.addresses.feed}" title="${name}">
<script src="${options.assets}outside.js" defer></script>${discovery(options, name)}
</head>
<body>
<a class="skip" href="#entries">Go to the entries</a>${options.notice ? told(options.notice, view) : ''}
<header${marked}>
${topic && html`<p class="topic">${topic}</p>`}
<h1><span class="plate plate-${colour}" aria-hidden="true"></span>${name}</h1>
${description && html`<p class="about">${description}</p>`}
${contact && html`<p class="about">Questions: ${contact}</p>`}
${languages(view.wording, text, options)}
${!embed && html`<p class="ways"><a href="#follow">Follow</a> <span>stays up to date</span> <a href="#copy">Take a copy</a> <span>a file that stays as it is</span></p>`}
</header>
${zonePart(view, choice, options)}
${steps(choice, options)}
<main id="entries">${entries(view, choice, options)}</main>
${embed ? embedFoot(options) : follow(options)}
<footer><p>Revision ${revision.number}, changed ${momentText(revision.at, choice.zone)}.</p></footer>
</body>
</html>
`;
  return page.text;
}

/** Sites that are given the page's address alone find here how to embed it (oEmbed 1.0 section 4). */
function discovery({ addresses, form }: PageOptions, name: string): Html {
  if (!addresses.oEmbed || form === 'embed') return html``;
  return html`
<link rel="alternate" type="application/json+oembed" href="${addresses.oEmbed}&amp;format=json" title="${name}">
<link rel="alternate" type="text/xml+oembed" href="${addresses.oEmbed}&amp;format=xml" title="${name}">`;
}

/** A new address stands above everything else. */
function told(notice: Notice, view: OutwardView): Html {
  const { title, say } = noticeWords(notice, view);
  return html`
<aside class="notice" aria-label="${title}"><p><strong>${title}.</strong> ${say}</p>
<p><a href="${notice.see}" target="_top">Go to the new page</a> <span>or follow</span> <code>${notice.feed}</code></p></aside>`;
}

/** Returns the wording in the language asked for, or as the host writes it. */
function textIn(wording: Wording, language: string | undefined): WordingText {
  return wording.translations.find((t) => t.language === language) ?? wording;
}

/** The other languages in which the window names itself. */
function languages(wording: Wording, chosen: WordingText, options: PageOptions): Html {
  if (!wording.translations.length) return html``;
  const { show, from, tz, theme } = options.query;
  const rest = Object.entries({ show, from, tz, theme }).flatMap(([k, v]) =>
    v ? [`${k}=${encodeURIComponent(v)}`] : [],
  );
  return html`<p class="languages">${[wording, ...wording.translations].map((t) =>
    t.language === chosen.language
      ? html`<span aria-current="true">${t.language || 'original'}</span> `
      : html`<a href="${options.addresses.self}?${[`lang=${encodeURIComponent(t.language)}`, ...rest].join('&')}" hreflang="${t.language}">${t.language || 'original'}</a> `,
  )}</p>`;
}

function choiceOf(view: OutwardView, { query, now, form }: PageOptions): Choice {
  const asked = query.tz ? zoneNamed(query.tz) : null;
  const zone = asked ?? view.hostZone;
  const show = SHOWINGS.find((s) => s === query.show) ?? (form === 'embed' ? 'list' : 'month');
  let from = dayAt(zone, now);
  try {
    if (query.from) from = dayFromText(query.from);
  } catch {
    // An unreadable day in an address shows today, as no day would.
  }
  const first = dayAt(view.hostZone, view.range.from) - 31;
  const last = dayAt(view.hostZone, view.range.to) + 31;
  return { show, from: Math.min(Math.max(from, first), last), zone, zoneAsked: asked !== null };
}

function entries(view: OutwardView, { show, from, zone }: Choice, { now }: PageOptions): Html {
  const today = dayAt(zone, now);
  const { hostZone } = view;
  const { busyWord } = view.wording;
  const agenda = (first: Day, end: Day) => agendaOf(view, zone, first, end);
  if (show === 'list') {
    const end = from + LIST_DAYS;
    return list(agenda(from, end), from, end, { today, busyWord, hostZone });
  }
  if (show === 'week') {
    const monday = from - weekdayOf(from);
    return grid(agenda(monday, monday + 7), monday, monday + 7, {
      today,
      busyWord,
      hostZone,
      month: null,
      caption: `Week of ${dayText(monday)}`,
    });
  }
  const { year, month } = partsOfDay(from);
  const first = dayFromParts(year, month, 1);
  const last = dayFromParts(year, month + 1, 1) - 1;
  const [monday, end] = [first - weekdayOf(first), last + 7 - weekdayOf(last)];
  return grid(agenda(monday, end), monday, end, {
    today,
    busyWord,
    hostZone,
    month,
    caption: monthText(first),
  });
}

/** Which clock the times are on, the next clock change, and the switch to the reader's own zone. */
function zonePart(view: OutwardView, { zone, zoneAsked, ...choice }: Choice, options: PageOptions): Html {
  const { now } = options;
  const host = view.hostZone;
  const other = zone !== host;
  return html`<section class="zone" aria-label="Time zone">
<p>Times are in <strong>${zoneWithOffset(zone, now)}</strong>${other ? html`, not in the host’s zone ${zoneWithOffset(host, now)}` : ', the host’s zone'}. ${clockChangeText(zone, now)}
${other && html` <a href="${address(options, { ...choice, zone: null })}">Show the host’s times</a>`}</p>
<details><summary>Show times in another zone</summary>
<form method="get" action="${options.addresses.self}" data-zone-form>
<label>Your time zone <select name="tz">${zoneOptions(zone)}</select></label>
<input type="hidden" name="show" value="${choice.show}"><input type="hidden" name="from" value="${dayToText(choice.from)}">
<button>Show</button></form></details>
${options.query.tz && !zoneAsked && html`<p role="alert">“${options.query.tz}” is not a known time zone, so the host’s times are shown.</p>`}
</section>`;
}

let optionTexts: { zone: ZoneName; text: string }[] | undefined;

/** The list of zones is long and always the same but for the one chosen. */
function zoneOptions(chosen: ZoneName): Html {
  optionTexts ??= allZones().map((zone) => ({ zone, text: html`>${zoneText(zone)}</option>`.text }));
  return new Html(
    optionTexts
      .map(({ zone, text }) => `<option value="${zone}"${zone === chosen ? ' selected' : ''}${text}`)
      .join(''),
  );
}

/** Switch between list, week and month, and the way to earlier and later days. */
function steps(choice: Choice, options: PageOptions): Html {
  const { show, from } = choice;
  const zone = choice.zoneAsked ? choice.zone : null;
  const { year, month } = partsOfDay(from);
  const turn = {
    list: [from - LIST_DAYS, from + LIST_DAYS],
    week: [from - 7, from + 7],
    month: [dayFromParts(year, month - 1, 1), dayFromParts(year, month + 1, 1)],
  }[show] as [Day, Day];
  const today = dayAt(choice.zone, options.now);
  const link = (to: Day, text: string, rel: string) =>
    html`<a href="${address(options, { show, from: to, zone })}"${rel ? new Html(` rel="${rel}"`) : ''}>${text}</a>`;
  return html`<nav aria-label="Days shown">
<span class="turn">${link(turn[0], '← Earlier', 'prev')} ${link(today, 'Today', '')} ${link(turn[1], 'Later →', 'next')}</span>
<span class="shows">${SHOWINGS.map((s) =>
    s === show
      ? html`<span aria-current="true">${s}</span>`
      : html`<a href="${address(options, { show: s, from, zone })}">${s}</a>`,
  )}</span>
</nav>`;
}

function address(options: PageOptions, to: { show: Showing; from: Day; zone: ZoneName | null }): string {
  const parts = [`show=${to.show}`, `from=${dayToText(to.from)}`];
  if (to.zone) parts.push(`tz=${encodeURIComponent(to.zone)}`);
  for (const key of ['theme', 'lang'] as const) {
    const value = options.query[key];
    if (value) parts.push(`${key}=${encodeURIComponent(value)}`);
  }
  return `${options.addresses.self}?${parts.join('&')}`;
}

function follow({ addresses }: PageOptions): Html {
  const webcal = addresses.feed.replace(/^https?:/, 'webcal:');
  return html`<section class="take" aria-label="Follow, or take a copy">
<div id="follow"><h2>Follow</h2>
<p>Your calendar program looks here again by itself, and shows changes as they are made.</p>
<p><a class="button" href="${webcal}">Follow in a calendar program</a></p>
<p>If nothing opens, add a calendar “from the web” in your program and paste this address:<br><code>${addresses.feed}</code></p></div>
<div id="copy"><h2>Take a copy</h2>
<p>A file with what is known at this moment. Later changes do not reach it.</p>
<p><a class="button quiet" href="${addresses.copy}" download>Take a copy (.ics)</a></p></div>
</section>`;
}

function embedFoot({ addresses }: PageOptions): Html {
  return html`<p class="foot"><a href="${addresses.see}" target="_blank" rel="noopener">Open the whole page, to follow or take a copy</a></p>`;
}

function momentText(at: Instant, zone: ZoneName): string {
  const wall = wallAt(zone, at);
  return `${dayText(Math.floor(wall / DAY))} at ${timeText(wall)}`;
}
