import { EMPTY_CONTENT, type Content, type Entry, type Range, type When } from '../entries';
import {
  BLANK_WINDOW,
  atLeast,
  effectiveGlass,
  outwardView,
  rulesOfSaid,
  sourceLimits,
  type Audience,
  type Ceilings,
  type Glass,
  type LabelHold,
  type OutwardContent,
  type OutwardTime,
  type OutwardView,
  type WindowRules,
} from '../glass';
import { instantOf, partsOfDay, dayAt, dayFromText, DAY, type Instant, type ZoneName } from '../zones';

/** A glass through which somebody inside looks at a calendar, and as which audience: a named colleague, or the house. */
export interface InsideGlass {
  readonly audience: Extract<Audience, 'crew' | 'house'>;
  readonly glass: Glass;
}

/** Years before and after the present one that are seen through a glass, whichever stretch is asked for. */
const [PAST, NEXT] = [1, 2];

/** What everybody inside who sees an entry clearly sees of it too. */
const ALL_SWITCHES = { joinLink: true, people: true, contact: true, planned: true };

/** Returns the glass that remains of somebody's, by the ceilings of its audience. */
export function glassInside(calendarId: string, { audience, glass }: InsideGlass, ceilings: Ceilings): Glass {
  const sources = [{ calendarId, glass, fields: [], as: '' }];
  return effectiveGlass(sourceLimits(calendarId, { sources, ceilings }, { audience, cap: null })).glass;
}

/** Returns the clearer of what somebody was given by name and what the whole house has, with the audience that it is for. */
export function clearerInside(
  calendarId: string,
  own: Glass | null,
  house: Glass,
  ceilings: Ceilings,
): InsideGlass {
  const asHouse: InsideGlass = { audience: 'house', glass: house };
  if (own === null) return asHouse;
  const asCrew: InsideGlass = { audience: 'crew', glass: own };
  const [a, b] = [asCrew, asHouse].map((g) => glassInside(calendarId, g, ceilings)) as [Glass, Glass];
  return atLeast(a, b) ? asCrew : asHouse;
}

/** Returns the stretch that is seen through a glass: whole years on the calendar's clocks. */
export function rangeInside(zone: ZoneName, now: Instant): Range {
  const { year } = partsOfDay(dayAt(zone, now));
  const start = (y: number) => instantOf(zone, dayFromText(`${y}-01-01`) * DAY);
  return { from: start(year - PAST), to: start(year + NEXT + 1) };
}

/** What a view from inside is worked out from. */
export interface InsideSetting {
  readonly calendar: {
    readonly id: string;
    readonly zone: ZoneName;
    /** Labels that hold its entries back from those who look through a glass. */
    readonly labelHolds: readonly LabelHold[];
  };
  readonly ceilings: Ceilings;
  /** Key of the pseudonyms: of this calendar and this glass alone. */
  readonly secret: string;
  /** See {@link rangeInside}. */
  readonly range: Range;
}

/** Returns the rules by which somebody looks at a calendar through a glass. */
export function rulesInside(
  { audience: _audience, glass }: InsideGlass,
  { calendar, ceilings, secret }: InsideSetting,
): WindowRules {
  const sources = [{ calendarId: calendar.id, glass, fields: [], as: '' }];
  const { zone: hostZone, labelHolds } = calendar;
  const said = { ...BLANK_WINDOW, hostZone, labelHolds, sources, switches: ALL_SWITCHES };
  return rulesOfSaid(said, { secret, ceilings, gone: [] });
}

/**
 * Returns what somebody sees of a calendar through a glass, as entries: worked out by the one outward view, with ceilings
 * and holds, and with identifiers made from nothing but what is seen. Throws as outwardView does.
 */
export function entriesInside(
  entries: readonly Entry[],
  through: InsideGlass,
  setting: InsideSetting,
): Entry[] {
  const reader = { audience: through.audience, cap: null };
  return entriesOfView(
    outwardView(entries, rulesInside(through, setting), setting.range, reader),
    setting.calendar.id,
  );
}

function entriesOfView({ items, wording }: OutwardView, calendarId: string): Entry[] {
  const once = { recurrence: null, overrides: [] };
  return items.map((item): Entry => {
    const own = { id: item.uid, uid: item.uid, calendarId, version: 0, ...timesOf(item) };
    if (item.kind === 'busy') {
      const status = item.tentative ? 'tentative' : 'confirmed';
      return { ...EMPTY_CONTENT, title: wording.busyWord, status, ...own, ...once };
    }
    const content = contentInside(item.content);
    if (item.kind === 'single') return { ...content, ...own, ...once };
    const { rule, dates, exceptDates, overrides } = item;
    return {
      ...content,
      ...own,
      recurrence: { rule, dates, exceptDates },
      overrides: overrides.map((o) => ({ slot: o.slot, ...timesOf(o), content: contentInside(o.content) })),
    };
  });
}

function timesOf({ start, end }: OutwardTime): { start: When; end: When } {
  return { start, end };
}

function contentInside(content: OutwardContent): Content {
  return { ...EMPTY_CONTENT, ...content };
}
