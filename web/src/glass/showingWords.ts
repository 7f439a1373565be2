import type { Showing } from '@zonal/core/glass';
import { t } from '../texts/glass';

/** How the days of a page are laid out, in words. */
export const SHOWING_WORDS: Readonly<Record<Showing, string>> = {
  list: t('list'),
  week: t('week'),
  month: t('month'),
};
