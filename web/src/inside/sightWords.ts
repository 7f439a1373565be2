import type { Calendar } from '@zonal/core/api';
import { GLASS_WORDS } from '@zonal/core/glass';

const WHO: Readonly<Record<Calendar['who'], string>> = {
  steward: 'You are a steward of the house',
  publisher: 'You are a publisher of this calendar',
  editor: 'You are an editor of this calendar',
  reader: 'You are a reader of this calendar',
  house: 'This calendar is open to the house',
};

/** Returns what somebody is to a calendar, and how clearly they see it. */
export function sightWords({ who, sight }: Pick<Calendar, 'who' | 'sight'>): string {
  if (sight === 'all') return `${WHO[who]}, and see everything in it.`;
  const { word, plain } = GLASS_WORDS[sight];
  return `${WHO[who]}, and see it through ${word.toLowerCase()} glass: ${plain}.`;
}
