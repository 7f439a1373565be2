import { sameWhen } from '../../entries';
import { safeUri, type OutwardContent, type OutwardField, type OutwardOccurrence } from '../../glass';
import { DAY, dayToText, type Day, type ZoneName } from '../../zones';
import { imagePath } from '../parts';
import { kindText, type Speech } from '../speech/speech';
import type { PageEntry } from './agenda';
import { html, type Html } from './html';

/** What the lines of a page have in common. */
export interface LineSetting {
  readonly speech: Speech;
  readonly hostZone: ZoneName;
  readonly today: Day;
  readonly busyWord: string;
  /** The names of the calendars, in order; with fewer than two, entries have no pattern. */
  readonly calendars: readonly string[];
  /** Whether entries that leave the time free say so: only if others do not leave it free. */
  readonly tellsFree: boolean;
  /** Returns the address of an entry's own page. */
  readonly addressOf: (entry: PageEntry) => string;
  /** The path of the window's page: images are below it. */
  readonly see: string;
}

/** Returns what an entry says of itself, as classes of its element. */
export function classOf({ one, allDay }: PageEntry): string {
  const status = one.content ? one.content.status : one.tentative ? 'busy tentative' : 'busy';
  return [status, allDay ? 'all-day' : '', one.content?.shows === 'free' ? 'free' : '']
    .filter(Boolean)
    .join(' ');
}

/** Returns when an entry is on one of its days, in short; busy time always says its end. */
export function timeOnDay(
  { one, allDay, start, end, firstDay }: PageEntry,
  day: Day,
  speech: Speech,
): string {
  if (allDay) return '';
  const ends = end <= (day + 1) * DAY;
  if (firstDay !== day) return ends ? speech.say('until', { time: speech.time(end) }) : speech.say('allDay');
  const from = speech.time(start);
  if (one.content || end <= start) return from;
  return ends ? `${from}–${speech.time(end)}` : `${from} …`;
}

/** Returns an entry in a few words, as it stands in a month or week. */
export function shortEntry(entry: PageEntry, day: Day, setting: LineSetting, time?: string): Html {
  const { content } = entry.one;
  return html`<span class="time" dir="ltr">${time ?? timeOnDay(entry, day, setting.speech)}</span> ${title(entry, setting)}${marks(entry, false, setting)}${content?.place ? html` <span class="place" dir="auto">${content.place}</span>` : ''}`;
}

/** Returns its title, which leads to its own page; busy time has nothing more to say. */
function title(entry: PageEntry, setting: LineSetting): Html {
  const text = titleOf(entry, setting);
  if (!entry.one.content) return html`<span class="what" dir="auto">${text}</span>`;
  return html`${swatchOf(entry.one.content.calendar, setting)}<a class="what" dir="auto" href="${setting.addressOf(entry)}">${text}</a>`;
}

/** The number of patterns in the style sheet; further calendars begin again. */
const SWATCHES = 8;

/** Returns the pattern that stands for a calendar, with its name for readers who do not see it unless the name is beside it. */
export function swatchOf(
  calendar: string | undefined,
  { calendars }: Pick<LineSetting, 'calendars'>,
  isNamed = true,
): Html | '' {
  const place = calendars.indexOf(calendar ?? '');
  if (place < 0 || calendars.length < 2) return '';
  return html`<span class="swatch swatch-${(place % SWATCHES) + 1}" title="${calendar!}">${isNamed && html`<span class="unseen">${calendar!}: </span>`}</span>`;
}

type Told = Html | Html[] | '';

