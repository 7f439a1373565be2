import { LOCALE } from '../texts/language';
/** Returns a day as it is told beside what was set. */
export function dayOf(instant: string): string {
  return new Date(instant).toLocaleDateString(LOCALE, { day: 'numeric', month: 'short', year: 'numeric' });
}
