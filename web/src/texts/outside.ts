import { en } from './en/outside';
import { icuTexts } from './icuTexts';

/** The texts of reach, pushes and link sheets. */
export const t = icuTexts('outside', en);
