import type { Slip } from '../entries';
import type { Instant, ZoneName } from '../zones';
import { clockChangeIn, slipIn, speechFor } from './speech/speech';

/** Returns how far a milestone has slipped, in the English of the inside: `1 day (1 working day) later than planned`. */
export function slipText(slip: Slip): string {
  return slipIn(speechFor('en'), slip);
}

/** Returns a sentence on the next clock change in a zone in English, or an empty text when none comes within a year. */
export function clockChangeText(zone: ZoneName, now: Instant): string {
  return clockChangeIn(speechFor('en'), zone, now);
}
