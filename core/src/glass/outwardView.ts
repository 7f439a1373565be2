import { occurrencesOf, type Entry, type Occurrence, type Range } from '../entries';
import { mergeSpans, roundSpans, timeOfSpan, type Span } from './busySpans';
import { contentThrough, fieldsThrough } from './fields';
import { effectiveGlass, type Glass, type Limit } from './glass';
import { pseudonym } from './pseudonym';
import { compareText, type OutwardBusy, type OutwardItem, type OutwardView } from './view';
import { tellSeries, type Telling } from './series';
import type { Reader, WindowRules } from './rules';

/** The outward part of one entry: what is told of it, and the time that it takes behind frosted glass. */
interface Told {
  readonly items: readonly OutwardItem[];
  readonly spans: readonly Span[];
}

/** What was worked out for entries under one set of rules, range and reader; entries are told apart by identity. */
export type TellingMemo = WeakMap<Entry, Told>;

const HOLD_LIMITS: Readonly<Record<Entry['hold'], Glass | null>> = {
  none: null,
  frost: 'frosted',
  'keep-in': 'shut',
};

/** Returns all limits to what a reader sees of an entry; `hold` is that of the entry or of one of its dates. */
export function limitsFor(
  entry: Pick<Entry, 'calendarId' | 'hold'>,
  rules: Pick<WindowRules, 'sources'>,
  reader: Reader,
): Limit[] {
  const source = rules.sources.find((s) => s.calendarId === entry.calendarId);
  const limits: Limit[] = [{ by: 'window', glass: source?.glass ?? 'shut' }];
  if (reader.cap) limits.push({ by: 'key', glass: reader.cap });
  const hold = HOLD_LIMITS[entry.hold];
  if (hold) limits.push({ by: 'hold', glass: hold });
  return limits;
}

/**
 * Returns the one outward view of a window for a reader: everything that leaves is made from it.
 *
 * `entries` are those of all source calendars, in any order; `range` is a stretch of instants. Two sets of entries
 * that differ only in what the reader may not see give equal views (docs/disclosure.md). A `memo` may be passed
 * again as long as rules, range and reader are the same; entries found in it are not worked out anew.
 */
export function outwardView(
  entries: Iterable<Entry>,
  rules: WindowRules,
  range: Range,
  reader: Reader,
  memo: TellingMemo = new WeakMap(),
): OutwardView {
  const items: OutwardItem[] = [];
  const spans: Span[] = [];
  for (const entry of entries) {
    let told = memo.get(entry);
    if (!told) {
      told = tell(entry, rules, range, reader);
      memo.set(entry, told);
    }
    items.push(...told.items);
    spans.push(...told.spans);
  }
  items.push(...busyItems(spans, rules, range));
  return {
    wording: rules.wording,
    hostZone: rules.hostZone,
    range,
    items: items.sort(
      (a, b) =>
        a.from - b.from || a.to - b.to || compareText(titleOf(a), titleOf(b)) || compareText(a.uid, b.uid),
    ),
  };
}

function tell(entry: Entry, rules: WindowRules, range: Range, reader: Reader): Told {
  const { hostZone, secret } = rules;
  const own = effectiveGlass(limitsFor(entry, rules, reader)).glass;
  if (own === 'shut') return { items: [], spans: [] };
  const visible: Occurrence[] = [];
  const spans: Span[] = [];
  for (const one of occurrencesOf(entry, range, hostZone)) {
    const { glass } = one.overridden
      ? effectiveGlass([
          { by: 'hold', glass: own },
          ...limitsFor({ ...entry, hold: one.content.hold }, rules, reader),
        ])
      : { glass: own };
    if (glass === 'frosted') {
      if (one.content.shows === 'free' || one.content.status === 'cancelled') continue;
      spans.push({
        from: one.from,
        to: one.to,
        tentative: rules.tellTentative && one.content.status === 'tentative',
      });
    } else if (glass !== 'shut') visible.push(one);
  }
  const telling: Telling = { fields: fieldsThrough(own, rules.switches), secret, range, hostZone };
  return { items: visible.length ? tellVisible(entry, visible, telling) : [], spans };
}

function tellVisible(entry: Entry, visible: readonly Occurrence[], telling: Telling): OutwardItem[] {
  if (entry.recurrence) return tellSeries(entry, visible, telling);
  const { start, end, from, to, content } = visible[0]!;
  const uid = pseudonym(telling.secret, entry.id);
  return [{ kind: 'single', uid, start, end, from, to, content: contentThrough(content, telling.fields) }];
}

function busyItems(spans: readonly Span[], rules: WindowRules, range: Range): OutwardBusy[] {
  return mergeSpans(roundSpans(spans, range, rules.rounding, rules.hostZone)).map((span) => ({
    kind: 'busy',
    uid: pseudonym(rules.secret, `busy|${span.from}|${span.to}|${span.tentative}`),
    ...timeOfSpan(span, rules.hostZone),
    tentative: span.tentative,
  }));
}

function titleOf(item: OutwardItem): string {
  return item.kind === 'busy' ? '' : item.content.title;
}
