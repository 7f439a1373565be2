import { GLASSES, effectiveGlass, sourceLimits, type Audience, type Glass, type SourceRule } from '../glass';
import type { HouseRights } from './houseRights';
import type { Sight } from './rights';

/** Caps from none to the one that lets nothing through. */
const CAPS: readonly (Glass | null)[] = [null, 'tinted', 'frosted', 'shut'];
const SIGHTS: readonly Sight[] = [...GLASSES, 'all'];

/**
 * Returns the cap of a key that is a colleague's own: the clearest with which it shows of no calendar more than they may
 * see inside. Null for none.
 */
export function ownKeyCap(
  sources: readonly SourceRule[],
  audience: Audience,
  rights: HouseRights,
): Glass | null {
  const fits = (cap: Glass | null) =>
    sources.every(({ calendarId }) => {
      const limits = sourceLimits(calendarId, { sources, ceilings: rights.ceilings }, { audience, cap });
      return SIGHTS.indexOf(effectiveGlass(limits).glass) <= SIGHTS.indexOf(rights.sight(calendarId));
    });
  for (const cap of CAPS) if (fits(cap)) return cap;
  return 'shut';
}
