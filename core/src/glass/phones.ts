import { isSupportedCountry, parsePhoneNumberFromString } from 'libphonenumber-js/min';
import type { Budget } from '../work';

/** With a sign of a telephone number: a plus, brackets or groups. Dates and times are none. */
const SIGN = /(?<![\w/:.+-])\(?\+?\d[\d ()./-]{5,18}\d(?![\w:.-]{0,20}\d)/g;
const DATE = /^\d{4}-\d{2}-\d{2}|^\d{1,2}\.\d{1,2}\.\d{2,4}$|^\d{4}-\d{4}$|^\d{1,2}\/\d{1,2}\/\d{2,4}$/;
/** What looking up one number costs beside reading a letter. */
const LOOK_UP = 20;

/**
 * Returns the telephone numbers in a text, as they stand there: those with the code of a country (ITU-T E.164), those
 * that are possible in `country` (ISO 3166-1, or empty), and others that are written as numbers are elsewhere, with a
 * zero or a bracket before them.
 */
export function phonesIn(text: string, country: string, budget: Budget): string[] {
  const home = isSupportedCountry(country) ? country : undefined;
  return [...text.matchAll(SIGN)]
    .map(([found]) => found.trim())
    .filter((found) => {
      const digits = found.replace(/\D/g, '').length;
      if (digits < 7 || digits > 15 || DATE.test(found)) return false;
      budget.spend(LOOK_UP);
      const number = parsePhoneNumberFromString(found, home);
      if (number?.isPossible()) return true;
      return !found.startsWith('+') && (!home || /^\(|^0[1-9]/.test(found));
    });
}

/** Returns a telephone number as E.164 if it can be read as one of `country`, or else its digits. */
export function comparablePhone(text: string, country: string): string {
  const home = isSupportedCountry(country) ? country : undefined;
  const number = parsePhoneNumberFromString(text, home);
  return number?.isPossible() ? number.number : text.replace(/\D/g, '');
}
