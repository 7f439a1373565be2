import { DAY, HOUR, MINUTE, dayToText, packRows, type Day, type Wall } from '../../zones';
import { byDay, type PageEntry } from './agenda';
import { classOf, markWords, shortEntry, spanText, timeOnDay, titleOf, type LineSetting } from './entryLine';
import { html, type Html } from './html';

export interface WeekSetting extends LineSetting {
  readonly caption: string;
  readonly listOf: (day: Day) => string;
}

/** Rows of a day: quarters of an hour. */
const QUARTER = 15 * MINUTE;
/**
 * An entry is drawn no lower than its words need, by the rows that a line takes and the letters that fit into a day at its narrowest.
 */
const LEAST_ROWS = 3;
const ROWS_PER_LINE = 1.6;
const LETTERS_PER_LINE = 14;
const MAX_LINES = 12;
/** So many stand side by side at most, and so many in the row of whole days; the rest is in the list. */
const MOST_LANES = 2;
const MOST_WHOLE = 8;
/** Hours of an ordinary day, shown even where nothing happens at them. */
const [MORNING, EVENING] = [8, 17];

interface Placed {
  readonly entry: PageEntry;
  /** Quarters of the day, from and to before. */
  readonly from: number;
  readonly to: number;
  readonly lane: number;
  /** How many stand side by side there. */
  readonly lanes: number;
  /** Whether there is room for more than when and what. */
  readonly isRoomy: boolean;
}

/**
 * Returns seven days side by side with a ruler of hours, each entry where it happens; on narrow screens and without the
 * style sheet it reads as a list. Places are classes, as the page may hold no style of its own.
 */
export function week(agenda: readonly PageEntry[], from: Day, setting: WeekSetting): Html {
  const { speech, today, caption } = setting;
  const days = byDay(agenda, from, from + 7);
  const all = Array.from({ length: 7 }, (_, i) => {
    const day = from + i;
    const entries = days.get(day) ?? [];
    const whole = entries.filter((e) => isWhole(e, day));
    const timed = entries.filter((e) => !isWhole(e, day));
    const placed = placedOn(timed, day, setting).filter((p) => p.lane < MOST_LANES);
    const shown = whole.slice(0, MOST_WHOLE);
    return { day, whole: shown, placed, more: entries.length - shown.length - placed.length };
  });
  const quarters = all.flatMap(({ placed }) => placed.flatMap(({ from: a, to: b }) => [a, b]));
  const first = Math.min(MORNING, Math.floor(Math.min(...quarters, Infinity) / 4));
  const last = Math.max(EVENING, Math.ceil(Math.max(...quarters, 0) / 4));
  const hours = Array.from({ length: last - first }, (_, i) => first + i);
  const anyWhole = all.some(({ whole, more }) => whole.length > 0 || more > 0);
  return html`<h2>${caption}</h2><div class="week">
<div class="ruler" aria-hidden="true"><p></p><p class="whole">${anyWhole && speech.say('wholeDays')}</p><ol>${hours.map((h) => html`<li>${speech.time((h * HOUR) as Wall)}</li>`)}</ol></div>
${all.map(({ day, whole, placed, more }) => {
  const classes = [
    day === today && 'today',
    day < today && 'past',
    !whole.length && !placed.length && 'empty',
  ];
  return html`<section class="${classes.filter(Boolean).join(' ')}"><h3><time datetime="${dayToText(day)}">${speech.day(day)}</time></h3>
<ul class="whole">${whole.map((e) => html`<li class="${classOf(e)}">${shortEntry(e, day, setting)}</li>`)}${more > 0 && html`<li><a href="${setting.listOf(day)}">${speech.say('moreThere', { count: more })}</a></li>`}</ul>
<ul class="hours">${placed.map((p) => html`<li class="${classOf(p.entry)} ${placeOf(p, first)}">${shortEntry(p.entry, day, setting, timeIn(p.entry, day, p.lanes, setting))}</li>`)}</ul></section>`;
})}</div>
${from < today && today < from + 7 && html`<p class="narrow" dir="auto">${speech.say('narrow')}</p>`}
${!days.size && html`<p class="none" dir="auto">${speech.say('none')}</p>`}`;
}

