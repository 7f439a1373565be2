import type { When } from '../entries';

/** Returns how one date of an entry is named in an address: as its start is written, `2026-05-31T14:30:00` or `2026-05-31`. */
export function onText(start: When): string {
  return start.kind === 'date' ? start.date : start.at;
}
