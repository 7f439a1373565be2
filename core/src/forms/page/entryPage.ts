import { occurrencesOfView, type OutwardOccurrence, type OutwardView } from '../../glass';
import type { Instant } from '../../zones';
import { pageEntry, type PageEntry } from './agenda';
import { addressWith, type Choice, type PageOptions } from './choice';
import { onText } from '../onText';
import { dayHtml, details, marks, spanText, titleOf, type LineSetting } from './entryLine';
import { html, type Html } from './html';

/** So many dates of a series are told on its page. */
const MOST_DATES = 20;

/** All times at which an entry of a view takes place, and the one that is meant. */
export interface EntryTimes {
  readonly all: readonly OutwardOccurrence[];
  readonly one: OutwardOccurrence;
}

/**
 * Returns the times of an entry by its outward identifier, and the one that `on` names, else the next one that is not over;
 * null where the view has no such entry, or it is not on that date.
 */
export function timesOfEntry(view: OutwardView, uid: string, on: string, now: Instant): EntryTimes | null {
  const items = view.items.filter((item) => item.uid === uid);
  const all = occurrencesOfView({ ...view, items });
  const one = on ? all.find((o) => named(onText(o.start), on)) : (all.find((o) => o.to > now) ?? all.at(-1));
  return one ? { all, one } : null;
}

/** A day names what begins on it: due items go out as whole days. */
function named(start: string, on: string): boolean {
  return start === on || start.slice(0, 10) === on;
}

/** Returns an entry's own page, or what stands there where the view does not have it. */
export function entryPart(
  times: EntryTimes | null,
  choice: Choice,
  setting: LineSetting,
  options: PageOptions,
): Html {
  const { speech, zone, text } = choice;
  const back = html`<p><a href="${addressWith(options, {})}">${speech.say('back', { name: text.name })}</a></p>`;
  if (!times)
    return html`<main id="entries">${back}<h2>${speech.say('goneTitle')}</h2><p>${speech.say('gone')}</p></main>`;
  const entry = pageEntry(times.one, zone);
  const series = times.all.length > 1;
  const file = (on: string) =>
    `${options.addresses.copy.replace(/\.ics$/, '')}/${times.one.uid}.ics${on ? `?on=${encodeURIComponent(on)}` : ''}`;
  return html`<main id="entries">${back}
<article class="entry"><h2 dir="auto">${titleOf(entry, setting)}</h2>${marks(entry, true, setting)}
<p class="when">${dayHtml(entry.firstDay, speech)} <span class="time" dir="ltr">${spanText(entry, speech)}</span></p>
${details(entry, setting)}</article>
<section class="keep"><p>${series ? html`<a class="button" href="${file(onText(times.one.start))}" download>${speech.say('oneDateFile')}</a> <a class="button quiet" href="${file('')}" download>${speech.say('seriesFile')}</a>` : html`<a class="button" href="${file('')}" download>${speech.say('oneFile')}</a>`}</p>
<p class="about">${speech.say('oneHelp')} <a href="${options.addresses.see}/follow">${speech.say('followHow')}</a></p></section>
${series && dates(times, entry, choice, setting, options.now)}</main>`;
}

function dates(
  times: EntryTimes,
  shown: PageEntry,
  choice: Choice,
  setting: LineSetting,
  now: Instant,
): Html {
  const { speech, zone } = choice;
  const ahead = times.all.filter((o) => o.to > now);
  const rest = ahead.length - MOST_DATES;
  return html`<section><h2>${speech.say('dates')}</h2>
${ahead.length ? html`<ul class="dates">${ahead.slice(0, MOST_DATES).map((one) => dateLine(pageEntry(one, zone), shown, setting))}</ul>` : html`<p>${speech.say('datesNone')}</p>`}
${rest > 0 && html`<p>${speech.say('datesMore', { count: rest })}</p>`}</section>`;
}

function dateLine(entry: PageEntry, shown: PageEntry, setting: LineSetting): Html {
  const { speech, addressOf } = setting;
  const text = html`${dayHtml(entry.firstDay, speech)} <span class="time" dir="ltr">${spanText(entry, speech)}</span>`;
  const own = onText(entry.one.start) === onText(shown.one.start);
  return html`<li>${own ? html`<strong aria-current="date">${text}</strong>` : html`<a href="${addressOf(entry)}">${text}</a>`}${marks(entry, false, setting)}</li>`;
}
