import { NO_SWITCHES, type WindowRules } from '@zonal/core/glass';
import type { Calendar, OutwardWindow, WindowInput } from '../api/types';

/** Returns the draft of a new window on the house's zone. */
export function blankDraft(calendars: readonly Calendar[]): WindowInput {
  return {
    name: '',
    description: '',
    colour: 'steelblue',
    busyWord: 'Busy',
    dueAs: 'all-day',
    hostZone: calendars[0]?.zone ?? 'UTC',
    horizon: { pastDays: 30, nextDays: 180 },
    rounding: 0,
    tellTentative: true,
    switches: NO_SWITCHES,
    listed: false,
    sources: [],
    audience: 'street',
  };
}

/** Returns a window as it is sent back to be changed. */
export function draftOf(window: OutwardWindow): WindowInput {
  const { wording, hostZone, horizon, rounding, tellTentative, switches, sources, listed, version } = window;
  return { ...wording, hostZone, horizon, rounding, tellTentative, switches, sources, listed, version };
}

/** Returns the rules that a draft says; `secret` is that of the window, or anything for one not yet opened. */
export function rulesOfDraft(draft: WindowInput, secret: string): WindowRules {
  const {
    name,
    description,
    colour,
    busyWord,
    dueAs,
    hostZone,
    horizon,
    rounding,
    tellTentative,
    switches,
    sources,
  } = draft;
  return {
    wording: { name: name.trim() || 'Untitled window', description, colour, busyWord, dueAs },
    hostZone,
    horizon,
    rounding,
    tellTentative,
    switches,
    sources,
    secret,
  };
}

/** Returns what keeps a draft from being put into effect, or null. */
export function lackOf(draft: WindowInput): string | null {
  if (!draft.name.trim()) return 'Give the window a name: readers see it, and their programs too.';
  if (!draft.sources.length) return 'Choose at least one calendar.';
  if (!draft.busyWord.trim()) return 'Give the word that stands for entries behind frosted glass.';
  return null;
}
