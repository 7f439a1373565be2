import type { InsideLanguage } from '@zonal/core/texts';
import type { UserRow } from './models';

/** Returns the language in which somebody gets mails: English unless they have chosen one. */
export const languageOf = ({ language }: Pick<UserRow, 'language'>): InsideLanguage => language ?? 'en';
