import { type Range, utcWhen } from '../entries';
import { DAY, MINUTE, dayToText, offsetAt, timeOfWall, wallAt, type Instant, type ZoneName } from '../zones';
import type { OutwardTime } from './view';
import type { Rounding } from './rules';

/** A stretch of time that is taken, as instants. */
export interface Span {
  readonly from: Instant;
  readonly to: Instant;
  readonly tentative: boolean;
}

/** Returns the spans cut to a range, widened outward to full steps of the host's clocks; empty ones fall away. */
export function roundSpans(
  spans: readonly Span[],
  range: Range,
  rounding: Rounding,
  hostZone: ZoneName,
): Span[] {
  const step = rounding * MINUTE;
  const out: Span[] = [];
  for (const span of spans) {
    let from = Math.max(span.from, range.from);
    let to = Math.min(span.to, range.to);
    if (from >= to) continue;
    if (step > 0) {
      from = outward(from, step, hostZone, Math.floor);
      to = outward(to, step, hostZone, Math.ceil);
    }
    out.push({ from, to, tentative: span.tentative });
  }
  return out;
}

function outward(instant: Instant, step: number, zone: ZoneName, way: (n: number) => number): Instant {
  const offset = offsetAt(zone, instant);
  return way((instant + offset) / step) * step - offset;
}

/**
 * Returns the spans joined where they overlap or touch, in order. Where a tentative and a firm span overlap, the
 * firm one counts.
 */
export function mergeSpans(spans: readonly Span[]): Span[] {
  const sorted = inOrder(spans);
  if (!sorted.some((s) => s.tentative)) return union(sorted, false);
  const firm = union(
    sorted.filter((s) => !s.tentative),
    false,
  );
  const tentative = union(
    sorted.filter((s) => s.tentative),
    true,
  );
  const rest = subtract(tentative, firm).map((s) => ({ ...s, tentative: true }));
  return [...firm, ...rest].sort(byStart);
}

function byStart(a: Range, b: Range): number {
  return a.from - b.from;
}

/** They often are in order already. */
function inOrder(spans: readonly Span[]): readonly Span[] {
  for (let i = 1; i < spans.length; i++)
    if (spans[i - 1]!.from > spans[i]!.from) return [...spans].sort(byStart);
  return spans;
}

function union(sorted: readonly Range[], tentative: boolean): Span[] {
  const out: Span[] = [];
  let [first, last] = [0, -Infinity];
  for (const { from, to } of sorted) {
    if (from <= last) last = Math.max(last, to);
    else {
      if (last > -Infinity) out.push({ from: first, to: last, tentative });
      [first, last] = [from, to];
    }
  }
  if (last > -Infinity) out.push({ from: first, to: last, tentative });
  return out;
}

function subtract(spans: readonly Range[], taken: readonly Range[]): Range[] {
  const out: Range[] = [];
  let next = 0;
  for (const span of spans) {
    let { from } = span;
    while (next < taken.length && taken[next]!.to <= from) next++;
    for (let k = next; k < taken.length && taken[k]!.from < span.to; k++) {
      if (taken[k]!.from > from) out.push({ from, to: taken[k]!.from });
      from = Math.max(from, taken[k]!.to);
    }
    if (from < span.to) out.push({ from, to: span.to });
  }
  return out;
}

/**
 * Returns a span as a time: whole days of the host zone as dates, so that they stay the same days for every
 * reader; everything else as UTC.
 */
export function timeOfSpan(span: Range, hostZone: ZoneName): OutwardTime {
  const { from, to } = span;
  const [start, end] = [wallAt(hostZone, from), wallAt(hostZone, to)];
  if (timeOfWall(start) === 0 && timeOfWall(end) === 0) {
    const date = (wall: number) => ({ kind: 'date', date: dayToText(wall / DAY) }) as const;
    return { start: date(start), end: date(end), from, to };
  }
  return { start: utcWhen(from), end: utcWhen(to), from, to };
}
