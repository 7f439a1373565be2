import {
  COLOURS,
  SHOWINGS,
  type Colour,
  type OutwardOccurrence,
  type OutwardView,
  type Showing,
  type WordingText,
} from '../../glass';
import { plainText } from '../../entries';
import {
  dayAt,
  dayFromParts,
  dayFromText,
  dayToText,
  partsOfDay,
  zoneNamed,
  type Day,
  type Instant,
  type ZoneName,
} from '../../zones';
import type { Notice } from '../notice';
import { html, type Html } from './html';
import { directionOf, readingOf } from '../speech/reading';
import { speechInYear, speechOf, type Speech } from '../speech/speech';

/** The parts of a page that an embed can do without. */
export const PARTS = ['title', 'about', 'zone', 'turn', 'shows', 'find', 'legend', 'foot'] as const;
export type Part = (typeof PARTS)[number];
/** Those that an embed has where nothing else is said. */
export const USUAL_PARTS: readonly Part[] = ['title', 'about', 'zone', 'turn', 'shows', 'legend', 'foot'];

export const THEMES = ['auto', 'light', 'dark'] as const;
export type Theme = (typeof THEMES)[number];

/** What can be said of a page in the query string of its address; anything not understood falls back to the default. */
export const QUERY_NAMES = [
  'show',
  'from',
  'find',
  'calendars',
  'label',
  'tz',
  'lang',
  'clock',
  'week',
  'theme',
  'parts',
  'accent',
] as const;
export type QueryName = (typeof QUERY_NAMES)[number];
export type PageQuery = Readonly<Partial<Record<QueryName, string | undefined>>>;

/** What goes along from page to page: what somebody wants to see and how they read, and how the page looks. */
const LASTING = ['calendars', 'label', 'tz', 'lang', 'clock', 'week', 'theme', 'parts', 'accent'] as const;

/** Which page of a window is asked for: its days, one entry (on one of its dates), how to follow it, how to hear of changes by mail, or the reader's settings. */
export type PageKind =
  | { readonly kind: 'days' }
  | { readonly kind: 'entry'; readonly uid: string; readonly on: string }
  | { readonly kind: 'follow' }
  | { readonly kind: 'notices' }
  | { readonly kind: 'settings' };

export interface PageOptions {
  readonly form: 'page' | 'embed';
  readonly query: PageQuery;
  readonly now: Instant;
  /** Which page; left out for the days. */
  readonly page?: PageKind;
  /** Languages that the reader's program accepts, best first (RFC 9110 section 12.5.4). */
  readonly accepted?: readonly string[];
  /** Whether the window is listed: only then search engines and social networks are told of it. */
  readonly listed?: boolean;
  /** Addresses of the other forms; absolute where programs use them. */
  readonly addresses: PageAddresses;
  /** Folder of style sheet, script and typeface, ending in `/`. */
  readonly assets: string;
  /** What readers with this address have to be told besides, such as a new one. */
  readonly notice?: Notice | null;
}

export interface PageAddresses {
  readonly self: string;
  readonly see: string;
  /** The one address by which everybody finds the page, where it is listed; left out where that is `see`. */
  readonly canonical?: string;
  readonly feed: string;
  /** The same as a CalDAV collection; left out where there is none. */
  readonly dav?: string;
  readonly copy: string;
  /** Where a mail address is sent to which changes are told; left out where none may be left. */
  readonly notices?: string;
  /** Where sites learn how to embed the page (oEmbed), with its own address at the end; left out where there is none. */
  readonly oEmbed?: string;
  /** The QR code of the page that tells how to follow; left out where there is none. */
  readonly code?: string;
}

/** What a page shows and how, as the reader chose or as it is usual. */
export interface Choice {
  readonly show: Showing;
  readonly from: Day;
  readonly today: Day;
  readonly zone: ZoneName;
  /** Whether the reader chose the zone. */
  readonly zoneAsked: boolean;
  /** Words that are looked for; empty for none. */
  readonly find: string;
  /** The calendars that the reader wants to see; null for all. */
  readonly calendars: ReadonlySet<string> | null;
  /** The label that entries must have; empty for any. */
  readonly label: string;
  readonly speech: Speech;
  readonly theme: Theme;
  readonly parts: ReadonlySet<Part>;
  readonly colour: Colour;
  /** How the window's language is written, where it is not as the page's. */
  readonly direction: 'ltr' | 'rtl';
  /** The window's own words in the language of the reader, or as the host writes them. */
  readonly text: WordingText;
}

const LONGEST_FIND = 100;

