import type { Slip } from '../entries';
import type { Instant, ZoneName } from '../zones';
import { clockChangeIn, slipIn, speechFor } from './speech/speech';
import type { InsideLanguage } from '../texts/languages';

/** Returns how far a milestone has slipped, as the inside speaks: `1 day (1 working day) later than planned`. */
export function slipText(slip: Slip, language: InsideLanguage = 'en'): string {
  return slipIn(speechFor(language), slip);
}

/** Returns a sentence on the next clock change in a zone, or an empty text when none comes within a year. */
export function clockChangeText(zone: ZoneName, now: Instant, language: InsideLanguage = 'en'): string {
  return clockChangeIn(speechFor(language), zone, now);
}
