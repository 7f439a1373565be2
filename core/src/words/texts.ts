import { textsByLanguage } from '../texts/readMessages';
import { de } from './de';
import { en } from './en';

/** Returns what the core says to the application, in a language. */
export const insideTexts = textsByLanguage({ en, de });
