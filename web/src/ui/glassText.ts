import { GLASSES, GLASS_WORDS, type Glass } from '@zonal/core/glass';

/** Through shut glass nobody reads anything. */
export const READ_THROUGH = GLASSES.filter((g) => g !== 'shut');

/** Returns a glass with what it lets through, in one line. */
export const glassText = (glass: Glass) => `${GLASS_WORDS[glass].word}: ${GLASS_WORDS[glass].plain}`;
