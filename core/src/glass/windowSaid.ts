import { LOCKED_DOWN, type CeilingSet, type Ceilings } from './ceilings';
import type { SwitchedField, Switches } from './fields';
import { SWITCHED_FIELDS, USUAL_SWITCHES } from './fields';
import type { Audience, Glass } from './glass';
import type { Demand } from './rehearsal';
import { INCLUDE_ALL, USUAL_LETTING_GO, type FirstView, type WindowRules, type Wording } from './rules';
import { DEFAULT_PUBLIC_ADDRESS_GRACE_DAYS } from './keyState';
import { PLAIN_TITLE } from './titlePattern';

/** All that organisers say of a window: how it names itself, and which part of which calendars it shows to whom. */
export interface WindowSaid
  extends
    Omit<Wording, 'place' | 'remind' | 'lettingGo' | 'notices' | 'firstView' | 'calendars'>,
    Pick<
      WindowRules,
      | 'titlePattern'
      | 'hostZone'
      | 'horizon'
      | 'sources'
      | 'filter'
      | 'include'
      | 'labelHolds'
      | 'rounding'
      | 'tellTentative'
      | 'switches'
      | 'namesCalendars'
    > {
  /** The place that it is about, or empty. */
  readonly place: string;
  /** Minutes before timed entries at which readers' programs are told to remind; 0 for never. */
  readonly remind: number;
  /** For how many days feeds tell that something has left. */
  readonly lettingGo: number;
  /** Whether readers may leave a mail address to hear of changes. */
  readonly notices: boolean;
  /** What its page shows first. */
  readonly firstView: FirstView;
  /** Whether it is on the notice board and search engines may list its pages. */
  readonly listed: boolean;
  /** For how many days its public address goes on after it is unlisted. */
  readonly publicGraceDays: number;
}

/** A window as it is sent to be opened or changed. */
export interface WindowInput extends WindowSaid {
  /** Audience of the first key; only when the window is new. */
  readonly audience?: Audience;
  /** The version that was changed; left out when the window is new. */
  readonly version?: number;
  /** Large effects that somebody has looked at and wants. */
  readonly confirmed?: readonly Demand[];
}

/** What a new window says, and what a stored one says where it was written before there was something to say. */
export const BLANK_WINDOW: WindowSaid = {
  name: '',
  description: '',
  language: '',
  topic: '',
  place: '',
  contact: '',
  translations: [],
  colour: 'steelblue',
  busyWord: 'Busy',
  dueAs: 'all-day',
  remind: 0,
  lettingGo: USUAL_LETTING_GO,
  notices: true,
  titlePattern: PLAIN_TITLE,
  hostZone: 'UTC',
  horizon: { kind: 'rolling', pastDays: 30, nextDays: 180 },
  sources: [],
  filter: null,
  include: INCLUDE_ALL,
  labelHolds: [],
  rounding: 0,
  tellTentative: true,
  switches: USUAL_SWITCHES,
  namesCalendars: false,
  firstView: 'auto',
  listed: false,
  publicGraceDays: DEFAULT_PUBLIC_ADDRESS_GRACE_DAYS,
};

const FIELDS = Object.keys(BLANK_WINDOW) as (keyof WindowSaid)[];

/** Fields are let out by a switch alone: one that nothing is said of is off. */
const ALL_OFF = Object.fromEntries(SWITCHED_FIELDS.map((f) => [f, false])) as Record<SwitchedField, boolean>;

/** Returns what a window says by what is stored of it, or sent: what is not there is read as in a new one. */
export function saidOf(given: Partial<WindowSaid>): WindowSaid {
  const said = Object.fromEntries(
    FIELDS.map((f) => [f, given[f] === undefined ? BLANK_WINDOW[f] : given[f]]),
  );
  const { switches, include } = said as unknown as WindowSaid;
  return {
    ...(said as unknown as WindowSaid),
    switches: { ...ALL_OFF, ...switches } satisfies Switches,
    include: { ...INCLUDE_ALL, ...include },
  };
}