/** How each field stands in the list, in the order in which it does; null where it is told with the title or the time. */
const LINES: {
  readonly [F in OutwardField]:
    ((value: NonNullable<OutwardContent[F]>, setting: LineSetting) => Told) | null;
} = {
  title: null,
  status: null,
  shows: null,
  kind: null,
  planned: null,
  place: (v) => v && html`<span class="place" dir="auto">${v}</span>`,
  labels: (v) => html`<span class="labels" dir="auto">${v.join(' · ')}</span>`,
  description: (v) => html`<div class="description" dir="auto">${described(v)}</div>`,
  properties: (v) => v.map((p) => html`<span class="place" dir="auto">${p.name}: ${p.value}</span>`),
  people: (v, { speech }) =>
    html`<span class="people" dir="auto">${speech.say('with', { people: speech.list(v.map((p) => p.name || p.address)) })}</span>`,
  contact: (v, { speech }) =>
    html`<span class="people" dir="auto">${speech.say('ask', { contact: v })}</span>`,
  publicLink: (v, { speech }) => link(v, speech.say('more')),
  joinLink: (v, { speech }) => link(v, speech.say('join')),
  image: ({ name, alt, width, height }, { see }) =>
    html`<img class="picture" src="${see}/${imagePath({ name })}" alt="${alt}" width="${width}" height="${height}" loading="lazy" decoding="async">`,
  attachments: (v) => v.map((a) => link(a.href, a.name)).filter((a) => a !== ''),
  // Shown with the title.
  calendar: null,
};
const LINE_FIELDS = (Object.keys(LINES) as OutwardField[]).filter((field) => LINES[field]);

function link(address: string, words: string): Html | '' {
  const href = safeUri(address);
  return href ? html`<a href="${href}" rel="noopener nofollow">${words}</a>` : '';
}

/** Returns an entry with all that is let out of it, as it stands in a list. */
export function longEntry(entry: PageEntry, setting: LineSetting): Html {
  return html`<span class="time" dir="ltr">${spanText(entry, setting.speech)}</span> <div class="body">${title(entry, setting)}${marks(entry, true, setting)}${details(entry, setting)}</div>`;
}

/** Returns all that is let out of an entry besides its title and its time. */
export function details({ one: { content, start } }: PageEntry, setting: LineSetting): Html {
  const { speech, hostZone } = setting;
  const told = content ? kindText(speech, content, start, hostZone) : '';
  const lines = LINE_FIELDS.map((field) => {
    const value = content?.[field];
    return value === undefined ? '' : (LINES[field] as (v: unknown, s: LineSetting) => Told)(value, setting);
  });
  return html`
${told ? html`<span class="place">${told}</span>` : ''}${lines.map(
    (line) => html`
${line}`,
  )}`;
}

/** Returns what an entry is called; busy time goes by the window's word. */
export function titleOf(
  { one }: { readonly one: Pick<OutwardOccurrence, 'content'> },
  { busyWord, speech }: Pick<LineSetting, 'busyWord' | 'speech'>,
): string {
  return one.content ? one.content.title || speech.say('untitled') : busyWord;
}

/** Returns in words what colour or a line through would show. */
export function markWords({ one }: PageEntry, long: boolean, { speech, tellsFree }: LineSetting): string[] {
  const { status, kind, shows } = one.content ?? {};
  return [
    status === 'cancelled' && speech.say('cancelled'),
    status === 'done' && speech.say('done'),
    !long && kind && speech.say(kind),
    !long && slipped(one) && speech.say('moved'),
    one.tentative && speech.say('tentative'),
    long && tellsFree && shows === 'free' && speech.say('free'),
  ].filter((word) => typeof word === 'string');
}

/** Returns the marks of an entry as they follow its title. */
export function marks(entry: PageEntry, long: boolean, setting: LineSetting): Html {
  return html`${markWords(entry, long, setting).map((w) => html` <em class="mark">${w}</em>`)}`;
}

/** Whether a milestone is told to stand elsewhere than planned. */
function slipped({ content, start }: PageEntry['one']): boolean {
  return content?.planned !== undefined && !sameWhen(content.planned, start);
}

/** Returns when an entry begins and ends; days are told where it is not over on its first one. */
export function spanText({ allDay, start, end, firstDay, lastDay }: PageEntry, speech: Speech): string {
  const day = () => speech.day(lastDay);
  if (allDay) return lastDay > firstDay ? speech.say('allDayTo', { day: day() }) : speech.say('allDay');
  if (end <= start) return speech.time(start);
  return lastDay > firstDay
    ? speech.say('spanTo', { start: speech.time(start), day: day(), end: speech.time(end) })
    : `${speech.time(start)}–${speech.time(end)}`;
}

/** Returns a day as machines and people read it. */
export function dayHtml(day: Day, speech: Speech): Html {
  return html`<time datetime="${dayToText(day)}">${speech.day(day)}</time>`;
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
