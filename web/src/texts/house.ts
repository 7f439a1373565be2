import { en } from './en/house';
import { icuTexts } from './icuTexts';

/** The texts of people, settings, ceilings, mail and the journal. */
export const t = icuTexts('house', en);
