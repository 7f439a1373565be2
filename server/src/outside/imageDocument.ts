import type { OutwardView } from '@zonal/core/glass';
import type { Written } from './outside';
import { ENCODED, UNLISTED, goneText } from './renderDocument';
import { noBody, writeHead } from './writing';

/** The names of the images of each view; a view is never altered. */
const namesByView = new WeakMap<OutwardView, ReadonlySet<string>>();

/** Returns the names of all images that a view shows. */
export function imageNames(view: OutwardView): ReadonlySet<string> {
  let known = namesByView.get(view);
  if (!known) {
    const contents = view.items.flatMap((item) => {
      if (item.kind === 'busy') return [];
      return item.kind === 'series'
        ? [item.content, ...item.overrides.map((o) => o.content)]
        : [item.content];
    });
    known = new Set(contents.flatMap(({ image }) => image?.name ?? []));
    namesByView.set(view, known);
  }
  return known;
}

/**
 * Returns the document of an image (WebP), or of an entry that is gone if `bytes` is null: an image that is not shown answers like
 * one that never was.
 */
export function imageDocument(
  name: string,
  bytes: Uint8Array | null,
  { view, isListed }: { readonly view: OutwardView; readonly isListed: boolean },
): Written {
  const robots = isListed ? {} : UNLISTED;
  const rest = { body: noBody(), vary: ENCODED, learns: null, dated: null };
  if (!bytes) {
    const headers = { 'Content-Type': 'text/plain; charset=utf-8', ...robots };
    return { ...rest, ...writeHead(`${goneText(view)}\n`, noBody()), headers, status: 404 };
  }
  // It is compressed already. Web pages of calendar programs may show it.
  const headers = { 'Content-Type': 'image/webp', 'Cross-Origin-Resource-Policy': 'cross-origin', ...robots };
  const head = { plain: new Uint8Array(bytes), gzip: new Uint8Array(), tail: new Uint8Array() };
  return { ...rest, head, print: name, tag: `"${name}"`, headers, status: 200 };
}
