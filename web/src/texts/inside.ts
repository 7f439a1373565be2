import { en } from './en/inside';
import { icuTexts } from './icuTexts';

/** The texts of calendars, entries, views and files. */
export const t = icuTexts('inside', en);
