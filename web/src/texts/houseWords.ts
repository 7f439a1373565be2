import * as journal from '@zonal/core/journal';
import * as post from '@zonal/core/post';
import * as german from '@zonal/core/words';
import { LANGUAGE } from './language';
import { ownWords } from './ownWords';

/* The words for mails and the journal in the language of the page. The names are those of the core. */

export const MAIL_STATES = ownWords(post.MAIL_STATES, german.MAIL_STATE_DE);
export const LETTER_KINDS = ownWords(post.LETTER_KINDS, german.LETTER_KIND_DE);
export const JOURNAL_AREAS = ownWords(journal.JOURNAL_AREAS, german.JOURNAL_AREA_DE);
export const JOURNAL_TURNS = ownWords(journal.JOURNAL_TURNS, german.JOURNAL_TURN_DE);
export const journalKindWord = (kind: journal.JournalKindName) => journal.journalKindWord(kind, LANGUAGE);
