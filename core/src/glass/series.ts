import {
  compareText,
  instantOfWhen,
  sameWhen,
  untilText,
  wallOf,
  whenLike,
  zoneOfWhen,
  type Range,
  type When,
} from '../entries';
import { timeOfWall, wallToText, type Wall, type ZoneName } from '../zones';
import { liesWithin } from './clip';
import type { OutwardContent } from './fields';
import { inferRule } from './inferRule';
import { pseudonym } from './pseudonym';
import { type OutwardItem, type OutwardOverride, type OutwardTime } from './view';

/** One time that a reader may see, of any piece of a lineage. */
export interface VisibleTime extends OutwardTime {
  /** Where its rule had put it; null where it does not recur. */
  readonly slot: When | null;
  readonly content: OutwardContent;
}

/** What is needed to tell a lineage outward. */
export interface Telling {
  readonly secret: string;
  readonly range: Range;
  readonly hostZone: ZoneName;
}

/** A visible time with the place in a series that outsiders may know: its slot where that is in the range. */
interface Placed {
  readonly time: VisibleTime;
  readonly slot: When;
  /** Whether it stands where its place is. */
  readonly stands: boolean;
  /** What it looks like apart from its day: content, clocks and length. */
  readonly look: string;
  /** The clock that its place is on: kind, zone and time of day. */
  readonly clock: string;
}

/**
 * Returns the outward items of a lineage from all of its times that a reader may see; nothing else has a say, neither
 * what an entry says that no visible time bears nor which piece of the lineage a time comes from.
 *
 * One time is a single item. More are series: one for each clock (time of day and zone) on which several of them
 * stand, the latest of which bears the lineage's own identifier. Where hardly two share a clock they make one series,
 * listed date by date. A series says what most of its dates say; others are its overrides.
 */
export function tellLineage(
  lineage: string,
  visible: readonly VisibleTime[],
  telling: Telling,
): OutwardItem[] {
  if (visible.length === 1) return [single(lineage, visible[0]!, telling)];
  const placed = place(visible, telling);
  const groups = groupsOf(placed);
  const main = mainOf(groups);
  const items: OutwardItem[] = [];
  for (const [clock, group] of groups) {
    const thing = group === main ? lineage : `${lineage}|${clock}`;
    items.push(...tellGroup(thing, group, telling));
  }
  return items;
}

function place(visible: readonly VisibleTime[], { range, hostZone }: Telling): Placed[] {
  const said = new Map<OutwardContent, string>();
  for (const { content } of visible) if (!said.has(content)) said.set(content, JSON.stringify(content));
  // By its place among all texts, so that long ones are not kept with every date.
  const rank = new Map([...new Set(said.values())].sort(compareText).map((text, i) => [text, i]));
  return visible
    .map((time): Placed => {
      const inside = time.slot !== null && liesWithin(time.slot, range, hostZone);
      const slot = inside ? time.slot! : time.start;
      const clocks = `${time.start.kind}|${zoneOfWhen(time.start, '')}|${zoneOfWhen(time.end, '')}`;
      return {
        time,
        slot,
        stands: slot === time.start || sameWhen(slot, time.start),
        look: `${clocks}|${wallOf(time.end) - wallOf(time.start)}|${rank.get(said.get(time.content)!)}`,
        clock: clockOf(slot),
      };
    })
    .sort(
      (a, b) =>
        a.time.from - b.time.from ||
        a.time.to - b.time.to ||
        wallOf(a.slot) - wallOf(b.slot) ||
        compareText(a.look, b.look) ||
        compareText(a.clock, b.clock),
    );
}

function clockOf(when: When): string {
  if (when.kind === 'date') return 'date';
  return `${zoneOfWhen(when, 'floating')}|${timeOfWall(wallOf(when))}`;
}

/** At least so many times must share a clock on average, or the lineage is listed date by date. */
const SHARED = 3;

function groupsOf(placed: readonly Placed[]): Map<string, Placed[]> {
  const byClock = collect(placed, (p) => p.clock);
  if (byClock.size * SHARED <= placed.length || byClock.size === 1) return byClock;
  return collect(placed, ({ slot }) => (slot.kind === 'date' ? 'date' : zoneOfWhen(slot, 'floating')));
}

