import * as entries from '@zonal/core/entries';
import * as german from '@zonal/core/words';
import { LANGUAGE } from './language';
import { ownWords } from './ownWords';

/* The words for entries in the language of the page. The names are those of the core. */

export const KIND_WORDS = ownWords(entries.KIND_WORDS, german.KIND_DE);
export const STATUS_WORDS = ownWords(entries.STATUS_WORDS, german.STATUS_DE);
export const SHOWS_WORDS = ownWords(entries.SHOWS_WORDS, german.SHOWS_DE);
export const HOLD_WORDS = ownWords(entries.HOLD_WORDS, german.HOLD_DE);
export const PROPERTY_KIND_WORDS = ownWords(entries.PROPERTY_KIND_WORDS, german.PROPERTY_KIND_DE);
export const statusWord = (status: entries.Status, kind: entries.Kind) =>
  entries.statusWord(status, kind, LANGUAGE);
export const fieldWord = (field: entries.SaidField) => entries.fieldWord(field, LANGUAGE);
export const ruleWords = (rule: string) => entries.ruleWords(rule, LANGUAGE);
