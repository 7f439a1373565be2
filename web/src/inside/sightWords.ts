import type { Calendar } from '@zonal/core/api';
import { t } from '../texts/inside';
import { GLASS_WORDS } from '../texts/glassWords';

const WHO: Readonly<Record<Calendar['who'], string>> = {
  steward: t('youSteward'),
  publisher: t('youPublisher'),
  editor: t('youEditor'),
  reader: t('youReader'),
  house: t('openToHouse'),
};

/** Returns what somebody is to a calendar, and how clearly they see it. */
export function sightWords({ who, sight }: Pick<Calendar, 'who' | 'sight'>): string {
  if (sight === 'all') return t('seeEverything', { who: WHO[who] });
  const { word, plain } = GLASS_WORDS[sight];
  return t('seeThrough', { who: WHO[who], glass: word.toLowerCase(), plain });
}
