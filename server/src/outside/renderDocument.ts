import {
  FORMS,
  davAnswer,
  differenceParts,
  entryFile,
  fileNameOf,
  knowsSince,
  speechFor,
  wholeOf,
  writtenPage,
  type Notice,
} from '@zonal/core/forms';
import { leavingAt } from '@zonal/core/reach';
import type { Instant } from '@zonal/core/zones';
import { addressesOf } from '../glass/addresses';
import type {
  DavOrder,
  DifferenceOrder,
  DocumentOrder,
  EntryOrder,
  Order,
  PageOrder,
  Told,
  Written,
} from './outside';
import type { BodyWriters } from './renderer';
import type { RenderedView } from './viewDelta';
import { DAV_CLASSES, ENHANCED_GET, FEED_VARY, viewPrint } from './syncToken';
import { BodyWriter, noBody, writeHead } from './writing';

/** Pages and feeds that are not listed tell search engines so. */
export const UNLISTED = { 'X-Robots-Tag': 'noindex, nofollow' };
export const ENCODED = 'Accept-Encoding';

/** What documents depend on besides the view and who asks. */
export interface Place {
  readonly publicUrl: string;
  /** The beginning of the day up to which the view is worked out. */
  readonly asOf: Instant;
  /** The hub that is told of listed windows, or empty. */
  readonly hub: string;
  /** Whether mail goes out from here, so that readers may leave an address. */
  readonly mayMail: boolean;
  /** The name by which everybody finds the window, or null where it is not listed. */
  readonly listed: string | null;
}

/** What readers are told first: that their address goes on elsewhere, else that the window ends. */
export function noticeOf(
  { moved, farewell }: Pick<Order, 'moved' | 'farewell'>,
  publicUrl: string,
): Notice | null {
  if (!moved) return farewell && { to: null, ...farewell };
  const { see, feed } = addressesOf(publicUrl, moved.token);
  return { to: { see, feed }, at: moved.at, until: moved.until };
}

/** Returns the document that is asked for of a view. `bodies` keeps what the next revision can use again. */
export function renderDocument(
  order: DocumentOrder,
  state: RenderedView,
  bodies: BodyWriters,
  place: Place,
): Written {
  if ('page' in order) return writePageOrder(order, state, place);
  if (order.form === 'entry') return writeEntryOrder(order, state, place);
  if (order.form === 'difference') return writeDifference(order, state, place);
  if (order.form === 'dav') return writeDav(order, state, place);
  const { view, revision } = state;
  const { now, form } = order;
  const { addresses, notice, robots } = placeOf(order, place);
  const { asOf } = place;
  const { contentType, steady, dated, lets, shared, linked, parts } = FORMS[form];
  // What is not listed is nobody's to be told of, also no hub's.
  const hub = form === 'changes' && place.listed === order.token ? place.hub : '';
  const { head, blocks, fill } = parts(view, revision, {
    addresses,
    now,
    asOf,
    notice,
    ...(hub ? { hub } : {}),
  });
  const name = linked ? `${form}|${notice?.to?.see ?? addresses.see}` : form;
  let writer = bodies.get(name);
  if (!writer) bodies.set(name, (writer = new BodyWriter()));
  const body = blocks.length ? writer.write(blocks, fill) : noBody();
  // A notice is a change too, in whole seconds as all are; so is that something is told no more.
  const cleared = lets ? leavingAt(revision, view.wording, asOf).clearedAt : -Infinity;
  const at = Math.max(revision.at, cleared, notice ? Math.floor(notice.at / 1000) * 1000 : 0);
  return {
    ...writeHead(head, body),
    body: body.print === order.body ? null : body,
    headers: {
      'Content-Type': contentType,
      ...disposition(form === 'copy', fileNameOf(form, view, now)),
      ...(steady ? { 'Last-Modified': new Date(at).toUTCString() } : {}),
      ...(shared ? { 'Access-Control-Allow-Origin': '*' } : {}),
      ...(form === 'feed' ? { Link: upgradeLinks(addresses) } : {}),
      ...(hub ? { Link: `<${hub}>; rel="hub", <${addresses.changes}>; rel="self"` } : {}),
      ...robots,
    },
    vary: form === 'feed' ? FEED_VARY : ENCODED,
    status: 200,
    learns: CONTENTS,
    dated: dated ? at : null,
  };
}

const CONTENTS = { contents: true, had: null };

/** What is known no more is asked for whole again (RFC 6578 section 3.2). */
const NOT_KNOWN = '<?xml version="1.0" encoding="utf-8"?>\n<error xmlns="DAV:"><valid-sync-token/></error>\n';

