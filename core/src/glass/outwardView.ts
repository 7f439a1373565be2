import { lineageOf, occurrencesOf, type Content, type Entry, type Range } from '../entries';
import { clipped, liesWithin } from './clip';
import { Problem } from '../problems';
import { Budget } from '../work';
import { mergeSpans, roundSpans, timeOfSpan, type Span } from './busySpans';
import {
  contentThrough,
  fieldsThrough,
  fieldsThroughCut,
  glassOfCut,
  type EntryField,
  type OutwardContent,
} from './fields';
import { filterTest } from './filter';
import { atLeast, effectiveGlass, type Glass, type Limit } from './glass';
import { WINDOW_LIMITS } from './limits';
import { listChanges } from './listChanges';
import { outwardText } from './outwardText';
import { pseudonym } from './pseudonym';
import { compareTimes, type OutwardBusy, type OutwardItem, type OutwardView } from './view';
import { tellLineage, type VisibleTime } from './series';
import {
  labelHoldOf,
  type Reader,
  type SourceRule,
  type WindowRules,
  type Wording,
  type WordingText,
} from './rules';
import { PLAIN_TITLE, readPattern, titleFrom } from './titlePattern';

/** The outward part of one entry: its times that can be seen, and those that it takes behind frosted glass. */
interface Told {
  readonly visible: readonly VisibleTime[];
  readonly spans: readonly Span[];
  /** What it is told as where it is the whole of its lineage; made when it is first needed. */
  items?: readonly OutwardItem[];
}

/** What was worked out under one set of rules, range and reader; entries are told apart by identity. */
export interface TellingMemo {
  readonly told: WeakMap<Entry, Told>;
  /** The items of the last view, as they were told and in order. */
  items: readonly OutwardItem[];
  sorted: readonly OutwardItem[];
  /** Busy time of the last view, by what it says. */
  busy: ReadonlyMap<string, OutwardBusy>;
}

/** Returns a memo in which nothing was worked out yet. */
export function emptyMemo(): TellingMemo {
  return { told: new WeakMap(), items: [], sorted: [], busy: new Map() };
}

const HOLD_LIMITS: Readonly<Record<Entry['hold'], Glass | null>> = {
  none: null,
  frost: 'frosted',
  'keep-in': 'shut',
};

/** Returns all limits to what a reader sees of an entry; `hold` and `labels` are those of the entry or of one of its dates. */
export function limitsFor(
  entry: Pick<Entry, 'calendarId' | 'hold' | 'labels'>,
  rules: Pick<WindowRules, 'sources' | 'ceilings' | 'labelHolds'>,
  reader: Reader,
): Limit[] {
  const limits = sourceLimits(entry.calendarId, rules, reader);
  const label = labelHoldOf(entry.labels, rules.labelHolds);
  if (label) limits.push({ by: 'label', glass: HOLD_LIMITS[label.hold]!, label: label.label });
  const hold = HOLD_LIMITS[entry.hold];
  if (hold) limits.push({ by: 'hold', glass: hold });
  return limits;
}

/** Returns the limits that hold for every entry of a calendar. */
export function sourceLimits(
  calendarId: string,
  { sources, ceilings }: Pick<WindowRules, 'sources' | 'ceilings'>,
  { audience, cap }: Reader,
): Limit[] {
  const source = sources.find((s) => s.calendarId === calendarId);
  const limits: Limit[] = [{ by: 'window', glass: source ? glassOfSource(source) : 'shut' }];
  const [house, own] = [ceilings.house[audience], ceilings.calendars[calendarId]?.[audience]];
  if (house) limits.push({ by: 'house-ceiling', glass: house });
  if (own) limits.push({ by: 'calendar-ceiling', glass: own });
  if (cap) limits.push({ by: 'key', glass: cap });
  return limits;
}

/** Returns the glass that a source counts as where it is compared with others. */
export function glassOfSource({ glass, fields }: SourceRule): Glass {
  return glass === 'cut' ? glassOfCut(fields) : glass;
}

