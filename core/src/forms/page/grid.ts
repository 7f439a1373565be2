import { dayToText, partsOfDay, weekdayOf, type Day } from '../../zones';
import { byDay, type PageEntry } from './agenda';
import { classOf, shortEntry, type LineSetting } from './entryLine';
import { html, type Html } from './html';

export interface GridSetting extends LineSetting {
  /** The month whose days are the page's; others are dimmed. */
  readonly month: number;
  /** Whether today is one of its days. */
  readonly isNow: boolean;
  /** The end of its weeks; days from here on stand on narrow screens alone. */
  readonly end: Day;
  readonly caption: string;
  /** Returns the address of a day's list. */
  readonly listOf: (day: Day) => string;
}

/** A day says so much at most; the rest is in the list. */
const MOST_IN_CELL = 12;

/** Returns weeks as rows of a table; on narrow screens it reads as a list (style sheet). */
export function grid(agenda: readonly PageEntry[], from: Day, to: Day, setting: GridSetting): Html {
  const { speech, today, caption } = setting;
  const days = byDay(agenda, from, to);
  const weeks = Array.from({ length: (to - from) / 7 }, (_, i) => from + i * 7);
  const week = Array.from({ length: 7 }, (_, i) => from + i);
  return html`<h2>${caption}</h2><table class="grid">
<thead><tr>${week.map((d) => html`<th scope="col"><abbr title="${speech.weekdayLong(d)}">${speech.weekday(d)}</abbr></th>`)}</tr></thead>
<tbody>${weeks.map((first) => html`<tr${first >= setting.end && html` class="beyond"`}>${week.map((_, i) => cell(first + i, days.get(first + i) ?? [], setting))}</tr>`)}</tbody></table>
${from < today && today < to && html`<p class="narrow" dir="auto">${speech.say('narrow')}</p>`}
${![...days.keys()].some((day) => day < setting.end) && html`<p class="none${days.size ? ' wide' : ''}" dir="auto">${speech.say('none')}</p>`}`;
}

function cell(day: Day, entries: readonly PageEntry[], setting: GridSetting): Html {
  const { speech } = setting;
  const { date, month } = partsOfDay(day);
  const classes = [
    month !== setting.month && (setting.isNow && day > setting.today ? 'other next' : 'other'),
    day === setting.today && 'today',
    weekdayOf(day) > 4 && 'weekend',
    day < setting.today && 'past',
    entries.length === 0 && 'empty',
  ].filter(Boolean);
  const shown = entries.length > MOST_IN_CELL ? entries.slice(0, MOST_IN_CELL - 1) : entries;
  const more = entries.length - shown.length;
  return html`<td class="${classes.join(' ')}"><time datetime="${dayToText(day)}"><span class="long">${speech.day(day)}</span><span class="short">${date}</span></time>
${entries.length > 0 && html`<ul>${shown.map((e) => html`<li class="${classOf(e)}">${shortEntry(e, day, setting)}</li>`)}${more > 0 && html`<li><a href="${setting.listOf(day)}">${speech.say('moreThere', { count: more })}</a></li>`}</ul>`}</td>`;
}
