import { partsOfDay, weekdayOf, dayToText, type Day, type ZoneName } from '../../zones';
import { sameWhen } from '../../entries';
import { safeUri, type OutwardContent, type OutwardField } from '../../glass';
import { byDay, type PageEntry } from './agenda';
import { html, type Html } from './html';
import { WEEKDAYS, dayText, kindText, timeText } from './words';

interface ListSetting {
  readonly hostZone: ZoneName;
  readonly today: Day;
  readonly busyWord: string;
}

/** Returns the entries of some days as one list a day; an entry of several days stands at the first one shown. */
export function list(agenda: readonly PageEntry[], from: Day, to: Day, setting: ListSetting): Html {
  const days = byDay(agenda, from, to);
  const shown = [...days].sort(([a], [b]) => a - b);
  const head = html`<h2>${dayText(from)} to ${dayText(to - 1)}</h2>`;
  if (!shown.length) return html`${head}<p class="none">Nothing is announced for these days.</p>`;
  return html`${head}<div class="list">${shown.map(([day, entries]) => {
    const starting = entries.filter((e) => e.firstDay === day || day === from);
    return (
      starting.length > 0 &&
      html`<section${day === setting.today && TODAY}><h3><time datetime="${dayToText(day)}">${dayText(day)}</time></h3>
<ul>${starting.map((e) => html`<li class="${classOf(e)}">${longEntry(e, setting)}</li>`)}</ul></section>`
    );
  })}</div>`;
}

const TODAY = html` class="today" aria-label="Today"`;

interface GridSetting extends ListSetting {
  /** The month whose days are the page's; others are dimmed. Null for a week. */
  readonly month: number | null;
  readonly caption: string;
}

/** Returns weeks as rows of a table; on narrow screens it reads as a list (style sheet). */
export function grid(agenda: readonly PageEntry[], from: Day, to: Day, setting: GridSetting): Html {
  const days = byDay(agenda, from, to);
  const weeks = Array.from({ length: (to - from) / 7 }, (_, i) => from + i * 7);
  return html`<h2>${setting.caption}</h2><table class="grid">
<thead><tr>${WEEKDAYS.map((d) => html`<th scope="col">${d}</th>`)}</tr></thead>
<tbody>${weeks.map((monday) => html`<tr>${WEEKDAYS.map((_, i) => cell(monday + i, days.get(monday + i) ?? [], setting))}</tr>`)}</tbody></table>
${setting.month !== null && from < setting.today && setting.today < to && html`<p class="narrow">On a narrow screen, days before today are left out here; go to “Earlier” or to the list for them.</p>`}
${!days.size && html`<p class="none">Nothing is announced for these days.</p>`}`;
}

function cell(day: Day, entries: readonly PageEntry[], setting: GridSetting): Html {
  const { date, month } = partsOfDay(day);
  const classes = [
    setting.month !== null && month !== setting.month && 'other',
    day === setting.today && 'today',
    weekdayOf(day) > 4 && 'weekend',
    day < setting.today && 'past',
    entries.length === 0 && 'empty',
  ].filter(Boolean);
  return html`<td class="${classes.join(' ')}"><time datetime="${dayToText(day)}"><span class="long">${dayText(day)}</span><span class="short">${date}</span></time>
${entries.length > 0 && html`<ul>${entries.map((e) => html`<li class="${classOf(e)}">${shortEntry(e, day, setting)}</li>`)}</ul>`}</td>`;
}

function classOf({ one, allDay }: PageEntry): string {
  const status = one.content ? one.content.status : one.tentative ? 'tentative' : 'busy';
  return [status, allDay ? 'all-day' : '', one.content?.shows === 'free' ? 'free' : '']
    .filter(Boolean)
    .join(' ');
}

function shortEntry(entry: PageEntry, day: Day, setting: ListSetting): Html {
  const { one, allDay, start, firstDay } = entry;
  const time = allDay ? '' : firstDay === day ? timeText(start) : '→';
  return html`<span class="time">${time}</span> <span class="what">${titleOf(entry, setting)}</span>${marks(entry, false)}${one.content?.place ? html` <span class="place">${one.content.place}</span>` : ''}`;
}