function collect<T>(all: readonly T[], keyOf: (one: T) => string): Map<string, T[]> {
  const out = new Map<string, T[]>();
  for (const one of all) {
    const key = keyOf(one);
    const group = out.get(key);
    if (group) group.push(one);
    else out.set(key, [one]);
  }
  return out;
}

/** The group that goes on longest, of those with several times where there are any. */
function mainOf(groups: ReadonlyMap<string, readonly Placed[]>): readonly Placed[] {
  const all = [...groups.values()];
  const several = all.filter((g) => g.length > 1);
  const last = (group: readonly Placed[]) => Math.max(...group.slice(-1).map((p) => p.time.from));
  return (several.length ? several : all).reduce((best, group) => (last(group) > last(best) ? group : best));
}

/** Returns one series of all times of a group, or singles where there is only one, or two want one place. */
function tellGroup(thing: string, group: readonly Placed[], telling: Telling): OutwardItem[] {
  const model = modelOf(group);
  const plain = new Map<Wall, VisibleTime>();
  const moved = new Map<Wall, Placed>();
  const apart: Placed[] = [];
  for (const one of group) {
    const wall = wallOf(one.slot);
    if (one.stands && one.look === model.look && !plain.has(wall)) plain.set(wall, one.time);
  }
  for (const one of group) {
    const wall = wallOf(one.slot);
    if (plain.get(wall) === one.time) continue;
    if (plain.has(wall) || moved.has(wall)) apart.push(one);
    else moved.set(wall, one);
  }
  const alone = apart.map(({ time }, i) =>
    single(`${thing}|${clockOf(time.start)}|${wallToText(wallOf(time.start))}|${i}`, time, telling),
  );
  if (plain.size + moved.size === 1) {
    const only = [...plain.values(), ...[...moved.values()].map((p) => p.time)][0]!;
    return [single(thing, only, telling), ...alone];
  }
  return [seriesItem(thing, model, plain, moved, telling), ...alone];
}

/** The time that a series is told by: it looks as most do that stand in their place, the later look of two. */
function modelOf(group: readonly Placed[]): Placed {
  const standing = group.filter((p) => p.stands);
  const counts = collect(standing.length ? standing : group, (p) => p.look);
  return [...counts.values()].reduce((best, look) => (look.length >= best.length ? look : best))[0]!;
}

function seriesItem(
  thing: string,
  model: Placed,
  plain: ReadonlyMap<Wall, VisibleTime>,
  moved: ReadonlyMap<Wall, Placed>,
  { secret, hostZone }: Telling,
): OutwardItem {
  const { slot: like, time } = model;
  const span = wallOf(time.end) - wallOf(time.start);
  const at = (wall: Wall) => whenLike(like, wall);
  const slots = [...plain.keys(), ...moved.keys()].sort((a, b) => a - b);
  const [first, last] = [slots[0]!, slots.at(-1)!];
  const found = inferRule(slots);
  const [start, end] = [at(first), whenLike(time.end, first + span)];
  return {
    kind: 'series',
    uid: pseudonym(secret, thing),
    start,
    end,
    from: instantOfWhen(start, hostZone),
    to: instantOfWhen(end, hostZone),
    content: time.content,
    rule: found ? `${found.rule};UNTIL=${untilText(like, last)}` : '',
    // With no rule the start is listed too: some programs take a list of dates as the whole.
    dates: (found ? found.extra : slots).map(at),
    exceptDates: (found?.except ?? []).map(at),
    overrides: [...moved]
      .sort(([a], [b]) => a - b)
      .map(([wall, { time: own }]): OutwardOverride => ({
        ...timeOf(own),
        slot: at(wall),
        content: own.content,
      })),
    plain: [...plain].sort(([a], [b]) => a - b).map(([, own]) => timeOf(own)),
  };
}

function timeOf({ start, end, from, to }: OutwardTime): OutwardTime {
  return { start, end, from, to };
}

function single(thing: string, time: VisibleTime, { secret }: Telling): OutwardItem {
  return { kind: 'single', uid: pseudonym(secret, thing), ...timeOf(time), content: time.content };
}
