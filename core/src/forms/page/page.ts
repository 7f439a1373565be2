import { outwardText, type OutwardView } from '../../glass';
import type { Revision } from '../../reach';
import { onText } from '../onText';
import { noticeWords, type Notice } from '../notice';
import { directionOf } from '../speech/reading';
import { clockChangeIn, momentText, speechOf } from '../speech/speech';
import { pageEntry } from './agenda';
import { addressWith, choiceOf, type Choice, type PageOptions, type PageQuery } from './choice';
import { daysPart, lineSetting } from './daysPage';
import { titleOf } from './entryLine';
import { entryPart, timesOfEntry } from './entryPage';
import { followPart, takePart } from './followPage';
import { headLinks, html, type Html } from './html';
import { mayLeave, noticesPart } from './noticesPage';
import { languageName, settingsPart } from './settingsPage';
import { socialPart, type Told } from './social';
import { zoneText, zoneWithOffset } from './words';

export interface WrittenPage {
  readonly html: string;
  /** Whether the view has what is asked for; where it has not, the page says so. */
  readonly found: boolean;
}

/** Returns the HTML document of a view: readable without script, from 240 px up, and on paper. */
export function writePage(view: OutwardView, revision: Revision, options: PageOptions): string {
  return writtenPage(view, revision, options).html;
}

/** Returns one of the pages of a view, and whether it has what is asked for. */
export function writtenPage(view: OutwardView, revision: Revision, asked: PageOptions): WrittenPage {
  const options = { ...asked, query: cleanQuery(asked.query) };
  const choice = choiceOf(view, options);
  const { speech, theme, parts, text } = choice;
  const { form, page = { kind: 'days' } } = options;
  const embed = form === 'embed';
  const { name, description } = text;
  const [body, told, found] = bodyOf(view, choice, options);
  const whole = page.kind === 'days';
  const document = html`<!doctype html>
<html lang="${speech.locale}" data-theme="${theme}" class="${form}">
<head>
<meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1">
<title>${told.title === name ? name : `${told.title} – ${name}`}</title>
${description && html`<meta name="description" content="${description}">`}
${['400', '700'].map((weight) => html`<link rel="preload" href="${options.assets}b612-${weight}.woff2" as="font" type="font/woff2" crossorigin>`)}
${headLinks(options.assets)}
<link rel="alternate" type="text/calendar" href="${options.addresses.feed}" title="${name}">
<link rel="alternate" type="application/atom+xml" href="${options.addresses.feed.replace(/\.ics$/, '.atom')}" title="${name}">
<script src="${options.assets}outside.js" defer></script>${discovery(options, name)}${socialPart(told, view, choice, options)}
</head>
<body data-own-times="${speech.say('ownTimes', { zone: '{zone}' })}" data-zone="${choice.zone}">
<a class="skip" href="#entries">${speech.say('skip')}</a>${options.notice ? notice(options.notice, view, choice) : ''}
${header(view, choice, options)}
${parts.has('zone') && (whole || page.kind === 'entry') && zonePart(view, choice, options)}
${body}
${whole && !embed && takePart(view, choice, options)}
${parts.has('foot') && foot(revision, choice, options)}
</body>
</html>
`;
  return { html: document.text, found };
}

/** What stands in an address goes out on the page, as texts of entries do. */
function cleanQuery(query: PageQuery): PageQuery {
  return Object.fromEntries(
    Object.entries(query).map(([name, value]) => [name, value && outwardText(value)]),
  );
}

function bodyOf(view: OutwardView, choice: Choice, options: PageOptions): [Html, Told, boolean] {
  const { page = { kind: 'days' }, addresses, now } = options;
  const { text, speech, zone } = choice;
  const canonical = addresses.canonical ?? addresses.see;
  const told = { title: text.name, description: text.description, address: canonical, entry: null };
  switch (page.kind) {
    case 'days':
      return [daysPart(view, choice, options), told, true];
    case 'settings':
      return [settingsPart(view, choice, options), { ...told, title: speech.say('settingsTitle') }, true];
    case 'follow':
      return [followPart(choice, options), { ...told, title: speech.say('follow') }, true];
    case 'notices':
      return [
        noticesPart(view, choice, options),
        { ...told, title: speech.say('notices') },
        mayLeave(view, options),
      ];
    case 'entry': {
      const setting = lineSetting(view, choice, options);
      const times = timesOfEntry(view, page.uid, page.on, now);
      const body = entryPart(times, choice, setting, options);
      if (!times) return [body, { ...told, title: speech.say('goneTitle') }, false];
      const entry = pageEntry(times.one, zone);
      const on = times.all.length > 1 ? `?on=${encodeURIComponent(onText(times.one.start))}` : '';
      const own = {
        title: titleOf(entry, setting),
        description: times.one.content?.description ?? '',
        address: `${canonical}/${page.uid}${on}`,
        entry,
      };
      return [body, own, true];
    }
  }
}

