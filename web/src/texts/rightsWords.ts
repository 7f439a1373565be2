import * as rights from '@zonal/core/rights';
import * as german from '@zonal/core/words';
import { LANGUAGE } from './language';
import { ownWords } from './ownWords';

/* The words for people and rights in the language of the page. The names are those of the core. */

export const INVITATION_STATES = ownWords(rights.INVITATION_STATES, german.INVITATION_STATE_DE);
export const STANDING_NAMES = rights.standingNames(LANGUAGE);
export const whoMay = (deed: rights.Deed) => rights.whoMay(deed, LANGUAGE);
export const wishWords = (made: Parameters<typeof rights.wishWords>[0], calendar: string) =>
  rights.wishWords(made, calendar, LANGUAGE);
export const standingWords = (made: Parameters<typeof rights.standingWords>[0], calendar = '') =>
  rights.standingWords(made, calendar, LANGUAGE);
export const ceilingRequestWords = (
  asked: Parameters<typeof rights.ceilingRequestWords>[0],
  calendar: string | null,
) => rights.ceilingRequestWords(asked, calendar, LANGUAGE);
