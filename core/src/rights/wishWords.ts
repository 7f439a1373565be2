import { GLASS_WORDS, type Glass } from '../glass';
import type { Standing } from './rights';

/** Returns what somebody wants to do who wants to be something to a calendar: `see “Quay” through tinted glass`. */
export function wishWords(
  { standing, glass }: { readonly standing: Standing; readonly glass: Glass | null },
  calendar: string,
): string {
  if (standing === 'reader')
    return `see “${calendar}” through ${GLASS_WORDS[glass ?? 'frosted'].word.toLowerCase()} glass`;
  return `be ${standing === 'editor' ? 'an' : 'a'} ${standing} of “${calendar}”`;
}
