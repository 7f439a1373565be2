import { DAY, clockChanges, offsetAt, wallAt, type Instant, type Wall, type ZoneName } from '../zones';
import { compactWall } from './icsText';

/**
 * Returns the lines of a VTIMEZONE (RFC 5545 section 3.6.5) that is right from one instant to another: every clock
 * change of that time is an observance of its own. No rule has to be guessed, and no list of onsets (RDATE) is used:
 * some programs read only the first of it.
 */
export function timeZoneLines(zone: ZoneName, from: Instant, to: Instant): string[] {
  const start = from - 2 * DAY;
  const changes = clockChanges(zone, start, to + 2 * DAY);
  const first = offsetAt(zone, start);
  const least = Math.min(first, ...changes.map((c) => c.offset));
  return [
    'BEGIN:VTIMEZONE',
    `TZID:${zone}`,
    // What holds before the first change.
    ...observance(first > least, first, first, wallAt(zone, start)),
    // An onset is written as the clock read before the change.
    ...changes.flatMap((c) => observance(c.offset > least, c.before, c.offset, c.at + c.before)),
    'END:VTIMEZONE',
  ];
}

function observance(daylight: boolean, before: number, offset: number, onset: Wall): string[] {
  const kind = daylight ? 'DAYLIGHT' : 'STANDARD';
  return [
    `BEGIN:${kind}`,
    `DTSTART:${compactWall(onset)}`,
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
