import {
  instantOfWhen,
  sameWhen,
  showsLike,
  untilText,
  wallOf,
  whenLike,
  type Content,
  type Entry,
  type Occurrence,
  type Range,
  type When,
} from '../entries';
import { wallToText, type Wall, type ZoneName } from '../zones';
import type { OutwardContent } from './fields';
import { inferRule } from './inferRule';
import { pseudonym } from './pseudonym';
import type { OutwardItem, OutwardOverride, OutwardSingle, OutwardTime } from './view';

/** What is needed to tell a recurring entry outward. */
export interface Telling {
  readonly outward: (content: Content) => OutwardContent;
  readonly secret: string;
  readonly range: Range;
  readonly hostZone: ZoneName;
}

/**
 * Returns the outward items of a recurring entry from those of its occurrences that the reader may see.
 *
 * A series is told as one item with a rule where at least one visible occurrence is as the entry says and two or
 * more stand in a slot within the range. Dates that were moved here from outside the range stand alone. Nothing
 * but the visible occurrences has a say in the result.
 */
export function tellSeries(entry: Entry, visible: readonly Occurrence[], telling: Telling): OutwardItem[] {
  const own = telling.outward(entry);
  const ownText = JSON.stringify(own);
  const span = wallOf(entry.end) - wallOf(entry.start);
  const plain: OutwardTime[] = [];
  const overrides: OutwardOverride[] = [];
  const apart: OutwardSingle[] = [];
  for (const one of visible) {
    const content = one.overridden ? telling.outward(one.content) : own;
    const time: OutwardTime = { start: one.start, end: one.end, from: one.from, to: one.to };
    const slot = one.slot!;
    const usual =
      sameWhen(one.start, slot) &&
      showsLike(one.end, entry.end, wallOf(slot) + span) &&
      sameKind(slot, entry.start);
    if (usual && (!one.overridden || JSON.stringify(content) === ownText)) plain.push(time);
    else if (!one.overridden) overrides.push({ ...time, slot, content });
    else if (slotWithin(slot, entry.start, telling))
      overrides.push({ ...time, slot: likeStart(slot, entry.start), content });
    else apart.push(single(`${entry.id}|${wallToText(wallOf(slot))}`, time, content, telling));
  }
  if (plain.length === 0 || plain.length + overrides.length < 2) {
    const lone = plain.map((time) => single(entry.id, time, own, telling));
    const rest = overrides.map((o) => {
      const { slot, content, ...time } = o;
      return single(`${entry.id}|${wallToText(wallOf(slot))}`, time, content, telling);
    });
    return [...lone, ...rest, ...apart];
  }
  return [seriesItem(entry, span, own, plain, overrides, telling), ...apart];
}

function seriesItem(
  entry: Entry,
  span: number,
  own: OutwardContent,
  plain: readonly OutwardTime[],
  overrides: readonly OutwardOverride[],
  { secret, hostZone }: Telling,
): OutwardItem {
  const slots = [...plain.map((p) => wallOf(p.start)), ...overrides.map((o) => wallOf(o.slot))].sort(
    (a, b) => a - b,
  );
  const at = (wall: Wall) => whenLike(entry.start, wall);
  const [first, last] = [slots[0]!, slots.at(-1)!];
  const found = inferRule(slots);
  const [start, end] = [at(first), whenLike(entry.end, first + span)];
  return {
    kind: 'series',
    uid: pseudonym(secret, entry.id),
    start,
    end,
    from: instantOfWhen(start, hostZone),
    to: instantOfWhen(end, hostZone),
    content: own,
    rule: found ? `${found.rule};UNTIL=${untilText(entry.start, last)}` : '',
    // With no rule the start is listed too: some programs take a list of dates as the whole.
    dates: (found ? found.extra : slots).map(at),
    exceptDates: (found?.except ?? []).map(at),
    overrides: [...overrides].sort((a, b) => wallOf(a.slot) - wallOf(b.slot)),
    plain,
  };
}

function single(
  thing: string,
  time: OutwardTime,
  content: OutwardContent,
  { secret }: Telling,
): OutwardSingle {
  return { kind: 'single', uid: pseudonym(secret, thing), ...time, content };
}

function slotWithin(slot: When, start: When, { range, hostZone }: Telling): boolean {
  const at = instantOfWhen(slot, hostZone);
  return at >= range.from && at < range.to && sameKind(slot, start);
}

function sameKind(a: When, b: When): boolean {
  return a.kind === b.kind || (a.kind !== 'date' && b.kind !== 'date');
}

/** Returns a slot on the clocks of the series. */
function likeStart(slot: When, start: When): When {
  return slot.kind === start.kind ? slot : whenLike(start, wallOf(slot));
}
