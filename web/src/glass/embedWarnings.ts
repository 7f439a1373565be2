import type { EmbedWay } from '@zonal/core/forms';

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
      (way === 'fitting'
        ? `The frame stays ${below} pixels too low: this site lets the script do nothing. Readers scroll inside it.`
        : `Its content is ${below} pixels higher than the frame: readers scroll inside it. Make it higher, show less, or take the fitted frame.`),
    sideways > 0 && `It scrolls sideways by ${Math.round(sideways)} pixels.`,
    cut > 0 &&
      `${cut === 1 ? 'The words of one entry are' : `The words of ${cut} entries are`} cut off until they are pointed at. The list has room for them.`,
  ].filter((text) => text !== false);
}