/** Returns the fields that go out for entries of a source where the glass in force is `glass`. */
export function fieldsOfSource(
  source: SourceRule,
  glass: Glass,
  { switches }: Pick<WindowRules, 'switches'>,
): EntryField[] {
  return source.glass === 'cut' ? fieldsThroughCut(glass, source.fields) : fieldsThrough(glass, switches);
}

/** Returns what makes content outward: the fields that go out, and the title by the window's pattern. */
function outwardContent(
  source: SourceRule,
  glass: Glass,
  rules: WindowRules,
  range: Range,
): (content: Content) => OutwardContent {
  const fields = fieldsOfSource(source, glass, rules);
  const plain = rules.titlePattern === PLAIN_TITLE;
  const pattern = readPattern(rules.titlePattern);
  const titled = fields.includes('title');
  const calendar = rules.namesCalendars ? outwardText(source.as) : '';
  return (content) => {
    const all = { ...contentThrough(content, fields), ...(calendar ? { calendar } : {}) };
    // A planned date outside the horizon is not told, as no other one is.
    const { planned, ...rest } = all;
    const out = planned && !liesWithin(planned, range, rules.hostZone) ? rest : all;
    if (plain && titled) return out;
    const title = titleFrom(pattern, out, source.as);
    return { ...out, title: title || rules.wording.busyWord };
  };
}

/** Returns whether the window takes content at all, by what it leaves out of free, cancelled and tentative entries. */
function isIncluded({ shows, status }: Content, { include }: WindowRules): boolean {
  if (shows === 'free' && !include.free) return false;
  if (status === 'cancelled' && !include.cancelled) return false;
  return status !== 'tentative' || include.tentative;
}

/**
 * Returns wording as it goes out, with its parts in one order whatever store or form it comes from: what looks alike in
 * every form gives equal bytes.
 */
export function outwardWording(w: Wording): Wording {
  const text = (t: WordingText): WordingText => ({
    language: t.language,
    name: outwardText(t.name),
    description: outwardText(t.description),
    topic: outwardText(t.topic),
  });
  const { colour, contact, busyWord, dueAs, place, remind, lettingGo, notices, firstView, translations } = w;
  return {
    ...text(w),
    colour,
    contact: outwardText(contact),
    busyWord: outwardText(busyWord),
    dueAs,
    ...(place ? { place: outwardText(place) } : {}),
    ...(remind ? { remind } : {}),
    ...(lettingGo === undefined ? {} : { lettingGo }),
    ...(notices === false ? { notices } : {}),
    ...(firstView ? { firstView } : {}),
    translations: translations.map(text),
  };
}

/** What is the same for all entries of a view. */
interface Setting {
  readonly rules: WindowRules;
  readonly range: Range;
  readonly reader: Reader;
  readonly takes: (calendarId: string, content: Content) => boolean;
  /** By hold and calendar. */
  readonly glasses: Map<string, Glass>;
  /** By calendar and glass. */
  readonly outward: Map<string, (content: Content) => OutwardContent>;
}

/** Returns whether a window takes content of a calendar: it passes the filter, and its status is not left out. */
export function takenBy(rules: WindowRules): (calendarId: string, content: Content) => boolean {
  const passes = filterTest(rules.filter, rules.gone);
  return (calendarId, content) => isIncluded(content, rules) && passes(calendarId, content);
}

/**
 * Returns the one outward view of a window for a reader: everything that leaves is made from it.
 *
 * `entries` are those of all source calendars, in any order; `range` is a stretch of instants. Two sets of entries
 * that differ only in what the reader may not see give equal views (docs/disclosure.md). A `memo` may be passed
 * again as long as rules, range and reader are the same; entries found in it are not worked out anew. Throws
 * `entry-uncomputable` with the entry that cannot be worked out, and `too-much-work` where there is too much to tell.
 */
