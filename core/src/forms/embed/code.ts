import { html } from '../page/html';

/** Pixels that an embed is given where nothing else is asked for. */
export const [USUAL_WIDTH, USUAL_HEIGHT] = [680, 640];

/** Pixels that an embed can be high. */
const HEIGHTS = { least: 100, most: 5000 };

/** Returns a height that somebody wrote, in pixels; the usual one, and a sentence on it, where it is none. */
export function embedHeight(text: string): { readonly height: number; readonly note: string } {
  const height = Number(text);
  const fits = /^\d+$/.test(text.trim()) && height >= HEIGHTS.least && height <= HEIGHTS.most;
  if (fits) return { height, note: '' };
  const note = `A height is a whole number of pixels from ${HEIGHTS.least} to ${HEIGHTS.most}; ${USUAL_HEIGHT} is taken instead.`;
  return { height: USUAL_HEIGHT, note };
}

/** Ways to put a window into another site: a frame, one that a small script fits to its content, or a link alone. */
export const EMBED_WAYS = ['frame', 'fitting', 'link'] as const;
export type EmbedWay = (typeof EMBED_WAYS)[number];

export interface EmbedCode {
  readonly way: EmbedWay;
  /** The window's name. */
  readonly name: string;
  /** Addresses of the embed, of the page for people, and of the script that fits frames. */
  readonly embed: string;
  readonly see: string;
  readonly script: string;
  /** In pixels; until it is fitted where it is. */
  readonly height?: number;
  /** In pixels; as wide as there is room where it is left out. */
  readonly width?: number;
}

/** Returns the address of the script that fits frames to their content. */
export function fitScript(origin: string): string {
  return `${origin}/outside/fit.js`;
}

/**
 * Returns the HTML to be pasted. Sizes are attributes, as sites with a strict content policy take no style in the text; a
 * frame that may not be shown leads to the page all the same.
 */
export function embedCode({
  way,
  name,
  embed,
  see,
  script,
  height = USUAL_HEIGHT,
  width,
}: EmbedCode): string {
  if (way === 'link') return html`<a href="${see}">${name}</a>`.text;
  const frame = html`<iframe src="${embed}" title="${name}" width="${width ?? '100%'}" height="${height}" style="border:0" loading="lazy"><a href="${see}">${name}</a></iframe>`;
  return way === 'frame'
    ? frame.text
    : html`${frame}
<script src="${script}" defer></script>`.text;
}
