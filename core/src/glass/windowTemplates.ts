import type { Audience } from './glass';
import type { SourceGlass } from './rules';
import { BLANK_WINDOW, type WindowSettings } from './windowSaid';

/** A window of a usual kind, from which a new one can start. */
export interface TemplateSettings {
  readonly name: string;
  /** What it is for, as one sentence. */
  readonly purpose: string;
  readonly audience: Audience;
  /** The glass with which calendars are added. */
  readonly glass: SourceGlass;
  /** What differs from a blank window. */
  readonly settings: Partial<WindowSettings>;
}

export const WINDOW_TEMPLATES = {
  'busy-times': {
    name: 'Busy times',
    purpose: 'When you are taken in the next two months, to the quarter of an hour, and nothing else.',
    audience: 'street',
    glass: 'frosted',
    settings: {
      horizon: { kind: 'rolling', pastDays: 0, nextDays: 60 },
      rounding: 15,
      tellTentative: false,
      notices: false,
    },
  },
  programme: {
    name: 'Public programme',
    purpose: 'Titles, times and places of the coming year, for everybody; changes by mail.',
    audience: 'street',
    glass: 'tinted',
    settings: {
      horizon: { kind: 'rolling', pastDays: 30, nextDays: 365 },
      include: { ...BLANK_WINDOW.include, tentative: false },
      notices: true,
    },
  },
  partners: {
    name: 'Plans for partners',
    purpose: 'Everything that may go out, with contacts, for named partners who each get a key.',
    audience: 'partners',
    glass: 'clear',
    settings: {
      horizon: { kind: 'rolling', pastDays: 90, nextDays: 365 },
      switches: { ...BLANK_WINDOW.switches, contact: true, planned: true },
    },
  },
} as const satisfies Readonly<Record<string, TemplateSettings>>;
export type WindowTemplate = keyof typeof WINDOW_TEMPLATES;
