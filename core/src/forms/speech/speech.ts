import { IntlMessageFormat } from 'intl-messageformat';
import { hasSlipped, instantOfWhen, slipOf, wallOf, type Slip, type When } from '../../entries';
import type { OutwardContent } from '../../glass';
import {
  DAY,
  HOUR,
  MINUTE,
  nextClockChange,
  partsOfDay,
  timeOfWall,
  wallAt,
  type Day,
  type Instant,
  type Wall,
  type ZoneName,
} from '../../zones';
import { zoneText } from '../page/words';
import { CATALOGUE, type Language, type Message } from './catalogue';
import { readingOf, type Reading } from './reading';

type Values = Readonly<Record<string, string | number>>;

/** Tells things in one language and by one clock. Days and clock readings are those of whatever zone they are in. */
export interface Speech extends Reading {
  /** Returns a message with its arguments. */
  say(message: Message, values?: Values): string;
  /** Returns `Mon, 23 Nov 2026`. */
  day(day: Day): string;
  /** Returns `Mon, 23 Nov`. */
  dayInYear(day: Day): string;
  /** Returns `November 2026`. */
  month(day: Day): string;
  /** Returns `14:30`, or `2:30 pm`. */
  time(wall: Wall): string;
  /** Returns `Mon`, in short. */
  weekday(day: Day): string;
  weekdayLong(day: Day): string;
  /** Returns `a, b and c`. */
  list(texts: readonly string[]): string;
}

/** As many are kept as people of many countries need; they are heavy. */
const MOST = 64;
const known = new Map<string, Speech>();

/** Returns what tells things to somebody who reads so. */
export function speechOf(reading: Reading): Speech {
  const name = `${reading.locale}|${reading.clock}|${reading.firstDay}`;
  let speech = known.get(name);
  if (!speech) {
    if (known.size >= MOST) known.clear();
    known.set(name, (speech = newSpeech(reading)));
  }
  return speech;
}

/** Returns what speaks the language of a window, or English where it is another one: for files, whose reader is not known. */
export function speechFor(language: string): Speech {
  return speechOf(readingOf({ own: language }));
}

/** Returns the same speech for somebody who reads it in a year: days of that year go without it. */
export function speechInYear(speech: Speech, year: number): Speech {
  return {
    ...speech,
    day: (day) => (partsOfDay(day).year === year ? speech.dayInYear(day) : speech.day(day)),
  };
}

/** Times of the 24-hour clock as they are written in a language, if that is not `09:05`. */
const HOURS_AND_MINUTES: Partial<Record<Language, (wall: Wall) => string>> = {
  es: written((hour, minute) => `${hour}:${minute}`),
  fr: written((hour, minute) => (minute === '00' ? `${hour}\u00a0h` : `${hour}\u00a0h\u00a0${minute}`)),
  pt: written((hour, minute) => (minute === '00' ? `${hour}h` : `${hour}h${minute}`)),
};

function written(form: (hour: number, minute: string) => string): (wall: Wall) => string {
  return (wall) => {
    const time = timeOfWall(wall);
    return form(Math.floor(time / HOUR), String(Math.floor((time % HOUR) / MINUTE)).padStart(2, '0'));
  };
}

function newSpeech(reading: Reading): Speech {
  const { language, locale, clock } = reading;
  const dates = (options: Intl.DateTimeFormatOptions) => {
    const format = new Intl.DateTimeFormat(locale, { ...options, timeZone: 'UTC' });
    return (ms: number) => format.format(ms);
  };
  const inDays = (options: Intl.DateTimeFormatOptions) => {
    const format = dates(options);
    return (day: Day) => format(day * DAY);
  };
  const lists = new Intl.ListFormat(locale, { type: 'conjunction' });
  const messages = new Map<Message, IntlMessageFormat>();
  return {
    ...reading,
    say(message, values) {
      let format = messages.get(message);
      if (!format) {
        format = new IntlMessageFormat(CATALOGUE[language][message], locale, undefined, { ignoreTag: true });
        messages.set(message, format);
      }
      return String(format.format(values));
    },
    day: inDays({ weekday: 'short', day: 'numeric', month: 'short', year: 'numeric' }),
    dayInYear: inDays({ weekday: 'short', day: 'numeric', month: 'short' }),
    month: inDays({ month: 'long', year: 'numeric' }),
    time:
      clock === '12'
        ? dates({ hour: 'numeric', minute: '2-digit', hourCycle: 'h12' })
        : (HOURS_AND_MINUTES[language] ?? dates({ hour: '2-digit', minute: '2-digit', hourCycle: 'h23' })),
    weekday: inDays({ weekday: 'short' }),
    weekdayLong: inDays({ weekday: 'long' }),
    list: (texts) => lists.format(texts),
  };
}

/** Returns an instant on the clocks of a zone: `Mon, 23 Nov 2026 at 14:30`. */
export function momentText(speech: Speech, at: Instant, zone: ZoneName): string {
  const wall = wallAt(zone, at);
  return speech.say('dayAtTime', { day: speech.day(Math.floor(wall / DAY)), time: speech.time(wall) });
}

/** Returns a sentence on the next clock change in a zone, or an empty text when none comes within a year. */
export function clockChangeIn(speech: Speech, zone: ZoneName, now: Instant): string {
  const change = nextClockChange(zone, now);
  if (!change || change.at > now + 366 * DAY) return '';
  const wall = change.at + change.before;
  const values = { day: speech.day(Math.floor(wall / DAY)), time: speech.time(wall) };
  return speech.say(change.offset > change.before ? 'clocksForward' : 'clocksBack', values);
}

/**
 * Returns a moment as people read it: its day, with its time where it has one. A time in a zone is told by the clocks of
 * `on`, or by its own.
 */
export function whenText(speech: Speech, when: When, on?: ZoneName): string {
  const own = wallOf(when);
  const wall = on && when.kind === 'zoned' ? wallAt(on, instantOfWhen(when, on)) : own;
  const day = speech.day(Math.floor(wall / DAY));
  return when.kind === 'date' ? day : speech.say('dayTime', { day, time: speech.time(wall) });
}

/** Returns a moment as readers anywhere can take it: a time in a zone names the zone. */
function momentWords(speech: Speech, when: When): string {
  const text = whenText(speech, when);
  return when.kind === 'zoned' ? speech.say('inZone', { when: text, zone: zoneText(when.zone) }) : text;
}

/** Returns `6 days (4 working days) later than planned`, or `as planned`. */
export function slipIn(speech: Speech, slip: Slip): string {
  const { days, workingDays, minutes } = slip;
  if (!hasSlipped(slip)) return speech.say('asPlanned');
  const way = days > 0 || minutes > 0 ? 'later' : 'earlier';
  return days
    ? speech.say('slipDays', { days: Math.abs(days), working: Math.abs(workingDays), way })
    : speech.say('slipMinutes', { minutes: Math.abs(minutes), way });
}

/** Returns what a milestone or a due item has to say besides its title, or an empty text for an event. */
export function kindText(
  speech: Speech,
  { kind, planned, status }: Pick<OutwardContent, 'kind' | 'planned' | 'status'>,
  start: When,
  hostZone: ZoneName,
): string {
  if (!kind) return '';
  if (kind === 'due')
    return speech.say(status === 'done' ? 'dueDone' : 'dueWhen', { when: momentWords(speech, start) });
  const done = status === 'done' ? 'yes' : 'no';
  if (!planned) return speech.say('milestoneSo', { done });
  return speech.say('milestonePlanned', {
    done,
    when: momentWords(speech, planned),
    slip: slipIn(speech, slipOf(planned, start, hostZone)),
  });
}
