import { html } from '../page/html';
import { xmlSafe } from '../xml';
import { USUAL_HEIGHT, USUAL_WIDTH, embedCode } from './code';

/** What is told of a page: its window's name and the addresses to be used. */
export interface Embedded {
  readonly name: string;
  readonly embed: string;
  readonly see: string;
  readonly script: string;
  /** Where this comes from, for readers who want to know. */
  readonly origin: string;
}

/** What oEmbed (version 1.0) tells of something rich; all values are plain. */
export type OEmbed = Readonly<Record<string, string | number>>;

/**
 * Returns what a site is told that was given only the address of a page. It is no wider and no higher than asked for; an
 * embed itself is fluid, and is made to fit from 240 pixels on.
 */
export function oEmbed({ origin, ...of }: Embedded, maxWidth: number, maxHeight: number): OEmbed {
  const size = { width: Math.min(USUAL_WIDTH, maxWidth), height: Math.min(USUAL_HEIGHT, maxHeight) };
  return {
    version: '1.0',
    type: 'rich',
    provider_name: 'Zonal Window',
    provider_url: origin,
    title: of.name,
    ...size,
    cache_age: 3600,
    html: embedCode({ ...of, ...size, way: 'frame' }),
  };
}

/** Returns the same as XML. */
export function oEmbedXml(told: OEmbed): string {
  const fields = Object.entries(told).map(
    ([key, value]) => `<${key}>${html`${xmlSafe(String(value))}`.text}</${key}>`,
  );
  return `<?xml version="1.0" encoding="utf-8" standalone="yes"?>\n<oembed>${fields.join('')}</oembed>\n`;
}
