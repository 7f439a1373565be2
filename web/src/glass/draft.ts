import {
  INCLUDE_ALL,
  LOCKED_DOWN,
  PLAIN_TITLE,
  USUAL_SWITCHES,
  goneFrom,
  type Audience,
  type Ceilings,
  type Glass,
  type KnownNames,
  type SourceRule,
  type WindowRules,
} from '@zonal/core/glass';
import type { AllCeilings, Calendar, OutwardWindow, WindowInput } from '../api/types';

/** Returns the draft of a new window on the house's zone. */
export function blankDraft(calendars: readonly Calendar[]): WindowInput {
  return {
    name: '',
    description: '',
    language: '',
    topic: '',
    contact: '',
    translations: [],
    colour: 'steelblue',
    busyWord: 'Busy',
    dueAs: 'all-day',
    titlePattern: PLAIN_TITLE,
    hostZone: calendars[0]?.zone ?? 'UTC',
    horizon: { kind: 'rolling', pastDays: 30, nextDays: 180 },
    filter: null,
    include: INCLUDE_ALL,
    labelHolds: [],
    rounding: 0,
    tellTentative: true,
    switches: USUAL_SWITCHES,
    listed: false,
    sources: [],
    audience: 'street',
  };
}

/** Returns a calendar as the source of a window: it starts frosted. */
export function sourceOf({ id, name }: Calendar): SourceRule {
  return { calendarId: id, glass: 'frosted', fields: [], as: name };
}

/** Returns a window as it is sent back to be changed. */
export function draftOf(window: OutwardWindow): WindowInput {
  const { wording, listed, version, hostZone, horizon, rounding, tellTentative, switches } = window;
  const { sources, filter, include, labelHolds, titlePattern } = window;
  const rules = { hostZone, horizon, rounding, tellTentative, switches, sources };
  return { ...wording, ...rules, filter, include, labelHolds, titlePattern, listed, version };
}

/** What the rules of a draft depend on besides the draft itself. */
export interface DraftSetting {
  /** The window that it is of; null for one not yet opened. */
  readonly window: OutwardWindow | null;
  readonly ceilings: Ceilings;
  readonly known: KnownNames;
}

/** Returns the ceilings in force for sources, as the server works them out; a locked-down calendar is shut. */
export function ceilingsOf(
  all: AllCeilings | undefined,
  calendars: readonly Calendar[],
  sources: readonly SourceRule[],
): Ceilings {
  const house: Partial<Record<Audience, Glass>> = {};
  const own: Record<string, Partial<Record<Audience, Glass>>> = {};
  for (const { calendarId, audience, glass } of all?.ceilings ?? []) {
    if (!calendarId) house[audience] = glass;
    else if (sources.some((s) => s.calendarId === calendarId))
      own[calendarId] = { ...own[calendarId], [audience]: glass };
  }
  for (const { id, lockedAt } of calendars) {
    if (lockedAt && sources.some((s) => s.calendarId === id)) own[id] = LOCKED_DOWN;
  }
  return { house, calendars: own };
}

/** Returns the rules that a draft says. */
export function rulesOfDraft(draft: WindowInput, { window, ceilings, known }: DraftSetting): WindowRules {
  const { name, description, language, topic, contact, translations, colour, busyWord, dueAs } = draft;
  const { titlePattern, hostZone, horizon, filter, include, labelHolds } = draft;
  const { rounding, tellTentative, switches, sources } = draft;
  const wording = { description, language, topic, contact, translations, colour, busyWord, dueAs };
  return {
    wording: { ...wording, name: name.trim() || 'Untitled window' },
    titlePattern,
    hostZone,
    horizon,
    filter,
    include,
    labelHolds,
    rounding,
    tellTentative,
    switches,
    sources,
    secret: window?.secret ?? 'not opened yet',
    ceilings,
    gone: goneFrom(filter, known),
  };
}

/** Returns what keeps a draft from being put into effect, or null. */
export function lackOf(draft: WindowInput): string | null {
  if (!draft.name.trim()) return 'Give the window a name: readers see it, and their programs too.';
  if (!draft.sources.length) return 'Choose at least one calendar.';
  if (!draft.busyWord.trim()) return 'Give the word that stands for entries behind frosted glass.';
  return null;
}

/** Returns the labels that a window's filter has lost outside and that the house knows again. */
export function regained(
  { filter, gone }: Pick<OutwardWindow, 'filter' | 'gone'>,
  known: KnownNames,
): string[] {
  const still = goneFrom(filter, known);
  return gone.filter((name) => !still.includes(name)).map((name) => name.replace(/^label:/, ''));
}
