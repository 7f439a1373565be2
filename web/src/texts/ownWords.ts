import { inLanguage, type German } from '@zonal/core/words';
import { LANGUAGE } from './language';

/** Returns a table of words of the core in the language of the page. */
export const ownWords = <English extends object>(english: English, german: German<English>) =>
  inLanguage(english, german, LANGUAGE);
