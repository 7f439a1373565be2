import { html, type Html } from '../page/html';

/** The namespaces of WebDAV (RFC 4918), CalDAV (RFC 4791), and of the tag that tells whether a collection changed. */
const DAV = 'DAV:';
const CALDAV = 'urn:ietf:params:xml:ns:caldav';
const TAGS = 'http://calendarserver.org/ns/';
/** Of the colour of a collection, which no RFC names and many programs ask for. */
const COLOURS = 'http://apple.com/ns/ical/';

/** Namespaces in use, each with its prefix in what is written. */
const PREFIXES: Readonly<Record<string, string>> = { [DAV]: 'D', [CALDAV]: 'C', [TAGS]: 'S', [COLOURS]: 'I' };

/** What the outermost element of an answer says of its prefixes. */
export const DECLARED = html`${Object.entries(PREFIXES).map(
  ([space, prefix]) => html` xmlns:${prefix}="${space}"`,
)}`;

/** An expanded name: namespace, a blank, and the local name, so that it can be compared and be a key of a table. */
export type Name = `${string} ${string}`;

export const dav = (local: string): Name => `${DAV} ${local}`;
export const cal = (local: string): Name => `${CALDAV} ${local}`;
export const tag = (local: string): Name => `${TAGS} ${local}`;
export const colour = (local: string): Name => `${COLOURS} ${local}`;

/** Returns an element; names that nobody here knows come back as they were asked for. */
export function element(name: Name, inside: Html | readonly Html[] | string = '', attributes?: Html): Html {
  const at = name.lastIndexOf(' ');
  const [space, local] = [name.slice(0, at), name.slice(at + 1)];
  const prefix = PREFIXES[space];
  const own = prefix ? `${prefix}:${local}` : local;
  return html`<${own}${prefix ? '' : html` xmlns="${space}"`}${attributes ?? ''}>${inside}</${own}>`;
}
