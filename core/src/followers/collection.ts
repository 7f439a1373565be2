import { childOf, readXml, type Element } from '../forms/dav/readXml';
import { cal, dav } from '../forms/dav/names';
import { NO_MEMORY, remember, type Memory } from './memory';

/** What a program holds of a collection that it syncs by difference (RFC 6578): texts by address, and its token. */
export interface Shelf {
  readonly texts: ReadonlyMap<string, string>;
  readonly token: string;
}

export const EMPTY_SHELF: Shelf = { texts: new Map(), token: '' };

/** Returns the body of a request for what changed since a token, with the entries themselves. */
export function syncRequest({ token }: Pick<Shelf, 'token'>): string {
  return (
    '<D:sync-collection xmlns:D="DAV:" xmlns:C="urn:ietf:params:xml:ns:caldav">' +
    `<D:sync-token>${token}</D:sync-token><D:sync-level>1</D:sync-level>` +
    '<D:prop><D:getetag/><C:calendar-data/></D:prop></D:sync-collection>'
  );
}

/** Returns what a program holds after such an answer; null where its token is no longer known, or the answer malformed. */
export function shelved(shelf: Shelf, answer: string): Shelf | null {
  const root = readXml(answer, Infinity);
  if (root?.name !== dav('multistatus')) return null;
  const texts = new Map(shelf.texts);
  for (const response of root.children) {
    if (response.name !== dav('response')) continue;
    const href = childOf(response, dav('href'))?.text ?? '';
    const data = dataIn(response);
    if (data === undefined) texts.delete(href);
    else texts.set(href, data);
  }
  return { texts, token: childOf(root, dav('sync-token'))?.text ?? '' };
}

function dataIn(response: Element): string | undefined {
  for (const stat of response.children) {
    const data = childOf(childOf(stat, dav('prop')), cal('calendar-data'));
    if (data) return data.text;
  }
  return undefined;
}

/** Returns what a program knows of entries by what it holds of a collection. */
export function memoryOf({ texts }: Shelf): Memory {
  const kept = new Map(NO_MEMORY.kept);
  const zones = new Map(NO_MEMORY.zones);
  for (const text of texts.values()) {
    const own = remember('replace-all', NO_MEMORY, text);
    for (const [key, one] of own.kept) kept.set(key, one);
    for (const [name, zone] of own.zones) zones.set(name, zone);
  }
  return { kept, zones };
}