/** How each field stands in the list, in the order in which it does; null where it is told with the title or the time. */
const LINES: {
  readonly [F in OutwardField]: ((value: NonNullable<OutwardContent[F]>) => Html | Html[] | '') | null;
} = {
  title: null,
  status: null,
  shows: null,
  kind: null,
  planned: null,
  place: (v) => v && html`<span class="place">${v}</span>`,
  labels: (v) => html`<span class="labels">${v.join(' · ')}</span>`,
  description: (v) => html`<div class="description">${described(v)}</div>`,
  properties: (v) => v.map((p) => html`<span class="place">${p.name}: ${p.value}</span>`),
  people: (v) => html`<span class="people">With ${v.map((p) => p.name || p.address).join(', ')}</span>`,
  contact: (v) => html`<span class="people">Ask ${v}</span>`,
  publicLink: (v) => link(v, 'More about it'),
  joinLink: (v) => link(v, 'Join online'),
  attachments: (v) => v.map((a) => link(a.href, a.name)).filter((a) => a !== ''),
};
const LINE_FIELDS = (Object.keys(LINES) as OutwardField[]).filter((field) => LINES[field]);

function link(address: string, words: string): Html | '' {
  const href = safeUri(address);
  return href ? html`<a href="${href}" rel="noopener nofollow">${words}</a>` : '';
}

function longEntry(entry: PageEntry, setting: ListSetting): Html {
  const { content, start } = entry.one;
  const told = content ? kindText(content, start, setting.hostZone) : '';
  const lines = LINE_FIELDS.map((field) => {
    const value = content?.[field];
    return value === undefined ? '' : (LINES[field] as (v: unknown) => Html | Html[] | '')(value);
  });
  return html`<span class="time">${spanText(entry)}</span> <div class="body"><span class="what">${titleOf(entry, setting)}</span>${marks(entry, true)}
${told ? html`<span class="place">${told}</span>` : ''}${lines.map(
    (line) => html`
${line}`,
  )}</div>`;
}

function titleOf({ one }: PageEntry, { busyWord }: ListSetting): string {
  return one.content ? one.content.title || 'Untitled' : busyWord;
}

/** What colour or a line through would tell is told in words as well. */
function marks({ one }: PageEntry, long: boolean): Html {
  const words = [
    one.content?.status === 'cancelled' && 'cancelled',
    one.content?.status === 'done' && 'done',
    !long && one.content?.kind,
    !long && slipped(one) && 'date changed',
    one.tentative && 'tentative',
    long && one.content?.shows === 'free' && 'the time stays free',
  ].filter(Boolean);
  return html`${words.map((w) => html` <em class="mark">${w}</em>`)}`;
}

/** Whether a milestone is told to stand elsewhere than planned. */
function slipped({ content, start }: PageEntry['one']): boolean {
  return content?.planned !== undefined && !sameWhen(content.planned, start);
}

function spanText({ allDay, start, end, firstDay, lastDay }: PageEntry): string {
  if (allDay) return lastDay > firstDay ? `all day, to ${dayText(lastDay)}` : 'all day';
  if (end <= start) return timeText(start);
  return lastDay > firstDay
    ? `${timeText(start)} to ${dayText(lastDay)}, ${timeText(end)}`
    : `${timeText(start)}–${timeText(end)}`;
}

/** Lines that start with a dash or a star become a list; all others stay as they are. */
function described(text: string): Html {
  const lines = text.split('\n');
  const parts: Html[] = [];
  for (let i = 0; i < lines.length;) {
    const list = BULLET.test(lines[i]!);
    const from = i;
    while (i < lines.length && BULLET.test(lines[i]!) === list) i++;
    const own = lines.slice(from, i);
    parts.push(
      list
        ? html`<ul>${own.map((l) => html`<li>${linked(l.replace(BULLET, ''))}</li>`)}</ul>`
        : linked(own.join('\n')),
    );
  }
  return html`${parts}`;
}

const BULLET = /^\s*[-*•]\s+/;

/** Web addresses in plain text become links. */
function linked(text: string): Html {
  const pieces = text.split(/(https?:\/\/[^\s<>"]+[^\s<>".,;:!?)])/);
  return html`${pieces.map((piece, i) => {
    const href = i % 2 === 1 ? safeUri(piece) : null;
    return href ? html`<a href="${href}" rel="noopener nofollow">${piece}</a>` : piece;
  })}`;
}
