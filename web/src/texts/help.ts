import { en } from './en/help';
import { icuTexts } from './icuTexts';

/** The texts of the help pages. */
export const t = icuTexts('help', en);
