import { de } from './de/base';
import { en } from './en/base';
import { plainTexts } from './plainTexts';

/** The texts of the page to sign in, and of parts that every screen has. */
export const t = plainTexts({ en, de });
