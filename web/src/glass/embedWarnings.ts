import type { EmbedWay } from '@zonal/core/forms';
import { t } from '../texts/glass';

/** What an embed says of its size, in pixels: of its content, of the frame that it is in, and of what is too wide. */
export interface EmbedSize {
  readonly zonalWindow: 'size';
  readonly height: number;
  readonly room: number;
  /** By how much it can be scrolled sideways. */
  readonly sideways: number;
  /** Entries whose words are cut off. */
  readonly cut: number;
}

/** Returns what readers of an embed would not see at once, in sentences. */
export function warningsOf({ height, room, sideways, cut }: EmbedSize, way: EmbedWay): string[] {
  const below = Math.round(height - room);
  return [
    below > 1 &&
      (way === 'fitting' ? t('frameTooLow', { pixels: below }) : t('contentHigher', { pixels: below })),
    sideways > 0 && t('scrollsSideways', { pixels: Math.round(sideways) }),
    cut > 0 && t('wordsCutOff', { count: cut }),
  ].filter((text) => text !== false);
}
