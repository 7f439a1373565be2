import { en } from './en/glass';
import { icuTexts } from './icuTexts';

/** The texts of windows, keys, ledgers and sightlines. */
export const t = icuTexts('glass', en);
