import { en } from './en/rehearsal';
import { icuTexts } from './icuTexts';

/** The texts about what changes for readers. */
export const t = icuTexts('rehearsal', en);
