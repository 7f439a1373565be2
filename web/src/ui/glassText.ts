import { GLASS_WORDS, type Glass } from '@zonal/core/glass';

/** Returns a glass with what it lets through, in one line. */
export const glassText = (glass: Glass) => `${GLASS_WORDS[glass].word}: ${GLASS_WORDS[glass].plain}`;