/** Sites that are given the page's address alone find here how to embed it (oEmbed 1.0 section 4). */
function discovery({ addresses, form }: PageOptions, name: string): Html {
  if (!addresses.oEmbed || form === 'embed') return html``;
  return html`
<link rel="alternate" type="application/json+oembed" href="${addresses.oEmbed}&amp;format=json" title="${name}">
<link rel="alternate" type="text/xml+oembed" href="${addresses.oEmbed}&amp;format=xml" title="${name}">`;
}

/** A new address stands above everything else. */
function notice(of: Notice, view: OutwardView, { speech }: Choice): Html {
  const { title, say } = noticeWords(of, view, speech);
  return html`
<aside class="notice" aria-label="${title}"><p><strong>${title}.</strong> ${say}</p>
${of.to && html`<p><a href="${of.to.see}" target="_top">${speech.say('noticeGo')}</a> <span>${speech.say('noticeFollow')}</span> <code>${of.to.feed}</code></p>`}</aside>`;
}

function header(view: OutwardView, choice: Choice, options: PageOptions): Html {
  const { speech, parts, text, colour } = choice;
  const { name, description, topic, language } = text;
  const about = parts.has('about');
  if (!parts.has('title') && !about) return html`<h1 class="unseen">${name}</h1>`;
  const { contact, place } = view.wording;
  return html`<header${language && html` lang="${language}" dir="${directionOf(language)}"`}>
${about && (topic || place) && html`<p class="topic">${[topic, place].filter(Boolean).join(' · ')}</p>`}
<h1${!parts.has('title') && html` class="unseen"`}><span class="plate plate-${colour}" aria-hidden="true"></span>${name}</h1>
${about && description && html`<p class="about">${description}</p>`}
${about && contact && html`<p class="about" lang="${speech.locale}" dir="auto">${speech.say('questions', { contact })}</p>`}
${about && languages(view, choice, options)}
${options.form === 'page' && html`<p class="ways" lang="${speech.locale}"><a href="${addressWith(options, {}, '/follow')}">${speech.say('follow')}</a> <span>${speech.say('followShort')}</span> <a href="${options.addresses.copy}" download>${speech.say('copy')}</a> <span>${speech.say('copyShort')}</span></p>`}
</header>`;
}

/** The languages in which the window names itself. */
function languages({ wording }: OutwardView, { speech, text }: Choice, options: PageOptions): Html {
  if (!wording.translations.length) return html``;
  const { query } = options;
  const { show, from } = query;
  const nameOf = (language: string) => (language ? languageName(language) : speech.say('original'));
  return html`<p class="languages" role="group" aria-label="${speech.say('languages')}">${[
    wording,
    ...wording.translations,
  ].map((t) =>
    t.language === text.language
      ? html`<span aria-current="true">${nameOf(t.language)}</span> `
      : html`<a href="${addressWith(options, { lang: t.language, show: show ?? null, from: from ?? null })}" hreflang="${t.language}">${nameOf(t.language)}</a> `,
  )}</p>`;
}

/** Which clock the times are on, the next clock change, and the way to the reader's own zone. */
function zonePart(view: OutwardView, choice: Choice, options: PageOptions): Html {
  const { zone, zoneAsked, speech } = choice;
  const { now, query } = options;
  const { show, from, tz } = query;
  const host = view.hostZone;
  const named = { zone: zoneWithOffset(zone, now), host: zoneWithOffset(host, now) };
  const other = zone !== host;
  const said = { show: show ?? null, from: from ?? null };
  return html`<section class="zone" aria-label="${speech.say('zone')}">
<p>${speech.say(other ? 'timesOther' : 'timesHost', named)} ${clockChangeIn(speech, zone, now)}
${other && html`<a href="${addressWith(options, { ...said, tz: '' })}">${speech.say('hostTimes')}</a> `}<a href="${addressWith(options, said, '/settings')}">${speech.say('settings')}</a></p>
${tz && !zoneAsked && html`<p role="alert">${speech.say('unknownZone', { zone: tz.slice(0, 64) })}</p>`}
</section>`;
}

/** As of when it is true: it is as the last revision, and was looked at since. */
function foot(
  revision: Revision,
  { speech, zone }: Choice,
  { form, addresses, now, listed }: PageOptions,
): Html {
  // Paper is read in other years too.
  const full = speechOf(speech);
  const said = {
    number: revision.number,
    moment: momentText(full, revision.at, zone),
    now: `${momentText(full, Math.max(now, revision.at), zone)} (${zoneText(zone)})`,
  };
  return html`<footer>${form === 'embed' && html`<p><a href="${addresses.see}" target="_blank" rel="noopener">${speech.say('wholePage')}</a></p>`}<p>${speech.say('revision', said)}</p>${listed && form === 'page' && html`<p><a href="/board">${speech.say('boardMore')}</a></p>`}</footer>`;
}
