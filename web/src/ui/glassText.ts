import { type Glass } from '@zonal/core/glass';
import { GLASS_WORDS } from '../texts/glassWords';

/** Returns a glass with what it lets through, in one line. */
export const glassText = (glass: Glass) => `${GLASS_WORDS[glass].word}: ${GLASS_WORDS[glass].plain}`;
