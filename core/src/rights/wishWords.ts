import { AUDIENCE_WORDS, GLASS_WORDS, type Audience, type Glass } from '../glass';
import type { Made } from './houseRights';

/** Returns what somebody wants to do who wants to be something to a calendar: `see “Quay” through tinted glass`. */
export function wishWords({ standing, glass }: Made, calendar: string): string {
  if (standing === 'reader')
    return `see “${calendar}” through ${GLASS_WORDS[glass ?? 'frosted'].word.toLowerCase()} glass`;
  return `be ${standing === 'editor' ? 'an' : 'a'} ${standing} of “${calendar}”`;
}

/** Returns what somebody is: `reader of Quay through tinted glass`, or without a calendar `reader through tinted glass`. */
export function standingWords({ standing, glass }: Made, calendar = ''): string {
  const what = calendar ? `${standing} of ${calendar}` : standing;
  return glass ? `${what} through ${GLASS_WORDS[glass].word.toLowerCase()} glass` : what;
}

/**
 * Returns what somebody asks for who wants a higher ceiling: `raise the ceiling of “Quay” for Street to Clear`. Without a calendar
 * it is the ceiling of the whole house.
 */
export function ceilingRequestWords(
  { audience, glass }: { readonly audience: Audience; readonly glass: Glass },
  calendar: string | null,
): string {
  const place = calendar === null ? 'the whole house' : `“${calendar}”`;
  return `raise the ceiling of ${place} for ${AUDIENCE_WORDS[audience].word} to ${GLASS_WORDS[glass].word}`;
}
