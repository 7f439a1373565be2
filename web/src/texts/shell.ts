import { en } from './en/shell';
import { icuTexts } from './icuTexts';

/** The texts of what all screens stand in, and of the account, requests, the first day and addresses from mails. */
export const t = icuTexts('shell', en);
