import type { Day } from '../../zones';
import { byDay, type PageEntry } from './agenda';
import { classOf, dayHtml, longEntry, type LineSetting } from './entryLine';
import { html, type Html } from './html';

/** A page shows so many entries at most, so that it stays light; where there are more, the next one begins with them. */
const MOST_ENTRIES = 150;

export interface Listed {
  /** Heading and entries, or the words for none. */
  readonly body: Html;
  /** The entries alone. */
  readonly items: Html;
  /** The day from which on entries are left for the next page. */
  readonly next: Day;
}

/** Returns the entries of some days as one list a day; an entry of several days stands at the first one shown. */
export function list(agenda: readonly PageEntry[], from: Day, to: Day, setting: LineSetting): Listed {
  const { speech, today } = setting;
  const days = [...byDay(agenda, from, to)]
    .sort(([a], [b]) => a - b)
    .map(([day, entries]) => ({ day, entries: entries.filter((e) => e.firstDay === day || day === from) }))
    .filter(({ entries }) => entries.length);
  let count = 0;
  let next = to;
  const shown = days.filter(({ day, entries }, i) => {
    if (i && count + entries.length > MOST_ENTRIES) next = Math.min(next, day);
    else count += entries.length;
    return day < next;
  });
  const head = html`<h2>${speech.say('range', { from: speech.day(from), to: speech.day(next - 1) })}</h2>`;
  if (!shown.length) {
    const items = html`<p class="none" dir="auto">${speech.say('none')}</p>`;
    return { next, items, body: html`${head}${items}` };
  }
  const items = html`<div class="list">${shown.map(
    ({ day, entries }) =>
      html`<section${day === today && html` class="today" aria-label="${speech.say('today')}"`}><h3>${dayHtml(day, speech)}</h3>
<ul>${entries.map((e) => html`<li class="${classOf(e)}">${longEntry(e, setting)}</li>`)}</ul></section>`,
  )}</div>`;
  return { body: html`${head}${items}`, items, next };
}