/** Writes what changed after a revision, or that it is known no more. */
function writeDifference(
  order: Order & DifferenceOrder,
  { view, revision }: RenderedView,
  place: Place,
): Written {
  const { addresses, notice, robots } = placeOf(order, place);
  const known = knowsSince(revision, order.since, order.fingerprint);
  const options = { source: addresses.feed, page: addresses.see, notice };
  const text = known ? wholeOf(differenceParts(view, revision, order.since, options)) : NOT_KNOWN;
  return {
    ...writeHead(text, noBody()),
    body: noBody(),
    headers: {
      'Content-Type': known ? FORMS.feed.contentType : 'application/xml; charset=utf-8',
      ...robots,
    },
    vary: FEED_VARY,
    status: known ? 200 : 409,
    learns: known ? CONTENTS : null,
    dated: null,
  };
}

/** Writes what a window answers as a collection. */
function writeDav(order: Order & DavOrder, { view, revision }: RenderedView, place: Place): Written {
  const { addresses, notice, robots } = placeOf(order, place);
  // Who follows the collection goes on with the collection at the new address.
  const to = order.moved && { ...notice!.to!, feed: addressesOf(place.publicUrl, order.moved.token).dav };
  const own = { addresses, notice: to ? { ...notice!, to } : notice, of: viewPrint(order.viewId) };
  const { status, contentType, text, tag, learns } = davAnswer(view, revision, own, order.asked);
  return {
    ...writeHead(text, noBody()),
    body: noBody(),
    headers: { 'Content-Type': contentType, DAV: DAV_CLASSES, ...robots },
    vary: `${ENCODED}, Depth, Prefer`,
    status,
    ...(tag === undefined ? {} : { tag }),
    learns,
    dated: null,
  };
}

function placeOf(order: Order, { publicUrl, listed }: Place) {
  return {
    addresses: addressesOf(publicUrl, order.token),
    notice: noticeOf(order, publicUrl),
    robots: listed === null ? UNLISTED : {},
  };
}

/** Returns what is told to somebody who does not look by themselves, as the thread that answers passes it on. */
export function toldDocument(told: Told): Written {
  return {
    ...writeHead(JSON.stringify(told), noBody()),
    body: noBody(),
    headers: {},
    vary: '',
    status: 200,
    learns: null,
    dated: null,
  };
}

/** Tells programs that they may ask for what has changed only, in either way (RFC 8288). */
function upgradeLinks({ feed, dav }: ReturnType<typeof addressesOf>): string {
  return `<${feed}>; rel="${ENHANCED_GET}"; type="text/calendar", <${dav}>; rel="subscribe-caldav"`;
}

function disposition(kept: boolean, fileName: string): Record<string, string> {
  return { 'Content-Disposition': `${kept ? 'attachment' : 'inline'}; filename="${fileName}"` };
}

function writePageOrder(order: Order & PageOrder, { view, revision }: RenderedView, place: Place): Written {
  const { addresses, notice, robots } = placeOf(order, place);
  const { form, page, query, accepted, now } = order;
  const path = (address: string) => new URL(address).pathname;
  const { html, found } = writtenPage(view, revision, {
    form,
    page,
    query,
    accepted,
    listed: place.listed !== null,
    now,
    addresses: {
      ...addresses,
      ...(place.mayMail ? { notices: '/notices' } : {}),
      ...(place.listed === null ? {} : { canonical: addressesOf(place.publicUrl, place.listed).see }),
      self: path(form === 'page' ? addresses.see : addresses.embed),
      copy: path(addresses.copy),
      code: `${path(addresses.see)}/follow.svg`,
      oEmbed: `${place.publicUrl}/oembed?url=${encodeURIComponent(addresses.see)}`,
    },
    assets: '/outside/',
    notice,
  });
  return {
    ...writeHead(html, noBody()),
    body: noBody(),
    headers: { 'Content-Type': 'text/html; charset=utf-8', ...robots },
    vary: `${ENCODED}, Accept-Language`,
    status: found ? 200 : 404,
    learns: CONTENTS,
    dated: null,
  };
}

function writeEntryOrder(order: Order & EntryOrder, { view, revision }: RenderedView, place: Place): Written {
  const { addresses, notice, robots } = placeOf(order, place);
  const file = entryFile(view, revision, order, notice?.to?.see ?? addresses.see, order.now);
  const type = file ? 'text/calendar' : 'text/plain';
  return {
    ...writeHead(file?.text ?? `${goneText(view)}\n`, noBody()),
    body: noBody(),
    headers: {
      'Content-Type': `${type}; charset=utf-8`,
      ...(file ? disposition(true, file.name) : {}),
      ...robots,
    },
    vary: ENCODED,
    status: file ? 200 : 404,
    learns: CONTENTS,
    dated: null,
  };
}

export function goneText({ wording }: RenderedView['view']): string {
  return speechFor(wording.language).say('gone');
}