/** Returns what a page shows by its address and by what is known of its reader. */
export function choiceOf(view: OutwardView, options: PageOptions): Choice {
  const { query, now, form, accepted = [] } = options;
  const { wording } = view;
  const asked = query.tz ? zoneNamed(query.tz) : null;
  const zone = asked ?? view.hostZone;
  const today = dayAt(zone, now);
  const { lang, clock, week } = query;
  const named = PARTS.filter((part) => query.parts?.split(/[\s,.]+/).includes(part));
  const usual = form === 'embed' ? USUAL_PARTS : PARTS;
  const text = textFor(wording, lang === undefined ? accepted : [lang]);
  return {
    show: SHOWINGS.find((s) => s === query.show) ?? firstView(view, options, today),
    from: dayAsked(view, query.from, today),
    today,
    zone,
    zoneAsked: asked !== null,
    find: (query.find ?? '').slice(0, LONGEST_FIND).trim(),
    calendars: calendarsAsked(view, query.calendars),
    label: (query.label ?? '').slice(0, LONGEST_FIND).trim(),
    speech: speechInYear(
      speechOf(readingOf({ lang, clock, week, accepted, own: wording.language })),
      partsOfDay(today).year,
    ),
    theme: THEMES.find((t) => t === query.theme) ?? 'auto',
    parts: new Set(form === 'embed' && query.parts !== undefined ? named : usual),
    colour: COLOURS.find((c) => c === query.accent) ?? wording.colour,
    direction: directionOf(text.language || 'en'),
    text,
  };
}

/** So few days before the end of a month, the list says more than the month. */
const MONTH_END_DAYS = 7;

/** Returns what a page shows where its reader has not chosen: what the window says, else what says most. */
function firstView({ wording }: OutwardView, { form, query }: PageOptions, today: Day): Showing {
  if (wording.firstView) return wording.firstView;
  if (form === 'embed') return 'list';
  const { year, month } = partsOfDay(today);
  const left = dayFromParts(year, month + 1, 1) - today;
  return !query.from && left <= MONTH_END_DAYS ? 'list' : 'month';
}

/** Calendars go by their place among those that the window names, as in `1.3`; with none that there is, all are shown. */
function calendarsAsked({ wording }: OutwardView, asked: string | undefined): ReadonlySet<string> | null {
  const numbers = (asked ?? '').split('.').map(Number);
  const names = (wording.calendars ?? []).filter((_, i) => numbers.includes(i + 1));
  return names.length ? new Set(names) : null;
}

/**
 * Returns whether the reader wants to see a time. Busy time names no calendar and stays whichever are chosen; with a label only what
 * has that label stays.
 */
export function filterOfChoice({ calendars, label }: Choice): (one: OutwardOccurrence) => boolean {
  const wanted = plainText(label);
  return ({ content }) => {
    if (wanted && !content?.labels?.some((own) => plainText(own) === wanted)) return false;
    return !calendars || content?.calendar === undefined || calendars.has(content.calendar);
  };
}

/** An unreadable day in an address shows today, as no day would; one far from what is shown, what is next to it. */
function dayAsked(view: OutwardView, asked: string | undefined, today: Day): Day {
  let from = today;
  try {
    if (asked) from = dayFromText(asked);
  } catch {
    // Today it is.
  }
  const first = dayAt(view.hostZone, view.range.from) - 31;
  const last = dayAt(view.hostZone, view.range.to) + 31;
  return Math.min(Math.max(from, first), last);
}

/**
 * Returns how a window names itself in the first of some languages in which it does, or as its host writes it, whose wording
 * stands for its own language too.
 */
export function textFor(
  wording: WordingText & { readonly translations: readonly WordingText[] },
  languages: readonly string[],
): WordingText {
  const base = (tag: string) => tag.toLowerCase().split('-')[0];
  const all: WordingText[] = [wording, ...wording.translations];
  for (const language of languages) {
    const exact = all.find((t) => t.language.toLowerCase() === language.toLowerCase());
    const own = exact ?? all.find((t) => t.language && base(t.language) === base(language));
    if (own) return own;
  }
  return wording;
}

/** Names for which an empty value says something: no parts, and the host's zone whatever was kept. */
const EMPTY_SAYS = new Set(['parts', 'tz']);

/** Returns the address of the same page, or of one below it, with some things said otherwise; null takes one away. */
export function addressWith(options: PageOptions, said: Said, below = ''): string {
  const parts = queryWith(options, said).map(([name, value]) => `${name}=${encodeURIComponent(value)}`);
  return `${options.addresses.self}${below}${parts.length ? `?${parts.join('&')}` : ''}`;
}

type Said = Readonly<Partial<Record<QueryName | 'on', string | null>>>;
type Named = readonly [name: string, value: string];

/** Returns what goes along in an address or a form, with some things said otherwise; null takes one away. */
export function queryWith({ query }: PageOptions, said: Said): Named[] {
  const all = { ...Object.fromEntries(LASTING.map((name) => [name, query[name]])), ...said };
  return Object.entries(all).flatMap(([name, value]): Named[] =>
    typeof value === 'string' && (value || EMPTY_SAYS.has(name)) ? [[name, value]] : [],
  );
}

/** Returns what goes along with a form, as fields that nobody sees. */
export function hiddenFields(query: readonly Named[]): Html {
  return html`${query.map(([name, value]) => html`<input type="hidden" name="${name}" value="${value}">`)}`;
}

/** Returns the address of a stretch of days. */
export function daysAddress(options: PageOptions, show: Showing, from: Day): string {
  return addressWith(options, { show, from: dayToText(from) });
}
