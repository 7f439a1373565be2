import { en } from './en/labels';
import { icuTexts } from './icuTexts';

/** The texts of the form for labels that hold entries back, which calendars and windows share. */
export const t = icuTexts('labels', en);