export function outwardView(
  entries: Iterable<Entry>,
  rules: WindowRules,
  range: Range,
  reader: Reader,
  memo: TellingMemo = emptyMemo(),
  limits: { readonly times: number; readonly spans: number } = WINDOW_LIMITS,
): OutwardView {
  const items: OutwardItem[] = [];
  const spans: Span[] = [];
  const shown = new Budget(limits.times, 'everything that this window shows');
  const merging = new Budget(limits.spans, 'the busy time of this window');
  const setting = settingOf(rules, range, reader);
  const all = Array.isArray(entries) ? (entries as readonly Entry[]) : [...entries];
  // Few entries are pieces of a lineage; all others are told by themselves.
  const roots = new Set<string>();
  for (const { lineage } of all) if (lineage) roots.add(lineage);
  const pieces = new Map<string, VisibleTime[]>();
  const telling = { secret: rules.secret, range, hostZone: rules.hostZone };
  for (const entry of all) {
    const told = toldOf(entry, setting, memo);
    shown.spend(told.visible.length);
    merging.spend(told.spans.length);
    for (const span of told.spans) spans.push(span);
    if (!told.visible.length) continue;
    const lineage = lineageOf(entry);
    if (roots.size && roots.has(lineage)) {
      const times = pieces.get(lineage) ?? [];
      for (const time of told.visible) times.push(time);
      pieces.set(lineage, times);
    } else for (const item of (told.items ??= tellLineage(lineage, told.visible, telling))) items.push(item);
  }
  for (const [lineage, times] of pieces)
    for (const item of tellLineage(lineage, times, telling)) items.push(item);
  memo.busy = busyItems(spans, rules, range, memo.busy);
  // Only what readers can see counts: how many entries a busy time is made of is hidden from them.
  shown.spend(memo.busy.size);
  for (const item of memo.busy.values()) items.push(item);
  memo.sorted = inOrder(items, memo);
  memo.items = items;
  const { secret } = rules;
  return {
    ids: { calendar: pseudonym(secret, 'calendar'), freeBusy: pseudonym(secret, 'free/busy') },
    wording: { ...outwardWording(rules.wording), ...calendarNames(rules, reader) },
    hostZone: rules.hostZone,
    range,
    items: memo.sorted,
  };
}

/** The calendars that a window names to a reader: those whose entries the reader may tell apart at all. */
function calendarNames(rules: WindowRules, reader: Reader): Pick<Wording, 'calendars'> {
  if (!rules.namesCalendars) return {};
  const seen = rules.sources.filter(({ calendarId }) =>
    atLeast(effectiveGlass(sourceLimits(calendarId, rules, reader)).glass, 'tinted'),
  );
  const calendars = [...new Set(seen.map(({ as }) => outwardText(as)).filter(Boolean))];
  return calendars.length ? { calendars } : {};
}

function settingOf(rules: WindowRules, range: Range, reader: Reader): Setting {
  return { rules, range, reader, takes: takenBy(rules), glasses: new Map(), outward: new Map() };
}

function toldOf(entry: Entry, setting: Setting, memo: TellingMemo): Told {
  let told = memo.told.get(entry);
  if (!told) memo.told.set(entry, (told = tellNamed(entry, setting)));
  return told;
}

/**
 * Returns whether entries tell a reader the same before and after a change: then the outward view is the same, and need
 * not be worked out. Rules, range, reader and memo are as for outwardView. Throws as it does.
 */
export function tellsAlike(
  before: readonly Entry[],
  after: readonly Entry[],
  rules: WindowRules,
  range: Range,
  reader: Reader,
  memo: TellingMemo,
): boolean {
  const setting = settingOf(rules, range, reader);
  const said = (entries: readonly Entry[]) =>
    entries
      .flatMap((entry) => {
        const { visible, spans } = toldOf(entry, setting, memo);
        return [
          ...visible.map((v) => JSON.stringify([lineageOf(entry), v])),
          ...spans.map((s) => JSON.stringify(s)),
        ];
      })
      .sort();
  const [old, next] = [said(before), said(after)];
  return old.length === next.length && old.every((one, i) => one === next[i]);
}

/** What goes wrong in working out an entry is told with its name. Leaving it out would tell something by itself. */
function tellNamed(entry: Entry, setting: Setting): Told {
  try {
    return tell(entry, setting);
  } catch (error) {
    const reason = error instanceof Problem ? error.message : 'something in it is not as it should be.';
    const { id, title } = entry;
    throw new Problem('entry-uncomputable', { title, id, calendarId: entry.calendarId, reason });
  }
}

