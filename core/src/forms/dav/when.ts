import { instantOfWhen } from '../../entries';
import { instantOfUtc, wallFromText, zoneNamed, type Instant, type ZoneName } from '../../zones';
import { Problem } from '../../problems';
import { zoneDefinedIn } from '../read/zoneOfFile';
import type { OutwardTime, OutwardView } from '../../glass';
import { Refused } from './refused';
import { childOf, type Element } from './readXml';
import { cal } from './names';

/** A stretch of instants that a request names; `to` is exclusive. */
export interface Stretch {
  readonly from: Instant;
  readonly to: Instant;
}

const UTC_TEXT = /^(\d{4})(\d\d)(\d\d)T(\d\d)(\d\d)(\d\d)Z$/;

/** Returns the stretch of a time-range (RFC 4791 section 9.9), open where an end is left out. Refuses what is none. */
export function stretchOf({ attributes }: Element, both = false): Stretch {
  const at = (text: string | undefined, open: number) => {
    if (text === undefined && !both) return open;
    const instant = instantIn(text ?? '');
    if (instant === null) throw new Refused(cal('valid-filter'));
    return instant;
  };
  const stretch = { from: at(attributes['start'], -Infinity), to: at(attributes['end'], Infinity) };
  if (!(stretch.from < stretch.to)) throw new Refused(cal('valid-filter'));
  return stretch;
}

/** Returns the instant of a UTC date-time (RFC 5545 section 3.3.5), or null if there is no such moment. A leap second counts as the one before. */
function instantIn(text: string): Instant | null {
  const [, year, month, day, hour, minute, second] = UTC_TEXT.exec(text) ?? [];
  if (!year) return null;
  try {
    return instantOfUtc(
      wallFromText(`${year}-${month}-${day}T${hour}:${minute}:${second === '60' ? '59' : second}`),
    );
  } catch (error) {
    if (error instanceof Problem || error instanceof RangeError) return null;
    throw error;
  }
}

/** Whether a time touches a stretch; one without length does where it lies in it (RFC 4791 section 9.9). */
export function touches({ from, to }: Pick<OutwardTime, 'from' | 'to'>, stretch: Stretch): boolean {
  return from < stretch.to && (to > stretch.from || (from === to && from >= stretch.from));
}

/**
 * Returns the zone by whose clocks a query reads dates and floating times (RFC 4791 section 9.8, RFC 7809 section 4.1): the
 * one that it names, or else that of the collection. Refuses a zone that is unknown.
 */
export function zoneOfQuery(root: Element, { hostZone, range }: OutwardView): ZoneName {
  const [defined, named] = [childOf(root, cal('timezone')), childOf(root, cal('timezone-id'))];
  if (!defined && !named) return hostZone;
  const zone = defined ? zoneDefinedIn(defined.text, hostZone, range) : zoneNamed(named!.text);
  if (zone === null) throw new Refused(cal('valid-timezone'));
  return zone;
}

/** Returns when a time takes place where dates and floating times are read by the clocks of `zone`. */
export function byClocksOf(zone: ZoneName, { start, end, from, to }: OutwardTime): Stretch {
  return {
    from: start.kind === 'zoned' ? from : instantOfWhen(start, zone),
    to: end.kind === 'zoned' ? to : instantOfWhen(end, zone),
  };
}
