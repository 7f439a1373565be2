import { localRule, untilText, wallOf, whenLike, type When } from '../entries';
import type { DueForm, OutwardItem, OutwardOverride, OutwardTime } from '../glass';
import { DAY } from '../zones';

/**
 * Returns an item as a feed writes it: a due item that is to be an all-day entry gets the day of its moment. All
 * others stay the same object.
 */
export function asWritten(item: OutwardItem, { dueAs }: { readonly dueAs: DueForm }): OutwardItem {
  if (dueAs !== 'all-day' || item.kind === 'busy' || item.content.kind !== 'due') return item;
  const content = { ...item.content, title: `Due: ${item.content.title}` };
  if (item.kind === 'single') return { ...asDay(item), content };
  return {
    ...asDay(item),
    content,
    rule: item.rule && dayRule(item.rule, item.start),
    dates: onceEach(item.dates.map(dayOf), wallOf),
    exceptDates: onceEach(item.exceptDates.map(dayOf), wallOf),
    overrides: onceEach(item.overrides.map(dayOverride), (o) => wallOf(o.slot)),
    plain: item.plain.map(asDay),
  };
}

function dayOf(when: When): When {
  return when.kind === 'date' ? when : { kind: 'date', date: when.at.slice(0, 10) };
}

function asDay<T extends OutwardTime>(time: T): T {
  const start = dayOf(time.start);
  return { ...time, start, end: whenLike(start, wallOf(start) + DAY), to: Math.max(time.to, time.from + 1) };
}

function dayOverride(o: OutwardOverride): OutwardOverride {
  return { ...asDay(o), slot: dayOf(o.slot), content: { ...o.content, title: `Due: ${o.content.title}` } };
}

/** The last date stands in the rule as a day, as the start does (RFC 5545 section 3.3.10). */
function dayRule(rule: string, start: When): string {
  const { until } = localRule(rule, start);
  if (until === null) return rule;
  const day: When = { kind: 'date', date: '' };
  return rule.replace(/UNTIL=[^;]+/i, `UNTIL=${untilText(day, until)}`);
}

function onceEach<T>(all: readonly T[], keyOf: (one: T) => number): T[] {
  return [...new Map(all.map((one) => [keyOf(one), one] as const)).values()];
}
