import { instantOfUtc, wallFromText, type Instant } from '../../zones';
import { Problem } from '../../problems';
import type { OutwardTime } from '../../glass';
import { Refused } from './refused';
import type { Element } from './readXml';
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
