import { firstInsideLanguage, isInsideLanguage, LOCALES, type InsideLanguage } from '@zonal/core/texts';

const STORED_AS = 'zonal-language';

/** Returns the language that the browser asks for, as far as the application speaks it. */
const browserLanguage = (): InsideLanguage => firstInsideLanguage(navigator.languages) ?? 'en';

function chosenLanguage(): InsideLanguage {
  // A worker is named after the language of the page that started it.
  if (typeof localStorage === 'undefined') {
    const { name } = globalThis as { readonly name?: unknown };
    return isInsideLanguage(name) ? name : 'en';
  }
  const stored = localStorage.getItem(STORED_AS);
  return isInsideLanguage(stored) ? stored : browserLanguage();
}

/** The language of this page or worker. It stays the same until the page is loaded again, so constants can hold texts. */
export const LANGUAGE: InsideLanguage = chosenLanguage();

/** The locale by whose customs dates and numbers are written (RFC 5646). */
export const LOCALE = LOCALES[LANGUAGE];

/** Returns whether the page speaks the language of an account; null stands for that of the browser. */
export const isSpoken = (account: InsideLanguage | null): boolean =>
  (account ?? browserLanguage()) === LANGUAGE;

/** Remembers the language of an account on this device: pages that are loaded from now on speak it. */
export function storeLanguage(account: InsideLanguage | null): void {
  if (account) localStorage.setItem(STORED_AS, account);
  else localStorage.removeItem(STORED_AS);
}