/** Whether an entry takes all of a day, by its kind or as it goes on. */
function isWhole({ allDay, start, end }: PageEntry, day: Day): boolean {
  return allDay || (start <= day * DAY && end >= (day + 1) * DAY);
}

/** Powers of two that add up to the place and the length of an entry: the style sheet adds them up again. */
function placeOf({ from, to, lane, lanes, isRoomy }: Placed, firstHour: number): string {
  const place = [...bits('s', from - firstHour * 4), ...bits('n', to - from), `l${lane}`, `of${lanes}`];
  return [...place, ...(isRoomy ? ['roomy'] : [])].join(' ');
}

function bits(name: string, number: number): string[] {
  return [1, 2, 4, 8, 16, 32, 64].filter((bit) => number & bit).map((bit) => name + bit);
}

/** In a week there is room for both ends, unless entries stand side by side. */
function timeIn(entry: PageEntry, day: Day, lanes: number, { speech }: LineSetting): string {
  return lanes === 1 && entry.firstDay === day && entry.lastDay === day
    ? spanText(entry, speech)
    : timeOnDay(entry, day, speech);
}

/** An entry's stretch of a day, in quarters. */
interface Stretch {
  readonly entry: PageEntry;
  readonly from: number;
  readonly to: number;
}

/**
 * Returns entries of a day with their places: those that would cover each other stand side by side. Where they do, words need more
 * lines, which may make others stand beside them; so they are placed twice.
 */
function placedOn(entries: readonly PageEntry[], day: Day, setting: LineSetting): Placed[] {
  const linesOf = (entry: PageEntry, lanes: number) => {
    const words = [
      timeIn(entry, day, lanes, setting),
      titleOf(entry, setting),
      ...markWords(entry, false, setting),
    ];
    return lineCount(words.join(' '), Math.floor(LETTERS_PER_LINE / lanes));
  };
  const stretchOf = (entry: PageEntry, lanes: number): Stretch => {
    const from = Math.floor(Math.max(0, entry.start - day * DAY) / QUARTER);
    const to = Math.ceil(Math.min(DAY, entry.end - day * DAY) / QUARTER);
    const rows = Math.ceil(linesOf(entry, lanes) * ROWS_PER_LINE);
    const length = Math.max(LEAST_ROWS, rows, to - from);
    const top = Math.min(from, DAY / QUARTER - length);
    return { entry, from: top, to: top + length };
  };
  const alone = packed(entries.map((entry) => stretchOf(entry, 1)));
  return packed(alone.map(({ entry, lanes }) => stretchOf(entry, lanes))).map((place) => ({
    ...place,
    isRoomy: place.to - place.from >= Math.ceil((linesOf(place.entry, place.lanes) + 2) * ROWS_PER_LINE),
  }));
}

/** Returns stretches of a day with their lanes, in order of time. */
function packed(unordered: readonly Stretch[]): Omit<Placed, 'isRoomy'>[] {
  const stretches = unordered.toSorted((a, b) => a.from - b.from || b.to - a.to);
  const out: Omit<Placed, 'isRoomy'>[] = [];
  for (let at = 0; at < stretches.length;) {
    const start = at;
    let end = stretches[at]!.to;
    while (at < stretches.length && stretches[at]!.from < end) end = Math.max(end, stretches[at++]!.to);
    const group = stretches.slice(start, at);
    const { rows, count } = packRows(group);
    out.push(...group.map((span, i) => ({ ...span, lane: rows[i]!, lanes: Math.min(count, MOST_LANES) })));
  }
  return out;
}

/** Returns how many lines words take where `width` letters fit into one; longer words are broken. */
function lineCount(text: string, width: number): number {
  let lines = 1;
  let used = 0;
  for (const { length } of text.split(/\s+/).filter(Boolean)) {
    if (used && used + 1 + length > width) {
      lines++;
      used = 0;
    }
    used += (used ? 1 : 0) + length;
    for (; used > width; used -= width) lines++;
  }
  return Math.min(lines, MAX_LINES);
}
