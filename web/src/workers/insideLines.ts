import { occurrencesOf, type Entry } from '@zonal/core/entries';
import { entriesInside, rangeInside } from '@zonal/core/rights';
import { DAY } from '@zonal/core/zones';
import type { InsideLine, InsideQuestion } from './questions';
import { spanWords } from '../texts/formWords';

/** As much as shows what a glass makes of a calendar. */
const [MOST, DAYS] = [6, 60];

/** Returns the next times that somebody inside would see of a calendar, as they would read them. */
export function insideLines(
  entries: readonly Entry[],
  { calendar, through, ceilings, now }: Omit<InsideQuestion, 'kind'>,
): InsideLine[] {
  const range = rangeInside(calendar.zone, now);
  // What stands there is the same whatever its identifiers are made of.
  const seen = entriesInside(entries, through, { calendar, ceilings, secret: 'preview', range });
  const next = { from: now, to: now + DAYS * DAY };
  return seen
    .flatMap((entry) => occurrencesOf(entry, next, calendar.zone))
    .sort((a, b) => a.from - b.from)
    .slice(0, MOST)
    .map(({ start, end, content }) => ({
      when: spanWords({ start, end }, calendar.zone),
      title: content.title,
      place: content.place,
    }));
}
