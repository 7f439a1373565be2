import { instantOf, wallAt, wallToText, type Wall, instantOfUtc, utcWall } from '../zones';
import { ruleFromText } from './rule';
import type { When } from './when';

/**
 * Returns an UNTIL value on the clock of a start: a date for dates, floating for floating times, UTC for times in a
 * zone (RFC 5545 section 3.3.10).
 */
export function untilText(like: When, wall: Wall): string {
  const compact = (w: Wall) => wallToText(w).replace(/[-:]/g, '');
  if (like.kind === 'date') return compact(wall).slice(0, 8);
  return like.kind === 'floating' ? compact(wall) : `${compact(utcWall(instantOf(like.zone, wall)))}Z`;
}

/** Returns a rule whose UNTIL, where it has one, has moved along with its start by some clock time. */
export function moveUntil(rule: string, from: When, to: When, shift: number): string {
  const { until, untilIsUtc } = ruleFromText(rule);
  if (until === null || (shift === 0 && from.kind === to.kind)) return rule;
  const wall = untilIsUtc && from.kind === 'zoned' ? wallAt(from.zone, instantOfUtc(until)) : until;
  return rule.replace(/UNTIL=[^;]+/i, `UNTIL=${untilText(to, wall + shift)}`);
}