/** What a window says that is stored as one piece; its name, its sources and whether it is listed stand by themselves. */
export type WindowSettings = Omit<WindowSaid, 'name' | 'sources' | 'listed'>;

/** Returns the settings in what a window says, and nothing else of it. */
export function settingsOf(given: WindowSaid): WindowSettings {
  const { name: _name, sources: _sources, listed: _listed, ...settings } = saidOf(given);
  return settings;
}

/** Returns the names in a draft that a window has nothing for, or whose values are of another kind than its own. */
export function unfitIn(draft: object): string[] {
  const kindOf = (value: unknown) =>
    Array.isArray(value) ? 'list' : value === null ? 'object' : typeof value;
  const more: Readonly<Record<string, string>> = { audience: 'string', version: 'number', confirmed: 'list' };
  return Object.entries(draft).flatMap(([name, value]) => {
    const wanted = Object.hasOwn(BLANK_WINDOW, name)
      ? kindOf(BLANK_WINDOW[name as keyof WindowSaid])
      : Object.hasOwn(more, name)
        ? more[name]
        : null;
    const fits = wanted === kindOf(value) && (value !== null || name === 'filter');
    return fits ? [] : [name];
  });
}

/** What the rules of a window depend on besides what it says. */
export interface RuleSetting {
  /** Key of its pseudonyms. */
  readonly secret: string;
  /** All ceilings; those of its calendars and of the house count. */
  readonly ceilings: Ceilings;
  /** See goneFrom. */
  readonly gone: readonly string[];
}

/** Returns the rules that a window says. */
export function rulesOfSaid(given: WindowSaid, { secret, ceilings, gone }: RuleSetting): WindowRules {
  const { name, description, language, topic, contact, translations, ...said } = saidOf(given);
  const { colour, busyWord, dueAs, place, remind, lettingGo, notices, firstView, ...rest } = said;
  const { listed: _listed, publicGraceDays: _days, ...rules } = rest;
  const own = new Set(rules.sources.map((s) => s.calendarId));
  return {
    ...rules,
    wording: {
      ...{ name, description, language, topic, contact, translations, colour, busyWord, dueAs },
      ...(place ? { place } : {}),
      ...(remind ? { remind } : {}),
      ...(lettingGo === USUAL_LETTING_GO ? {} : { lettingGo }),
      ...(notices ? {} : { notices }),
      ...(firstView === 'auto' ? {} : { firstView }),
    },
    secret,
    ceilings: {
      house: ceilings.house,
      calendars: Object.fromEntries(Object.entries(ceilings.calendars).filter(([id]) => own.has(id))),
    },
    gone,
  };
}

/** Returns what a window says by its rules, and by what of it is not a rule. */
export function saidByRules(
  { wording, ...rules }: WindowRules,
  { listed, publicGraceDays }: Pick<WindowSaid, 'listed' | 'publicGraceDays'>,
): WindowSaid {
  return saidOf({ ...wording, ...rules, listed, publicGraceDays });
}

/** Returns what keeps a window from being shown outside, as a sentence, or null. */
export function lackOf({ name, sources, busyWord }: WindowSaid): string | null {
  if (!sources.length) return 'Choose at least one calendar.';
  if (!name.trim()) return 'Give the window a name: readers see it, and their programs too.';
  if (!busyWord.trim()) return 'Give the word that stands for entries behind frosted glass.';
  return null;
}

/** A ceiling that was set; with no calendar it is the house's. */
interface CeilingRule {
  readonly calendarId: string | null;
  readonly audience: Audience;
  readonly glass: Glass;
}

/** Returns the ceilings that are in force: of a calendar that is locked down nothing is seen. */
export function ceilingsInForce(set: readonly CeilingRule[], locked: readonly string[]): Ceilings {
  const house: Partial<Record<Audience, Glass>> = {};
  const calendars: Record<string, CeilingSet> = {};
  for (const { calendarId, audience, glass } of set) {
    if (calendarId) calendars[calendarId] = { ...calendars[calendarId], [audience]: glass };
    else house[audience] = glass;
  }
  for (const id of locked) calendars[id] = LOCKED_DOWN;
  return { house, calendars };
}
