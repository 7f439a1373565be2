import { instantOfUtc, wallFromText, type Instant } from '../../zones';
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
    const parts = UTC_TEXT.exec(text ?? '');
    const wall =
      parts && wallFromText(`${parts[1]}-${parts[2]}-${parts[3]}T${parts[4]}:${parts[5]}:${parts[6]}`);
    if (!wall && wall !== 0) throw new Refused(cal('valid-filter'));
    return instantOfUtc(wall);
  };
  const stretch = { from: at(attributes['start'], -Infinity), to: at(attributes['end'], Infinity) };
  if (!(stretch.from < stretch.to)) throw new Refused(cal('valid-filter'));
  return stretch;
}

/** Whether a time touches a stretch; one without length does where it lies in it (RFC 4791 section 9.9). */
export function touches({ from, to }: Pick<OutwardTime, 'from' | 'to'>, stretch: Stretch): boolean {
  return from < stretch.to && (to > stretch.from || (from === to && from >= stretch.from));
}