function tell(entry: Entry, setting: Setting): Told {
  const { rules, range, reader, takes } = setting;
  const { hostZone } = rules;
  const source = rules.sources.find((s) => s.calendarId === entry.calendarId);
  if (!source) return NOTHING;
  const own = glassOf(entry, setting);
  if (own === 'shut') return NOTHING;
  const visible: VisibleTime[] = [];
  const spans: Span[] = [];
  const plainTaken = takes(entry.calendarId, entry);
  if (!plainTaken && !entry.overrides.length) return NOTHING;
  let plainContent: OutwardContent | undefined;
  for (const one of occurrencesOf(entry, range, hostZone)) {
    if (!(one.overridden ? takes(entry.calendarId, one.content) : plainTaken)) continue;
    const { calendarId } = entry;
    const { hold, labels } = one.content;
    const { glass } = one.overridden
      ? effectiveGlass([
          { by: 'hold', glass: own },
          ...limitsFor({ calendarId, hold, labels }, rules, reader),
        ])
      : { glass: own };
    if (glass === 'frosted') {
      if (one.content.shows === 'free' || one.content.status === 'cancelled') continue;
      spans.push({
        from: one.from,
        to: one.to,
        tentative: rules.tellTentative && one.content.status === 'tentative',
      });
    } else if (glass !== 'shut') {
      const content = one.overridden
        ? tellerOf(source, own, setting)(one.content)
        : (plainContent ??= tellerOf(source, own, setting)(entry));
      const { start, end, from, to, slot } = clipped(one, range, hostZone);
      visible.push({ start, end, from, to, slot, content });
    }
  }
  return { visible, spans };
}

/** The glass of most entries is that of another one with the same hold. */
function glassOf(entry: Entry, { rules, reader, glasses }: Setting): Glass {
  const key = rules.labelHolds.length ? null : `${entry.hold}|${entry.calendarId}`;
  const known = key === null ? undefined : glasses.get(key);
  if (known) return known;
  const { glass } = effectiveGlass(limitsFor(entry, rules, reader));
  if (key !== null) glasses.set(key, glass);
  return glass;
}

const NOTHING: Told = { visible: [], spans: [] };

function tellerOf(
  source: SourceRule,
  glass: Glass,
  { rules, range, outward }: Setting,
): (content: Content) => OutwardContent {
  const key = `${glass}|${source.calendarId}`;
  let teller = outward.get(key);
  if (!teller) outward.set(key, (teller = outwardContent(source, glass, rules, range)));
  return teller;
}

/** Busy time by what it says; what said the same before is the same object again. */
function busyItems(
  spans: readonly Span[],
  rules: WindowRules,
  range: Range,
  before: ReadonlyMap<string, OutwardBusy>,
): Map<string, OutwardBusy> {
  const out = new Map<string, OutwardBusy>();
  for (const span of mergeSpans(roundSpans(spans, range, rules.rounding, rules.hostZone))) {
    const { from, to, tentative } = span;
    const says = `busy|${from}|${to}|${tentative}`;
    out.set(says, before.get(says) ?? busyItem(span, says, rules));
  }
  return out;
}

function busyItem(span: Span, says: string, { secret, hostZone }: WindowRules): OutwardBusy {
  const { tentative } = span;
  return { kind: 'busy', uid: pseudonym(secret, says), ...timeOfSpan(span, hostZone), tentative };
}

/** Returns items in order: most stand in a list that is in order already. */
function inOrder(items: readonly OutwardItem[], before: TellingMemo): readonly OutwardItem[] {
  const changes = listChanges(before.items, items);
  if (!changes || !before.sorted.length) return [...items].sort(compareTimes);
  const out = [...before.sorted];
  for (const item of changes.gone) out.splice(placeIn(out, item), 1);
  for (const item of changes.come) out.splice(placeIn(out, item), 0, item);
  return out;
}

/** Returns where an item stands in a list that is in order, or would stand. */
function placeIn(sorted: readonly OutwardItem[], item: OutwardItem): number {
  let [low, high] = [0, sorted.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if (compareTimes(sorted[middle]!, item) < 0) low = middle + 1;
    else high = middle;
  }
  return low;
}
