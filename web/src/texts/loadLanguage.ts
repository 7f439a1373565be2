import { LANGUAGE } from './language';

/** Fetches the texts of the page's language, unless they are there already. Screens are to be imported after that. */
export async function loadLanguage(): Promise<void> {
  if (LANGUAGE === 'de') await import('./de');
}
