import { SHOWINGS, occurrencesOfView, type OutwardItem, type OutwardView } from '../../glass';
import { finder } from '../../entries';
import { dayFromParts, dayToText, instantOf, partsOfDay, weekdayOf, DAY, type Day } from '../../zones';
import { agendaOf, pageEntry, type PageEntry } from './agenda';
import {
  addressWith,
  daysAddress,
  hiddenFields,
  queryWith,
  filterOfChoice,
  type Choice,
  type PageOptions,
} from './choice';
import { onText } from '../onText';
import type { LineSetting } from './entryLine';
import { grid } from './grid';
import { html, type Html } from './html';
import { legend } from './legend';
import { list } from './list';
import { week } from './week';

/** Days of a list, and times that are found and shown at once. */
const LIST_DAYS = 30;
const MOST_FOUND = 50;
/** Days that a month shows on a narrow screen, at least. */
const NARROW_DAYS = 21;

interface Shown {
  readonly body: Html;
  /** First days of what lies before and after. */
  readonly before: Day;
  readonly after: Day;
}

/** Returns the days of a window: the way to others, and what stands on these. */
export function daysPart(view: OutwardView, choice: Choice, options: PageOptions): Html {
  const shown = choice.find ? foundPart(view, choice, options) : shownPart(view, choice, options);
  return html`${steps(shown, choice, options)}
${choice.parts.has('legend') && legend(view, choice, options)}
<main id="entries"${directionMark(choice)}>${shown.body}</main>`;
}

/** The window's own language rules where things stand; texts of entries find their own direction. */
function directionMark({ direction }: Choice): Html {
  return direction === 'rtl' ? html` dir="rtl"` : html``;
}

/** Returns what the lines of a page have in common. */
export function lineSetting(view: OutwardView, choice: Choice, options: PageOptions): LineSetting {
  const { speech, today } = choice;
  const addressOf = ({ one }: PageEntry) => addressWith(options, { on: onText(one.start) }, `/${one.uid}`);
  const { busyWord, calendars = [] } = view.wording;
  return {
    speech,
    today,
    hostZone: view.hostZone,
    busyWord,
    calendars,
    tellsFree: isMixed(view),
    addressOf,
    // Previews have addresses that are no URLs.
    see: options.addresses.see.replace(/^https?:\/\/[^/]+/, ''),
  };
}

/** Whether some of a view's times are taken and others left free. */
function isMixed({ items }: OutwardView): boolean {
  const isFree = (item: OutwardItem) => item.kind !== 'busy' && item.content.shows === 'free';
  return items.some(isFree) && !items.every(isFree);
}

function shownPart(view: OutwardView, choice: Choice, options: PageOptions): Shown {
  const { show, from, zone, speech } = choice;
  const wanted = filterOfChoice(choice);
  const agenda = (first: Day, end: Day) => agendaOf(view, zone, first, end, wanted);
  const setting = lineSetting(view, choice, options);
  const listOf = (day: Day) => daysAddress(options, 'list', day);
  if (show === 'list') {
    const end = from + LIST_DAYS;
    const { body, next } = list(agenda(from, end), from, end, setting);
    return { body, before: from - LIST_DAYS, after: next };
  }
  const weekStart = (day: Day) => day - ((weekdayOf(day) - speech.firstDay + 7) % 7);
  if (show === 'week') {
    const first = weekStart(from);
    const caption = speech.say('weekOf', { day: speech.day(first) });
    const body = week(agenda(first, first + 7), first, { ...setting, caption, listOf });
    return { body, before: from - 7, after: from + 7 };
  }
  const { year, month } = partsOfDay(from);
  const first = dayFromParts(year, month, 1);
  const next = dayFromParts(year, month + 1, 1);
  const [start, end] = [weekStart(first), weekStart(next - 1) + 7];
  const caption = speech.month(first);
  // Narrow screens show today and what follows, so they go on where the month ends.
  const isNow = choice.today >= first && choice.today < next;
  const until = isNow ? Math.max(end, weekStart(choice.today + NARROW_DAYS) + 7) : end;
  const body = grid(agenda(start, until), start, until, { ...setting, month, isNow, end, caption, listOf });
  return { body, before: dayFromParts(year, month - 1, 1), after: next };
}

/** Times at which all words are found, from the first day asked for on. */
function foundPart(view: OutwardView, choice: Choice, options: PageOptions): Shown {
  const { find, from, zone, speech } = choice;
  const matches = finder({ text: find, in: 'text' });
  const { busyWord } = view.wording;
  const within = { from: instantOf(zone, from * DAY), to: Infinity };
  const wanted = filterOfChoice(choice);
  const found = occurrencesOfView(view, within).filter(
    (one) => wanted(one) && matches(one.content ?? { title: busyWord }),
  );
  const entries = found.slice(0, MOST_FOUND).map((one) => pageEntry(one, zone));
  const days = entries.map((e) => e.firstDay);
  const last = Math.max(from, ...days);
  const count = { count: found.length, words: find, from: speech.day(from) };
  const body = html`<h2>${speech.say('found', count)}</h2>
<p dir="auto">${speech.say('findHelp')} <a href="${daysAddress(options, choice.show, from)}">${speech.say('endFind')}</a></p>
${entries.length > 0 && list(entries, Math.min(from, ...days), last + 1, lineSetting(view, choice, options)).items}
${found.length > MOST_FOUND && html`<p dir="auto">${speech.say('foundMore', { count: MOST_FOUND, day: speech.day(last) })}</p>`}`;
  return {
    body,
    before: from - LIST_DAYS,
    after: found.length > MOST_FOUND ? Math.max(last, from + 1) : from + LIST_DAYS,
  };
}

/** Switch between list, week and month, the way to earlier and later days, and the field to find something. */
function steps({ before, after }: Shown, choice: Choice, options: PageOptions): Html {
  const { show, from, today, speech, find, parts } = choice;
  const wanted = (['turn', 'shows', 'find'] as const).some((part) => parts.has(part));
  if (!wanted) return html``;
  const link = (to: Day, text: string, rel: string, mark: string) =>
    html`<a href="${addressWith(options, { show, from: dayToText(to), find })}"${rel ? html` rel="${rel}"` : ''} class="${mark}">${text}</a> `;
  return html`<nav aria-label="${speech.say('days')}">
${parts.has('turn') && html`<span class="turn">${link(before, speech.say('earlier'), 'prev', 'back')}${link(today, speech.say('today'), '', '')}${link(after, speech.say('later'), 'next', 'on')}</span>`}
${parts.has('shows') && html`<span class="shows">${SHOWINGS.map((s) => (s === show && !find ? html`<span aria-current="true">${speech.say(s)}</span> ` : html`<a href="${daysAddress(options, s, from)}">${speech.say(s)}</a> `))}</span>`}
${parts.has('find') && findForm(choice, options)}
</nav>`;
}

function findForm({ speech, find, show, from }: Choice, options: PageOptions): Html {
  const said = { show, from: dayToText(from) };
  return html`<form role="search" method="get" action="${options.addresses.self}"><label><span class="unseen">${speech.say('findWhat')}</span><input type="search" name="find" value="${find}" maxlength="100" placeholder="${speech.say('findWhat')}"></label>${hiddenFields(queryWith(options, said))}<button>${speech.say('find')}</button></form>`;
}
