import { en } from './en/times';
import { icuTexts } from './icuTexts';

/** The texts about times, lengths and numbers of readers. */
export const t = icuTexts('times', en);
