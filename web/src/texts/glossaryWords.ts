import * as glossary from '@zonal/core/glossary';
import * as german from '@zonal/core/words';
import { ownWords } from './ownWords';

/* The word list in the language of the page. */

export const PRODUCT_WORDS = ownWords(glossary.PRODUCT_WORDS, german.PRODUCT_WORD_DE);
export const TRADE_WORDS = ownWords(glossary.TRADE_WORDS, german.TRADE_WORD_DE);
