import { DAY, clockChanges, offsetAt, wallAt, type Instant, type ZoneName } from '../zones';
import { compactWall } from './icsText';

/**
 * Returns the lines of a VTIMEZONE (RFC 5545 section 3.6.5) that is right from one instant to another: every clock
 * change of that time is listed by its date, so that no rule has to be guessed.
 */
export function timeZoneLines(zone: ZoneName, from: Instant, to: Instant): string[] {
  const start = from - 2 * DAY;
  const changes = clockChanges(zone, start, to + 2 * DAY);
  const first = offsetAt(zone, start);
  const least = Math.min(first, ...changes.map((c) => c.offset));
  const lines = ['BEGIN:VTIMEZONE', `TZID:${zone}`];
  // What holds before the first listed change.
  lines.push(...observance(first > least, first, first, [compactWall(wallAt(zone, start))]));
  const groups = new Map<string, { before: number; offset: number; onsets: string[] }>();
  for (const { at, before, offset } of changes) {
    const key = `${before}|${offset}`;
    const group = groups.get(key) ?? { before, offset, onsets: [] };
    // An onset is written as the clock read before the change.
    group.onsets.push(compactWall(at + before));
    groups.set(key, group);
  }
  for (const { before, offset, onsets } of groups.values()) {
    lines.push(...observance(offset > least, before, offset, onsets));
  }
  lines.push('END:VTIMEZONE');
  return lines;
}

function observance(daylight: boolean, before: number, offset: number, onsets: readonly string[]): string[] {
  const kind = daylight ? 'DAYLIGHT' : 'STANDARD';
  const [first, ...more] = onsets;
  return [
    `BEGIN:${kind}`,
    `DTSTART:${first}`,
    ...(more.length ? [`RDATE:${more.join(',')}`] : []),
    `TZOFFSETFROM:${offsetText(before)}`,
    `TZOFFSETTO:${offsetText(offset)}`,
    `TZNAME:UTC${offsetText(offset)}`,
    `END:${kind}`,
  ];
}

/** Returns an offset in milliseconds as `-0330`, with seconds where there are any (RFC 5545 section 3.3.14). */
function offsetText(offset: number): string {
  const seconds = Math.round(Math.abs(offset) / 1000);
  const two = (n: number) => String(n).padStart(2, '0');
  const rest = seconds % 60 ? two(seconds % 60) : '';
  const sign = offset < 0 ? '-' : '+';
  return `${sign}${two(Math.floor(seconds / 3600))}${two(Math.floor(seconds / 60) % 60)}${rest}`;
}
