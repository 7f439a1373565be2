import { EMPTY_CONTENT, type Entry, type When } from '../entries';
import {
  INCLUDE_ALL,
  NO_CEILINGS,
  PLAIN_TITLE,
  USUAL_SWITCHES,
  type Glass,
  type Reader,
  type SourceRule,
  type WindowRules,
} from '../glass';
import { wallToText } from '../zones';

export const HOST = 'America/Halifax';
export const STREET: Reader = { audience: 'street', cap: null };

/** Returns a time in a zone. */
export function zoned(at: string, zone = HOST): When {
  return { kind: 'zoned', at: at.length === 16 ? `${at}:00` : at, zone };
}

export function date(text: string): When {
  return { kind: 'date', date: text };
}

/** Returns an entry of calendar `a` with the parts given; it lasts an hour unless an end is given. */
export function entry(parts: Partial<Entry> & Pick<Entry, 'start'>): Entry {
  const id = parts.id ?? 'entry-1';
  return {
    ...EMPTY_CONTENT,
    id,
    calendarId: 'a',
    version: 1,
    uid: `${id}@inside`,
    title: 'Lock inspection',
    recurrence: null,
    overrides: [],
    end: hourAfter(parts.start),
    ...parts,
  };
}

function hourAfter(start: When): When {
  if (start.kind === 'date') return { kind: 'date', date: nextDay(start.date) };
  const wall = Date.parse(`${start.at}Z`) + 3_600_000;
  return { ...start, at: wallToText(wall) };
}

function nextDay(text: string): string {
  return new Date(Date.parse(`${text}T00:00:00Z`) + 86_400_000).toISOString().slice(0, 10);
}

/** Returns a source of a window. */
export function source(
  calendarId: string,
  glass: SourceRule['glass'],
  fields: SourceRule['fields'] = [],
): SourceRule {
  return { calendarId, glass, fields, as: `Calendar ${calendarId}` };
}

/** Returns rules that show calendar `a` through a glass, with the parts given changed. */
export function rulesOf(glass: Glass, parts: Partial<WindowRules> = {}): WindowRules {
  return {
    wording: {
      name: 'Bridge times',
      description: 'When the bridge opens',
      colour: 'steelblue',
      busyWord: 'Taken',
      dueAs: 'all-day',
      language: '',
      topic: '',
      contact: '',
      translations: [],
    },
    titlePattern: PLAIN_TITLE,
    hostZone: HOST,
    horizon: { kind: 'rolling', pastDays: 30, nextDays: 365 },
    sources: [source('a', glass)],
    filter: null,
    include: INCLUDE_ALL,
    labelHolds: [],
    rounding: 0,
    tellTentative: false,
    namesCalendars: false,
    switches: USUAL_SWITCHES,
    secret: 'a secret of the window',
    ceilings: NO_CEILINGS,
    gone: [],
    ...parts,
  };
}
